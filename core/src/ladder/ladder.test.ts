import { join } from 'node:path';

import { describe, expect, test } from '@jest/globals';
import { loadLibrary } from '@waxwing/library';
import fc from 'fast-check';

import { DEMANDS, demandsWith, DOSE_MODES, fitWith, kitCounts, type Limit, openOptions } from '../movement/index.js';
import { lawfulLibrary } from '../test/generate.js';
import {
  buildCatalog,
  buildLadder,
  CycleError,
  familiesOf,
  FAMILY_GROUPS,
  type LadderNode,
  readiness,
  signIn,
  signMismatch,
  signWords,
  substitutes,
  SWAP_REASONS,
} from './index.js';

const node = (id: string, ...harder: string[]): LadderNode => ({
  id,
  links: harder.map((to) => ({ to, direction: 'harder', lever: 'load' })),
});

describe('ladder graph', () => {
  test('names the nearest rung first, and of several as near the one that leads on to most', () => {
    const { rungs } = buildLadder([
      node('a', 'far', 'dead-end', 'b'),
      node('b', 'far', 'c'),
      node('c'),
      node('dead-end'),
      node('far', 'top'),
      node('top'),
    ]);
    expect(rungs.get('a')?.harder.map(({ to }) => to)).toEqual(['b', 'dead-end', 'far']);
    expect(rungs.get('far')?.easier.map(({ to }) => to)).toEqual(['b', 'a']);
  });

  test('a level is the longest way up from the easiest, as brute force finds it', () => {
    fc.assert(
      fc.property(lawfulLibrary(9), (library) => {
        const { rungs, levels } = buildLadder(library);
        const longest = (id: string): number =>
          Math.max(0, ...(rungs.get(id)?.easier ?? []).map((step) => 1 + longest(step.to)));
        for (const { id } of library) expect(levels.get(id)).toBe(longest(id));
      }),
    );
  });

  test('a link is read the same from both ends, whichever end wrote it', () => {
    const up = buildLadder([node('a', 'b'), node('b')]);
    const down = buildLadder([node('a'), { id: 'b', links: [{ to: 'a', direction: 'easier', lever: 'load' }] }]);
    const both = buildLadder([node('a', 'b'), { id: 'b', links: [{ to: 'a', direction: 'easier', lever: 'load' }] }]);
    expect(down).toEqual(up);
    expect(both).toEqual(up);
    expect(up.rungs.get('b')?.easier[0]?.to).toBe('a');
  });

  test('closing any circle is refused and the path is a real circle of harder links', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 8 }), fc.integer({ min: 0, max: 5 }), (length, tail) => {
        const circle = Array.from({ length }, (_, i) =>
          node(`c${i}`, `c${(i + 1) % length}`, ...(i === 0 && tail ? ['t0'] : [])),
        );
        const rest = Array.from({ length: tail }, (_, i) => node(`t${i}`, ...(i + 1 < tail ? [`t${i + 1}`] : [])));
        let path: readonly string[] = [];
        try {
          buildLadder([...rest, ...circle]);
        } catch (error) {
          if (!(error instanceof CycleError)) throw error;
          path = error.path;
          expect(error.message).toContain(path.join(' → '));
        }
        expect(path).toHaveLength(length + 1);
        expect(path[0]).toBe(path.at(-1));
        path.slice(1).forEach((id, i) => expect(id).toBe(`c${(Number(path[i]?.slice(1)) + 1) % length}`));
      }),
    );
  });
});

describe('substitutes', () => {
  const limits: fc.Arbitrary<Limit[]> = fc.array(
    fc.record({
      demand: fc.constantFrom(...DEMANDS),
      allowed: fc.integer({ min: 0, max: 2 }),
      reason: fc.constant('because'),
    }),
    { maxLength: 3 },
  );

  test('nothing offered breaks a limit, needs missing kit or goes the wrong way', () => {
    fc.assert(
      fc.property(
        lawfulLibrary(14),
        limits,
        fc.constantFrom(...SWAP_REASONS),
        fc.nat(13),
        (library, held, reason, n) => {
          const catalog = buildCatalog(library);
          const from = `movement-${n}`;
          const kit = kitCounts([
            { item: 'dumbbell', count: 2 },
            { item: 'chair', count: 1 },
          ]);
          const { ranked, ruledOut } = substitutes(catalog, { from, reason, region: 'knee', limits: held, kit });
          const level = (id: string) => catalog.ladder.levels.get(id) ?? 0;
          ranked.forEach((answer) => {
            const facts = catalog.entries.get(answer.id)?.facts;
            expect(facts).toBeDefined();
            if (!facts) return;
            expect(answer.id).not.toBe(from);
            const open = openOptions(facts, held, kit);
            expect(open).not.toEqual([]);
            expect(fitWith(facts, held, kit).status).not.toBe('closed');
            expect(answer.why.length).toBeGreaterThan(1);
            if (reason === 'pain')
              expect(
                Math.min(...open.map((option) => demandsWith(facts.demands, option)['deep-knee-bend'] ?? 0)),
              ).toBeLessThanOrEqual(1);
            if (answer.levels !== null && reason === 'too-hard') expect(level(answer.id)).toBeLessThan(level(from));
            if (answer.levels !== null && reason === 'too-easy') expect(level(answer.id)).toBeGreaterThan(level(from));
          });
          const offered = new Set(ranked.map((answer) => answer.id));
          for (const out of ruledOut) expect(offered.has(out.id)).toBe(false);
        },
      ),
    );
  });

  test('pain needs a region, and the movement must exist', () => {
    const catalog = buildCatalog([]);
    expect(() => substitutes(catalog, { from: 'x', reason: 'bored', limits: [], kit: new Map() })).toThrow(
      'no movement "x"',
    );
  });
});

describe('readiness', () => {
  const sign = { reps: 12, sets: 2, clean: true, effortAtMost: 'medium', sessions: 2 } as const;
  const good = { amount: 12, effort: 'medium', clean: true } as const;

  test('needs the sign in enough sessions in a row, counted from the latest', () => {
    const session = (
      day: number,
      ...sets: { amount: number; effort: 'easy' | 'medium' | 'hard' | null; clean: boolean }[]
    ) => ({
      at: `2030-01-0${day}`,
      sets,
    });
    expect(readiness(sign, [session(2, good, good), session(1, good, good)])).toEqual({
      ready: true,
      met: 2,
      needed: 2,
    });
    expect(readiness(sign, [session(1, good, good), session(2, good, { ...good, clean: false })]).met).toBe(0);
    expect(readiness(sign, [session(1, good), session(2, good, good)]).ready).toBe(false);
    expect(readiness(sign, [session(2, good, good, { ...good, effort: 'hard' }), session(1, good, good)]).ready).toBe(
      true,
    );
    expect(readiness(sign, [session(1, { ...good, effort: null }, good), session(2, good, good)]).met).toBe(1);
  });

  test('is said in words', () => {
    expect(signWords(sign)).toBe('2 sets of 12 clean reps, medium effort or easier, in 2 sessions running');
    const { reps: _, ...rest } = sign;
    expect(signWords(signIn('distance', 20, rest))).toBe(
      '2 sets of 20 m, clean, medium effort or easier, in 2 sessions running',
    );
    expect(signWords(signIn('time', 20, rest))).toBe(
      '2 sets of 20 s, clean, medium effort or easier, in 2 sessions running',
    );
    // It speaks of the unit that the movement is dosed in, or is found out.
    for (const made of DOSE_MODES)
      for (const dosed of DOSE_MODES) expect(signMismatch(signIn(made, 20, rest), dosed) === null).toBe(made === dosed);
  });
});

describe('a family', () => {
  test('counts its own levels from one, keeps the order of the ladder, and stands by what the body does in it', () => {
    const library = loadLibrary(join(import.meta.dirname, '../../../library/movements'));
    const { levels } = buildLadder(library);
    const movements = library.map((one) => ({ ...one, level: levels.get(one.id) ?? 0 }));
    const families = familiesOf(movements);
    for (const { members, levels: count, family } of families) {
      expect([...new Set(members.map(({ level }) => level))]).toEqual(Array.from({ length: count }, (_, i) => i + 1));
      for (const { movement: a, level } of members)
        for (const { movement: b, level: other } of members)
          expect(Math.sign(level - other)).toBe(Math.sign(a.level - b.level));
      expect(members.every(({ movement }) => movement.families.includes(family))).toBe(true);
    }
    const groups = families.map(({ group }) => FAMILY_GROUPS.indexOf(group));
    expect(groups).toEqual(groups.toSorted((a, b) => a - b));
    expect(families.reduce((sum, { members }) => sum + members.length, 0)).toBe(
      movements.reduce((sum, one) => sum + one.families.length, 0),
    );
  });
});
