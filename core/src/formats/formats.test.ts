import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { lawfulMovement, lawfulMovements } from '../test/movements.js';
import { cardMarkdown, csvOf, mergeImport, PackError, packOf, previewImport, readCsv, readPack } from './index.js';

const problemsIn = (act: () => unknown): string => {
  try {
    act();
  } catch (error) {
    if (error instanceof PackError) return error.message;
    throw error;
  }
  return 'no problem';
};

/** Demands that the first versions did not know. */
const WORKED_OUT = ['loaded-hinge', 'hip-bend', 'belly-strain', 'kneeling', 'hard-effort', 'transfer'];

describe('a library pack', () => {
  test('comes back as it went out, whatever order the library was in', () => {
    fc.assert(
      fc.property(lawfulMovements(5), (movements) => {
        const pack = readPack(JSON.stringify(packOf(movements)));
        expect(pack.movements).toEqual(packOf([...movements].reverse()).movements);
        expect(pack.workedOut.size).toBe(0);
        const merged = mergeImport([], pack, new Set(movements.map(({ id }) => id)));
        expect(packOf(merged)).toEqual(packOf(movements));
      }),
    );
  });

  test('of the first version is brought up to date: options of kit, and words to say apart from what to do', () => {
    fc.assert(
      fc.property(lawfulMovements(3), (movements) => {
        const plain = movements.map((movement) => ({
          ...movement,
          kit: movement.kit.map(({ needs }) => ({ needs })).filter(({ needs }) => needs.length > 0),
        }));
        const first = plain.map(({ how: _h, setUp: _s, precursors: _p, progression: _g, feel: _f, ...rest }) => ({
          ...rest,
          kit: rest.kit.map(({ needs }) => needs),
          faults: rest.faults.map((fault) => ({
            ...fault,
            corrections: fault.corrections.map(({ say, ...one }) => ({ ...one, text: say })),
          })),
        }));
        const pack = readPack(JSON.stringify({ format: 'waxwing-library', version: 1, movements: first }));
        const read = pack.movements;
        const today = { how: '', setUp: [], precursors: [], progression: 'yes' };
        const bare = <T extends { demands: unknown; dose: { tempo: string } }>({ demands: _d, dose, ...rest }: T) => ({
          ...rest,
          seconds: dose.tempo.split('-').toSorted(),
        });
        expect(read.map(bare)).toEqual(plain.map((one) => bare({ ...one, ...today })));
        // What was said stays; what is done on the feet says so now, and only what was not asked for then is worked out.
        for (const [i, { demands, position }] of plain.entries()) {
          const said = { ...(position === 'standing' ? { standing: 1 } : {}), ...demands };
          expect(read[i]?.demands).toMatchObject(said);
          const more = Object.keys(read[i]?.demands ?? {}).filter((demand) => !(demand in said));
          expect(more.filter((demand) => !WORKED_OUT.includes(demand))).toEqual([]);
        }
        // Whoever takes it in is told what is not from the pack.
        for (const one of previewImport(
          pack,
          () => undefined,
          () => false,
        )) {
          const before = plain.find(({ id }) => id === one.id);
          const after = read.find(({ id }) => id === one.id);
          const more = Object.keys(after?.demands ?? {}).length > Object.keys(before?.demands ?? {}).length;
          const texts = before?.faults.some(({ corrections }) => corrections.some(({ say }) => say !== undefined));
          expect(one.workedOut).toEqual([
            ...(more ? ['what it asks of hips, belly, knees and pulse'] : []),
            ...(after?.dose.tempo === before?.dose.tempo ? [] : ['where the pause of its tempo is']),
            ...(texts ? ['who each correction is for'] : []),
          ]);
        }
      }),
    );
  });

  test('of the second version is read with today\u2019s names of causes, and keeps a demand that was left out', () => {
    const [movement] = fc.sample(lawfulMovements(1), 1)[0] ?? [];
    if (!movement) throw new Error('no movement drawn');
    const causes = ['set-up/narrow-stance', 'set-up/feet-together', 'load/our-own'];
    const fault = {
      ...movement.faults[0],
      id: 'it',
      phase: movement.phases[0],
      causes,
      corrections: [{ id: 'a', kind: 'say', say: 'Wider.', causes }],
    };
    const before = {
      ...movement,
      role: 'strength',
      position: 'standing',
      demands: {},
      links: [],
      cues: [],
      faults: [{ views: { side: 1 }, severity: 'fix', name: 'It', looksLike: 'It.', ...fault }],
    };
    const pack = readPack(JSON.stringify({ format: 'waxwing-library', version: 2, movements: [before] }));
    const [read] = pack.movements;
    expect(pack.workedOut).toEqual(new Map([[movement.id, ["today's names of causes"]]]));
    const today = ['set-up/stance-too-narrow', 'load/our-own'];
    expect(read).toMatchObject({ demands: {}, faults: [{ causes: today, corrections: [{ causes: today }] }] });
  });

  test('of the fourth version has the pause of a tempo where it is held', () => {
    const [movement] = fc.sample(lawfulMovements(1), 1)[0] ?? [];
    if (!movement) throw new Error('no movement drawn');
    const tempoOf = (version: number, tempo: string, change: object) => {
      const dose = { ...movement.dose, mode: 'reps', tempo };
      const one = {
        ...movement,
        links: [],
        cues: [],
        faults: [],
        phases: ['set-up', 'rise', 'lower'],
        dose,
        ...change,
      };
      return readPack(JSON.stringify({ format: 'waxwing-library', version, movements: [one] })).movements[0]?.dose
        .tempo;
    };
    expect(tempoOf(4, '3-1-2-0', {})).toBe('3-0-2-1');
    expect(tempoOf(4, '3-1-2-1', {})).toBe('3-1-2-1');
    expect(tempoOf(4, '3-1-2-0', { phases: ['set-up', 'lower', 'rise'] })).toBe('3-1-2-0');
    expect(tempoOf(4, '3-1-2-0', { id: 'loft-deadlift' })).toBe('3-1-2-0');
    expect(tempoOf(5, '3-1-2-0', {})).toBe('3-1-2-0');
  });

  test('cut anywhere is refused, with the line', () => {
    const text = JSON.stringify(packOf(fc.sample(lawfulMovements(3), 1)[0] ?? []), null, 1);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: text.length - 1 }), (end) => {
        expect(problemsIn(() => readPack(text.slice(0, end)))).toMatch(/^line \d+, column \d+ is not JSON/);
      }),
    );
  });

  const whole = packOf(fc.sample(lawfulMovements(2), { numRuns: 1, seed: 7 })[0] ?? []);
  const first = whole.movements[0];
  if (!first) throw new Error('no movement drawn');
  test.each<[string, unknown, string]>([
    ['another kind of file', [1, 2], 'not a library pack'],
    ['another format', { ...whole, format: 'x' }, 'format must be'],
    ['a later version', { ...whole, version: 6 }, 'version is 6, but only 1, 2, 3, 4 and 5'],
    ['an unknown field', { ...whole, extra: 1 }, 'extra is not a known field'],
    ['ids twice', { ...whole, movements: [first, first] }, 'movements[1].id "movement-0" is also movements[0]'],
    [
      'a script tag in a cue',
      { ...whole, movements: [{ ...first, cues: [{ ...first.cues[0], text: '<script>alert(1)</script>' }] }] },
      'movements[0].cues[0].text must be plain text',
    ],
  ])('%s is named by its path', (_, input, expected) =>
    expect(problemsIn(() => readPack(JSON.stringify(input)))).toContain(expected),
  );

  test('is looked at before it is taken: new, same, changed or changed on both sides', () => {
    fc.assert(
      fc.property(lawfulMovement('a'), lawfulMovement('a'), fc.boolean(), (here, there, touched) => {
        const [row] = previewImport(
          packOf([there]),
          () => here,
          () => touched,
        );
        const same = JSON.stringify(here) === JSON.stringify(there);
        expect(row?.state).toBe(same ? 'same' : touched ? 'conflict' : 'changed');
        expect(row?.changes.length === 0).toBe(same);
        expect(
          previewImport(
            packOf([there]),
            () => undefined,
            () => touched,
          )[0]?.state,
        ).toBe('new');
      }),
    );
  });

  test('taken in part may not leave links to nowhere, nor close a circle', () => {
    const link = (to: string) => ({ to, direction: 'harder' as const, lever: 'load' as const });
    const a = { ...first, id: 'a', links: [link('b')] };
    const b = { ...first, id: 'b', links: [link('a')] };
    expect(problemsIn(() => mergeImport([], packOf([a, b]), new Set(['a'])))).toBe(
      'movements[0].links[0].to no movement "b" in the library',
    );
    expect(problemsIn(() => mergeImport([], packOf([a, b]), new Set(['a', 'b'])))).toContain('run in a circle');
  });
});

describe('a list as CSV', () => {
  test('comes back as it went out, formulas and quotes included', () => {
    fc.assert(
      fc.property(lawfulMovements(4), (movements) => {
        const byId = new Map(movements.map((movement) => [movement.id, movement]));
        const csv = csvOf(movements);
        for (const cell of csv.split(/[\n,]/)) expect(cell).not.toMatch(/^[=@]/);
        expect(readCsv(csv, (id) => byId.get(id))).toEqual(packOf(movements));
      }),
    );
  });

  test('makes a bare movement of a row that is not here yet, and names lines that are wrong', () => {
    const [movement] = fc.sample(lawfulMovement('fresh-row'), { numRuns: 1, seed: 3 });
    if (!movement) throw new Error('no movement drawn');
    const csv = csvOf([movement]);
    expect(readCsv(csv, () => undefined).movements[0]).toMatchObject({
      id: 'fresh-row',
      cues: [],
      name: movement.name,
    });
    expect(problemsIn(() => readCsv(csv.replace('pattern', 'patern'), () => undefined))).toContain(
      'has no column "pattern"',
    );
    expect(problemsIn(() => readCsv(csv.replace(/,reps,/, ',fathoms,'), () => undefined))).toMatch(
      /line 2, dose\.mode/,
    );
    const twice = `${csv}\n${csv.split('\n').slice(1).join('\n')}`;
    expect(problemsIn(() => readCsv(twice, () => undefined))).toContain('is also in line 2');
  });
});

test('a card in Markdown lets nothing of the text become markup', () => {
  fc.assert(
    fc.property(lawfulMovement('a'), (movement) => {
      const card = cardMarkdown(movement, { easier: [], harder: [] });
      expect(card).not.toMatch(/(^|[^\\])\|/);
      for (const fault of movement.faults)
        expect(card.replaceAll('\\', '')).toContain(fault.corrections[0]?.say ?? 'nothing');
    }),
  );
});
