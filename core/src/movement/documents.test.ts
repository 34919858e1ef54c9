import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { lawfulMovement, lawfulMovements } from '../test/movements.js';
import {
  buildFinding,
  canonical,
  compareMovements,
  difference,
  type HouseRule,
  otherSchools,
  type RuleChoices,
  searchTextOf,
  tagsInForce,
  underRules,
} from './index.js';
import { buildMentions, wordsIn } from './mentions.js';

describe('the difference between two versions', () => {
  test('is empty exactly when they hold the same', () => {
    fc.assert(
      fc.property(lawfulMovement('a'), lawfulMovement('a'), (before, after) => {
        expect(difference(before, before)).toEqual([]);
        expect(difference(before, after).length === 0).toBe(canonical(before) === canonical(after));
      }),
    );
  });

  test('names what was added, taken, changed and moved', () => {
    const before = {
      name: 'Row',
      cues: [
        { id: 'a', text: 'Pull' },
        { id: 'b', text: 'Hold' },
      ],
    };
    const after = {
      name: 'Rows',
      cues: [
        { id: 'b', text: 'Hold' },
        { id: 'a', text: 'Pull back' },
        { id: 'c', text: 'Go' },
      ],
    };
    expect(difference(before, after)).toEqual([
      { kind: 'changed', where: 'name', before: 'Row', after: 'Rows' },
      { kind: 'changed', where: 'cue “Pull”, text', before: 'Pull', after: 'Pull back' },
      { kind: 'added', where: 'cue “Go”' },
      { kind: 'moved', where: 'order of cues' },
    ]);
    expect(difference(after, before)).toContainEqual({ kind: 'removed', where: 'cue “Go”' });
  });
});

describe('house rules', () => {
  const rules: HouseRule[] = [
    { id: 'depth', matter: 'Depth', both: 'x', options: ['high', 'low'].map((id) => ({ id, name: id, reason: id })) },
  ];

  test("a client's choice comes before the studio's, the studio's before the first option; what is unknown is passed over", () => {
    const tag = (studio: object, client: object) =>
      [...tagsInForce(rules, studio as Record<string, string>, client as Record<string, string>)][0];
    expect(tag({}, {})).toBe('depth/high');
    expect(tag({ depth: 'low' }, {})).toBe('depth/low');
    expect(tag({ depth: 'low' }, { depth: 'high' })).toBe('depth/high');
    expect(tag({ depth: 'gone' }, { other: 'x' })).toBe('depth/high');
  });

  test('an option that asks for more than a limit allows is never in force, whoever chose it, unless every other one does', () => {
    const choice = fc.constantFrom<RuleChoices>({}, { depth: 'high' }, { depth: 'low' });
    const asked = fc.integer({ min: 0, max: 3 });
    fc.assert(
      fc.property(
        choice,
        choice,
        asked,
        asked,
        fc.integer({ min: 0, max: 2 }),
        (studio, client, high, low, allowed) => {
          const asking = rules.map((rule) => ({
            ...rule,
            options: rule.options.map((option, i) => ({ ...option, asks: { 'deep-knee-bend': i === 0 ? high : low } })),
          }));
          const limits = [{ demand: 'deep-knee-bend' as const, allowed, reason: 'knee' }];
          const inForce = [...tagsInForce(asking, studio, client, limits)][0];
          const wished = [...tagsInForce(asking, studio, client)][0];
          const fits = (tag: string | undefined) => (tag === 'depth/low' ? low : high) <= allowed;
          if (fits(wished)) expect(inForce).toBe(wished);
          else if (high <= allowed || low <= allowed) expect(fits(inForce)).toBe(true);
          else expect(inForce).toBe('depth/high');
        },
      ),
    );
  });

  test('a movement splits into what is in force and what other schools say, and refers to nothing that is hidden', () => {
    fc.assert(
      fc.property(lawfulMovement('a'), fc.constantFrom('depth/high', 'depth/low', undefined), (drawn, tag) => {
        const movement = {
          ...drawn,
          cues: drawn.cues.map((cue, i) => ({
            ...cue,
            addresses: ['bend'],
            ...(i === 0 && tag ? { houseRule: tag } : {}),
          })),
          faults: drawn.faults.map((fault) => ({
            ...fault,
            corrections: fault.corrections.map((c) => ({ ...c, cueId: 'first' })),
            ...(fault.id === 'bend' && tag ? { houseRule: tag } : {}),
          })),
        };
        const tags = tagsInForce(rules, {});
        const shown = underRules(movement, tags);
        const other = otherSchools(movement, tags);
        expect(shown.cues.length + other.cues.length).toBe(movement.cues.length);
        expect(shown.faults.length + other.faults.length).toBe(movement.faults.length);
        expect(other.cues.length).toBe(tag === 'depth/low' ? 1 : 0);
        for (const cue of shown.cues)
          for (const id of cue.addresses) expect(shown.faults.map((fault) => fault.id)).toContain(id);
        for (const { corrections } of shown.faults)
          for (const { cueId } of corrections) expect(shown.cues.map((cue) => cue.id)).toContain(cueId);
      }),
    );
  });
});

describe('finding', () => {
  test('a text mentions every word exactly when plain reading says so', () => {
    const text = fc
      .array(fc.constantFrom('knee', 'knees', 'kneel', 'cave', 'row'), { maxLength: 4 })
      .map((w) => w.join(' '));
    const group = fc.record({
      words: fc.uniqueArray(fc.constantFrom('knee', 'kne', 'cave', 'row', 'x'), { minLength: 1, maxLength: 2 }),
      open: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(text, { maxLength: 70 }),
        fc.array(group, { minLength: 1, maxLength: 3 }),
        (texts, groups) => {
          const plain = texts.flatMap((one, i) => {
            const has = groups.every(({ words, open }) =>
              wordsIn(one).some((word) => words.some((w) => (open ? word.startsWith(w) : word === w))),
            );
            return has ? [i] : [];
          });
          expect(buildMentions(texts).find(groups)).toEqual(plain);
        },
      ),
    );
  });

  test('a name typed in full comes first, a part of it and two swapped letters still find it', () => {
    fc.assert(
      fc.property(lawfulMovements(4), fc.nat(3), (movements, n) => {
        const named = movements.map((movement, i) => ({
          ...movement,
          name: `Harbour step ${['one', 'seven', 'nine', 'zero'][i]}`,
        }));
        const target = named[n % named.length];
        const finding = buildFinding(named.map(searchTextOf));
        expect(finding.movements(target?.name ?? '').ids[0]).toBe(target?.id);
        expect(finding.movements('harb').ids).toContain(target?.id);
        expect(finding.movements('habrour').ids).toContain(target?.id);
      }),
    );
  });

  test('words for the same thing lead to the fault and to every movement that has it', () => {
    const [one] = fc.sample(lawfulMovement('one'), { numRuns: 1, seed: 1 });
    if (!one) throw new Error('no movement drawn');
    const fault = { ...one.faults[0], name: 'Knees cave in', looksLike: 'The thighs meet.' };
    const movements = ['one', 'two'].map((id) => ({ ...one, id, name: id, cues: [], faults: [fault] }) as typeof one);
    const finding = buildFinding(movements.map(searchTextOf));
    expect(finding.movements('knees fall in')).toEqual({ ids: ['one', 'two'], total: 2 });
    expect(finding.faults('knee falls').map(({ name }) => name)).toEqual([]);
    expect(finding.faults('knees fall in')[0]?.movements.map(({ id }) => id)).toEqual(['one', 'two']);
  });
});

test('a comparison marks as own exactly what not all share', () => {
  fc.assert(
    fc.property(fc.tuple(lawfulMovement('a'), lawfulMovement('b'), lawfulMovement('c')), (movements) => {
      for (const row of compareMovements(movements)) {
        const texts = row.values.map((values) => values.map(({ text }) => text));
        for (const values of row.values)
          for (const { text, own } of values) expect(own).toBe(!texts.every((list) => list.includes(text)));
        expect(row.differs).toBe(row.values.some((values) => values.some(({ own }) => own)));
      }
    }),
  );
});
