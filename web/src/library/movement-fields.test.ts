import { expect, test } from '@jest/globals';
import { signIn } from '@waxwing/core/ladder';
import { checkMovement, DOSE_MODES, type Movement } from '@waxwing/core/movement';
import fc from 'fast-check';

import { BLANK, documentOf, fieldsOf, freshId } from './movement-fields';

const sign = fc.record({ sets: fc.integer({ min: 1, max: 5 }), sessions: fc.integer({ min: 1, max: 4 }) });

/** Movements that use every field of the form. */
const movement: fc.Arbitrary<Movement> = fc
  .record({
    mode: fc.constantFrom(...DOSE_MODES),
    aliases: fc.uniqueArray(fc.constantFrom('back step', 'reach', 'hold'), { maxLength: 3 }),
    amount: fc.integer({ min: 1, max: 3 }),
    kit: fc.array(fc.constantFrom('dumbbell' as const, 'mat' as const), { maxLength: 2 }),
    sign: fc.option(sign, { nil: undefined }),
    rule: fc.option(fc.constant('knee-travel/knee-free'), { nil: undefined }),
    cautions: fc.array(fc.constantFrom('Slow.', 'Dry floor.'), { maxLength: 2 }),
  })
  .map(({ mode, aliases, amount, kit, sign, rule, cautions }) => {
    const timed = mode === 'time';
    const tag = rule ? { houseRule: rule } : {};
    const readyWhen = sign && signIn(mode, 12, { clean: true, effortAtMost: 'medium', ...sign });
    const checked = checkMovement({
      id: 'quay-step',
      name: 'Quay step',
      aliases,
      families: ['lunge', 'step-up'],
      pattern: 'lunge',
      role: 'strength',
      position: 'standing',
      sides: 'each',
      planes: ['sagittal'],
      muscles: { prime: ['quads'], assist: ['glutes'] },
      kit: kit.map((item) => ({
        needs: [{ item, count: amount }],
        ...(timed ? { demands: { 'hard-grip': amount }, mostKg: 12 } : {}),
      })),
      how: timed ? 'Stand tall. Step back.' : '',
      setUp: timed ? ['stance'] : [],
      precursors: timed ? ['box-squat'] : [],
      ...(timed ? { feel: { expected: 'Thighs work.', stop: 'Sharp knee pain.' } } : {}),
      progression: timed ? 'none intended' : 'yes',
      space: 'spot',
      demands: { 'deep-knee-bend': amount },
      dose: {
        mode,
        tempo: '2-0-1-0',
        windows: {
          learn: { low: 6, high: 8, sets: [2, 3], rest: 60 },
          endurance: { low: 12, high: 20, sets: [1, 2], rest: 0 },
        },
      },
      breath: 'Out on the way up.',
      phases: ['lower', 'rise'],
      cues: [{ id: 'a', phase: 'rise', focus: 'image', channel: 'say', text: 'Rise', addresses: ['drop'], ...tag }],
      faults: [
        {
          id: 'drop',
          name: 'Drops',
          looksLike: 'Falls at the end.',
          phase: 'lower',
          severity: 'fix',
          views: { front: 0.5, side: 0.25, back: 0, oblique: 0 },
          causes: ['strength/weak-brakes', 'fatigue/late'],
          corrections: [
            { id: 'say', kind: 'say', say: 'Slow.', cueId: 'a', causes: ['fatigue/late'] },
            { id: 'swap', kind: 'swap', do: 'Lower step.', swapTo: 'low-step-up', causes: [] },
          ],
          ...tag,
          ...(rule ? { kind: 'knees-in' } : {}),
        },
      ],
      links: [
        {
          to: 'low-step-up',
          direction: 'harder',
          lever: 'depth',
          ...(readyWhen ? { readyWhen } : {}),
          backWhen: { repsBelow: 6, sets: 2 },
        },
      ],
      cautions,
      notFor: ['osteoporosis'],
      suits: ['wheelchair'],
    });
    if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
    return checked.value;
  });

test('a movement comes out of the form as it went in', () => {
  fc.assert(
    fc.property(movement, (before) => {
      const document = documentOf(fieldsOf(before), before.id, () => before.dose.mode);
      expect(checkMovement(document)).toEqual({ ok: true, value: before });
    }),
  );
});

test('an empty form is refused by what it lacks, and names nothing that is filled in', () => {
  const checked = checkMovement(documentOf(BLANK, 'quay-step', () => 'reps'));
  const paths = checked.ok ? [] : checked.problems.map(({ path }) => path);
  expect(new Set(paths)).toEqual(new Set(['name', 'families', 'muscles.prime', 'breath']));
});

test('what a select leaves empty is left out, and a swap is kept only by a swap', () => {
  const [before] = fc.sample(movement, 1);
  if (!before) throw new Error('nothing drawn');
  const fields = fieldsOf(before);
  const [fault] = fields.faults;
  const [cue] = fields.cues;
  if (!fault || !cue) throw new Error('nothing drawn');
  fault.corrections = [{ id: 'x', kind: 'show', do: 'Show it.', causes: [], cueId: '', swapTo: 'low-step-up' }];
  cue.houseRule = '';
  const kept = [undefined, {}, { kit: undefined }, { kit: [] }].map((only) => {
    cue.for = only;
    return checkMovement(documentOf(fields, before.id, () => before.dose.mode));
  });
  const [checked] = kept;
  for (const one of kept) expect(one).toEqual(checked);
  expect(checked).toMatchObject({ ok: true });
  const value = checked?.ok ? checked.value : before;
  expect(value.faults[0]?.corrections).toEqual([{ id: 'x', kind: 'show', do: 'Show it.', causes: [] }]);
  expect(value.cues[0]).not.toHaveProperty('houseRule');
  expect(value.cues[0]).not.toHaveProperty('for');
});

test('new parts get ids that the schema takes and that do not repeat', () => {
  const ids = Array.from({ length: 200 }, () => freshId('cue'));
  expect(new Set(ids).size).toBe(200);
  for (const id of ids) expect(id).toMatch(/^cue-[a-z0-9]+$/);
});
