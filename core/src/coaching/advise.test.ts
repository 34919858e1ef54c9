import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { type Correction, CORRECTION_KINDS, type Fault, type Movement, SEVERITIES } from '../movement/index.js';
import {
  advise,
  type Attempt,
  believe,
  countTrials,
  OUTCOMES,
  type Situation,
  styleOf,
  type Suggestion,
  type Trial,
} from './index.js';
import { teachingCues } from './teach.js';
import { FAILURES_TO_STEP_DOWN, KIND_COST, SEVERITY_WEIGHT } from './weights.js';

const NOW = '2030-03-01T10:00:00.000Z';
const CAUSES = ['set-up/a', 'set-up/b', 'load/c'];
const FOCUSES = ['inward', 'outward', 'image'] as const;
const ORDER = (kind: Correction['kind']) => CORRECTION_KINDS.indexOf(kind);

const corrections: fc.Arbitrary<Correction[]> = fc
  .array(
    fc.record({
      kind: fc.constantFrom(...CORRECTION_KINDS),
      cue: fc.constantFrom(...FOCUSES),
      swapTo: fc.constantFrom('open-one', 'closed-one'),
      causes: fc.subarray(CAUSES),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((drawn) =>
    drawn
      .toSorted((a, b) => ORDER(a.kind) - ORDER(b.kind))
      .map(({ kind, cue, swapTo, causes }, i) => ({
        id: `c${i}`,
        kind,
        text: 'Do it.',
        causes,
        ...(kind === 'say' ? { cueId: cue } : {}),
        ...(kind === 'swap' ? { swapTo } : {}),
      })),
  );

const faultAt = (id: string): fc.Arbitrary<Fault> =>
  fc.record({
    id: fc.constant(id),
    name: fc.constant(id),
    looksLike: fc.constant(id),
    phase: fc.constant('lower' as const),
    severity: fc.constantFrom(...SEVERITIES),
    views: fc.constant({ front: 1, side: 0, back: 0, oblique: 0 }),
    causes: fc.subarray(CAUSES, { minLength: 1 }),
    corrections,
  });

const movement: fc.Arbitrary<Movement> = fc.tuple(faultAt('f0'), faultAt('f1'), faultAt('f2')).map(
  (faults) =>
    ({
      id: 'm',
      phases: ['set-up', 'lower'],
      faults,
      cues: FOCUSES.map((focus) => ({ id: focus, phase: 'lower', text: focus, focus, channel: 'say', addresses: [] })),
    }) as unknown as Movement,
);

const places = { faultId: fc.constantFrom('f0', 'f1', 'f2'), correctionId: fc.constantFrom('c0', 'c1', 'c2', 'c3') };
const attempts: fc.Arbitrary<Attempt[]> = fc.array(
  fc.record({ ...places, outcome: fc.option(fc.constantFrom(...OUTCOMES), { nil: null }) }),
  { maxLength: 6 },
);
const trials: fc.Arbitrary<Trial[]> = fc.array(
  fc.record({
    correction: fc.tuple(places.faultId, places.correctionId).map(([f, c]) => `m/${f}/${c}`),
    kind: fc.constantFrom(...CORRECTION_KINDS),
    focus: fc.constantFrom(...FOCUSES, null),
    outcome: fc.constantFrom(...OUTCOMES),
    at: fc.integer({ min: 0, max: 300 }).map((days) => new Date(Date.parse(NOW) - days * 86_400_000).toISOString()),
  }),
  { maxLength: 12 },
);

const situations: fc.Arbitrary<Situation> = fc.record({
  movement,
  seen: fc.subarray(['f0', 'f1', 'f2', 'unknown']),
  named: fc.subarray([...CAUSES, 'balance/elsewhere'], { maxLength: 2 }),
  attempts,
  // Half of them are other people's.
  evidence: fc.tuple(trials, trials).map(([own, others]) => ({ trials: own, others: countTrials(others, NOW) })),
  now: fc.constant(NOW),
  mayTouch: fc.boolean(),
  maySwapTo: fc.constant((id: string) => id === 'open-one'),
});

const failed = ({ outcome }: Attempt) => outcome === 'same' || outcome === 'worse';

/** Whether a correction may be suggested at all, read from the rules one by one. */
function allowed(s: Situation, fault: Fault, correction: Correction): boolean {
  const misses = s.attempts.filter((attempt) => attempt.faultId === fault.id && failed(attempt));
  const kindOf = (id: string) => fault.corrections.find((one) => one.id === id)?.kind;
  const givenUp = CORRECTION_KINDS.filter(
    (kind) => misses.filter(({ correctionId }) => kindOf(correctionId) === kind).length >= FAILURES_TO_STEP_DOWN,
  );
  return (
    !misses.some(({ correctionId }) => correctionId === correction.id) &&
    !givenUp.some((kind) => ORDER(kind) >= ORDER(correction.kind)) &&
    (correction.kind !== 'touch' || s.mayTouch) &&
    (correction.swapTo === undefined || s.maySwapTo(correction.swapTo))
  );
}

const isNamed = (s: Situation, { causes }: Correction) => causes.some((cause) => s.named.includes(cause));

/** What a correction answers is worth so much, and gains so much, as the formula has it. */
function worthAndGain(s: Situation, fault: Fault, correction: Correction) {
  const { chance } = believe(`m/${fault.id}/${correction.id}`, styleOf(s.movement, correction), s.evidence, s.now);
  const answered = s.movement.faults.filter(
    (other) =>
      s.seen.includes(other.id) &&
      (other === fault || isNamed(s, correction) || other.causes.some((cause) => correction.causes.includes(cause))),
  );
  const worth = answered.reduce((sum, f) => sum + SEVERITY_WEIGHT[f.severity], 0);
  return { answered, worth, gain: worth * chance - KIND_COST[correction.kind] };
}

const choices = (s: Situation) =>
  s.movement.faults.flatMap((fault) =>
    fault.corrections
      .filter((correction) => s.seen.includes(fault.id) || (isNamed(s, correction) && correction.kind !== 'stop'))
      .filter((correction) => allowed(s, fault, correction))
      .map((correction) => ({
        fault,
        correction,
        named: isNamed(s, correction),
        ...worthAndGain(s, fault, correction),
      }))
      .filter(({ gain }) => worstOf(s) !== 'polish' || gain > 0),
  );

/** What comes first: what was named, what answers more, what gains more, what is less intrusive. */
const byRank = (a: ReturnType<typeof choices>[number], b: ReturnType<typeof choices>[number]) => {
  const near = (difference: number) => (Math.abs(difference) < 1e-9 ? 0 : difference);
  return (
    Number(b.named) - Number(a.named) ||
    Number(b.answered.includes(b.fault)) - Number(a.answered.includes(a.fault)) ||
    near(b.worth - a.worth) ||
    near(b.gain - a.gain) ||
    ORDER(a.correction.kind) - ORDER(b.correction.kind)
  );
};

const worstOf = (s: Situation) =>
  SEVERITIES.find((severity) =>
    s.movement.faults.some((fault) => s.seen.includes(fault.id) && fault.severity === severity),
  );

describe('one thing to say or do', () => {
  test('is the best of all that are allowed, and the less intrusive of two as good', () => {
    fc.assert(
      fc.property(situations, (s) => {
        fc.pre(worstOf(s) !== 'stop' && worstOf(s) !== undefined);
        const first = choices(s).toSorted(byRank)[0];
        const advice = advise(s);
        if (advice.kind !== 'correct') {
          expect(advice.kind).toBe('leave');
          expect(first).toBeUndefined();
          return;
        }
        const { primary } = advice;
        expect(primary.gain).toBeCloseTo(first?.gain ?? NaN, 9);
        expect(primary.why.named).toBe(first?.named);
        expect(ORDER(primary.correction.kind)).toBe(ORDER(first?.correction.kind ?? 'stop'));
        expect(allowed(s, primary.fault, primary.correction)).toBe(true);
      }),
      { numRuns: 300 },
    );
  });

  test('what changes the cause of all that is seen is never behind what changes one of them', () => {
    fc.assert(
      fc.property(situations, (s) => {
        const seen = s.movement.faults.filter(({ id }) => s.seen.includes(id));
        fc.pre(seen.length > 1 && seen.every(({ severity }) => severity === seen[0]?.severity));
        const advice = advise(s);
        fc.pre(advice.kind === 'correct');
        if (advice.kind !== 'correct') return;
        const changesAll = choices(s).some(({ answered }) => answered.length === seen.length);
        if (changesAll) expect(advice.primary.addresses).toHaveLength(seen.length);
      }),
      { numRuns: 300 },
    );
  });

  test('comes with the one that would be best if it failed', () => {
    fc.assert(
      fc.property(situations, (s) => {
        const advice = advise(s);
        fc.pre(advice.kind === 'correct');
        if (advice.kind !== 'correct') return;
        const { primary, next } = advice;
        const miss: Attempt = { faultId: primary.fault.id, correctionId: primary.correction.id, outcome: 'same' };
        const then = choices({ ...s, attempts: [...s.attempts, miss] });
        if (!next) expect(then).toEqual([]);
        else {
          expect(next.gain).toBeCloseTo(then.toSorted(byRank)[0]?.gain ?? NaN, 9);
          expect([next.fault.id, next.correction.id]).not.toEqual([primary.fault.id, primary.correction.id]);
        }
      }),
    );
  });

  test('names only faults that were seen, the owner first, and words that belong to the correction', () => {
    const check = (s: Situation, { fault, correction, cue, addresses, chance }: Suggestion) => {
      if (s.seen.includes(fault.id)) expect(addresses[0]).toBe(fault);
      for (const one of addresses) expect(s.seen).toContain(one.id);
      expect(new Set(addresses).size).toBe(addresses.length);
      expect(cue?.id).toBe(correction.cueId);
      expect(chance).toBeGreaterThan(0);
      expect(chance).toBeLessThan(1);
    };
    fc.assert(
      fc.property(situations, (s) => {
        const advice = advise(s);
        if (advice.kind !== 'correct') return;
        check(s, advice.primary);
        if (advice.next) check(s, advice.next);
      }),
    );
  });

  test('a stop comes before everything, whatever is known, and never offers a closed movement', () => {
    fc.assert(
      fc.property(situations, (s) => {
        fc.pre(worstOf(s) === 'stop');
        const advice = advise(s);
        expect(advice.kind).toBe('stop');
        if (advice.kind !== 'stop') return;
        expect(advice.fault.severity).toBe('stop');
        expect(advice.correction?.swapTo).not.toBe('closed-one');
        const usable = advice.fault.corrections.filter(({ swapTo }) => swapTo !== 'closed-one');
        expect(ORDER(advice.correction?.kind ?? 'say')).toBe(Math.max(0, ...usable.map(({ kind }) => ORDER(kind))));
      }),
    );
  });

  test('says this client’s own record with that style, counted by hand', () => {
    fc.assert(
      fc.property(situations, (s) => {
        const advice = advise(s);
        if (advice.kind !== 'correct') return;
        const { correction, why } = advice.primary;
        const style = styleOf(s.movement, correction);
        const mine = s.evidence.trials.filter((t) => t.kind === style.kind && t.focus === style.focus);
        const good = mine.filter(({ outcome }) => outcome === 'fixed' || outcome === 'better').length;
        expect(why).toMatchObject({ style, tried: mine.length, worked: good });
      }),
    );
  });
});

test('before anything goes wrong, each phase with cues gets one of its own, in the style with the best record', () => {
  const cue = (id: string, phase: string, focus: (typeof FOCUSES)[number]) => ({ id, phase, focus, text: id });
  const taught = {
    id: 'm',
    phases: ['set-up', 'lower', 'rise'],
    cues: [
      { ...cue('hands', 'set-up', 'outward'), channel: 'touch' },
      cue('in-1', 'set-up', 'inward'),
      cue('out-1', 'set-up', 'outward'),
      cue('in-2', 'lower', 'inward'),
      cue('image-2', 'lower', 'image'),
    ],
  } as unknown as Movement;
  const say = (focus: (typeof FOCUSES)[number], outcome: Trial['outcome']): Trial => ({
    correction: 'x/y/z',
    kind: 'say',
    focus,
    outcome,
    at: NOW,
  });
  const ids = (trials: Trial[], mayTouch = false) =>
    teachingCues(taught, { trials, others: {} }, NOW, mayTouch).map(({ cue: { id } }) => id);
  expect(ids([])).toEqual(['in-1', 'in-2']);
  expect(ids([say('outward', 'fixed'), say('image', 'fixed')])).toEqual(['out-1', 'image-2']);
  expect(ids([say('outward', 'same'), say('image', 'better'), say('inward', 'fixed')])).toEqual(['in-1', 'in-2']);
  // A cue given by touch is one only with consent.
  expect(ids([say('outward', 'fixed')], true)).toEqual(['hands', 'in-2']);
});
