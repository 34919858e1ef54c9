import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';

import { limitsFromPain } from '../client/index.js';
import { type Fault, type Movement, VIEWS } from '../movement/index.js';
import {
  advise,
  believe,
  bestView,
  countTrials,
  fading,
  groupByView,
  nextPlace,
  NO_EVIDENCE,
  OUTCOMES,
  seeing,
  type Situation,
  type Trial,
  whereToStand,
  whomToWatch,
} from './index.js';

const NOW = '2030-03-01T10:00:00.000Z';
const daysAgo = (days: number) => new Date(Date.parse(NOW) - days * 86_400_000).toISOString();

const fault = (id: string, over: Partial<Fault> = {}): Fault => ({
  id,
  name: id,
  looksLike: id,
  phase: 'lower',
  severity: 'fix',
  views: { front: 1, side: 0, back: 0, oblique: 0 },
  causes: [`set-up/${id}`],
  corrections: [
    { id: 'words', kind: 'say', say: 'Say it.', cueId: 'out', causes: [`set-up/${id}`] },
    { id: 'other-words', kind: 'say', say: 'Say it otherwise.', cueId: 'in', causes: [] },
    { id: 'show', kind: 'show', do: 'Show it.', causes: [] },
    { id: 'hands-on', kind: 'touch', do: 'Guide it.', causes: [] },
    { id: 'lighter', kind: 'lighten', do: 'Lighter.', causes: [] },
    { id: 'swap', kind: 'swap', do: 'Easier one.', swapTo: 'easier', causes: [] },
  ],
  ...over,
});

const movement = (...faults: Fault[]) =>
  ({
    id: 'm',
    faults,
    cues: [
      { id: 'out', phase: 'lower', text: 'Outward words', focus: 'outward', channel: 'say', addresses: [] },
      { id: 'in', phase: 'lower', text: 'Inward words', focus: 'inward', channel: 'say', addresses: [] },
    ],
  }) as unknown as Movement;

const situation = (over: Partial<Situation> = {}): Situation => ({
  movement: movement(fault('knees-in')),
  seen: ['knees-in'],
  named: [],
  attempts: [],
  evidence: NO_EVIDENCE,
  now: NOW,
  mayTouch: false,
  maySwapTo: () => true,
  ...over,
});

const trial = (over: Partial<Trial> = {}): Trial => ({
  correction: 'm/knees-in/words',
  kind: 'say',
  focus: 'outward',
  outcome: 'fixed',
  at: daysAgo(1),
  ...over,
});

const primaryOf = (s: Situation) => {
  const advice = advise(s);
  if (advice.kind !== 'correct') throw new Error(advice.kind);
  return advice.primary;
};

describe('what to do about faults', () => {
  test('starts with words, and names another thing to try next', () => {
    const advice = advise(situation());
    expect(advice).toMatchObject({ kind: 'correct', primary: { correction: { id: 'words' } } });
    if (advice.kind === 'correct') expect(advice.next?.correction.id).not.toBe('words');
  });

  test('a stop fault short-circuits everything else', () => {
    const danger = fault('back-rounds', {
      severity: 'stop',
      corrections: [{ id: 'end', kind: 'stop', do: 'Weights down.', causes: [] }],
    });
    const advice = advise(
      situation({ movement: movement(fault('knees-in'), danger), seen: ['knees-in', 'back-rounds'] }),
    );
    expect(advice).toMatchObject({ kind: 'stop', fault: { id: 'back-rounds' }, correction: { do: 'Weights down.' } });
  });

  test('two failures on a step go down the ladder, and what failed is not repeated', () => {
    const failed = (correctionId: string) => ({ faultId: 'knees-in', correctionId, outcome: 'same' }) as const;
    expect(primaryOf(situation({ attempts: [failed('words')] })).correction.id).toBe('other-words');
    const later = primaryOf(situation({ attempts: [failed('words'), failed('other-words')] }));
    expect(later.correction.kind).toBe('show');
    expect(later.why.steppedDown).toBe(true);
  });

  test('what works for this client wins over what works in general', () => {
    const mine = Array.from({ length: 5 }, () => trial({ correction: 'm/knees-in/other-words', focus: 'inward' }));
    const primary = primaryOf(situation({ evidence: { trials: mine, others: {} } }));
    expect(primary.correction.id).toBe('other-words');
    expect(primary.why).toMatchObject({ style: { kind: 'say', focus: 'inward' }, tried: 5, worked: 5 });
  });

  test('a correction that removes a shared cause answers all faults that have it', () => {
    const a = fault('a', { causes: ['set-up/narrow', 'load/x'] });
    const b = fault('b', {
      causes: ['set-up/narrow'],
      corrections: [
        { id: 'alone', kind: 'say', say: '1', causes: [] },
        { id: 'both', kind: 'show', do: '2', causes: ['set-up/narrow'] },
      ],
    });
    const primary = primaryOf(situation({ movement: movement(a, b), seen: ['a', 'b'] }));
    expect(primary.correction.id).toBe('both');
    expect(primary.addresses.map((f) => f.id).sort()).toEqual(['a', 'b']);
    expect(primary.why).toMatchObject({ answers: 2, cause: 'set-up/narrow' });
  });

  test('a cause that the trainer names comes first, though no seen fault is said to come from it', () => {
    const heels = fault('heels-lift');
    const knees = fault('knees-in', {
      causes: ['set-up/narrow'],
      corrections: [
        { id: 'words', kind: 'say', say: '1', causes: [] },
        { id: 'wider', kind: 'show', do: 'Stand wider.', causes: ['set-up/narrow'] },
        { id: 'end', kind: 'stop', do: 'End it.', causes: ['set-up/narrow'] },
      ],
    });
    const seen = situation({ movement: movement(heels, knees), seen: ['heels-lift'] });
    expect(primaryOf(seen).correction.id).toBe('words');
    const primary = primaryOf({ ...seen, named: ['set-up/narrow'] });
    expect(primary.correction.id).toBe('wider');
    expect(primary.addresses.map(({ id }) => id)).toEqual(['heels-lift']);
    expect(primary.why).toMatchObject({ named: true, cause: 'set-up/narrow' });
    const failed = { faultId: 'knees-in', correctionId: 'wider', outcome: 'same' as const };
    expect(primaryOf({ ...seen, named: ['set-up/narrow'], attempts: [failed] }).fault.id).toBe('heels-lift');
    // Where the fault that is there has something against the cause itself, that comes before what another one has.
    const own = { id: 'own', kind: 'lighten' as const, do: 'Narrower.', causes: ['set-up/narrow'] };
    const both = movement({ ...heels, corrections: [...heels.corrections, own] }, knees);
    expect(primaryOf({ ...seen, movement: both, named: ['set-up/narrow'] }).correction.id).toBe('own');
  });

  test('touch needs consent, and a swap needs an open movement', () => {
    const onlyTouch = movement(fault('f', { corrections: [{ id: 't', kind: 'touch', do: 't', causes: [] }] }));
    expect(advise(situation({ movement: onlyTouch, seen: ['f'] })).kind).toBe('leave');
    expect(advise(situation({ movement: onlyTouch, seen: ['f'], mayTouch: true })).kind).toBe('correct');
    const onlySwap = movement(
      fault('f', { corrections: [{ id: 's', kind: 'swap', swapTo: 'x', do: 's', causes: [] }] }),
    );
    expect(advise(situation({ movement: onlySwap, seen: ['f'], maySwapTo: () => false })).kind).toBe('leave');
  });

  test('nothing seen, nothing said', () => expect(advise(situation({ seen: [] })).kind).toBe('clear'));
});

describe('belief from outcomes', () => {
  const trials = fc.array(
    fc.record({
      correction: fc.constantFrom('m/knees-in/words', 'm/x/y'),
      kind: fc.constant('say' as const),
      focus: fc.constantFrom('outward' as const, 'inward' as const),
      outcome: fc.constantFrom(...OUTCOMES),
      at: fc.integer({ min: 0, max: 700 }).map(daysAgo),
    }),
    { maxLength: 30 },
  );
  const chance = (own: readonly Trial[], others: readonly Trial[] = []) =>
    believe(
      'm/knees-in/words',
      { kind: 'say', focus: 'outward' },
      { trials: own, others: countTrials(others, NOW) },
      NOW,
    ).chance;

  test('stays a chance, does not depend on order, rises with success and falls with failure', () => {
    fc.assert(
      fc.property(trials, trials, (t, others) => {
        const p = chance(t, others);
        expect(p).toBeGreaterThan(0);
        expect(p).toBeLessThan(1);
        expect(chance(t.toReversed(), others.toReversed())).toBeCloseTo(p, 10);
        expect(chance([...t, trial()], others)).toBeGreaterThan(p);
        expect(chance([...t, trial({ outcome: 'worse' })], others)).toBeLessThan(p);
      }),
    );
  });

  test('everybody else together never weighs more than eight trials', () => {
    const crowd = Array.from({ length: 500 }, () => trial({ at: NOW }));
    expect(chance([], crowd)).toBeCloseTo((1.8 + 8) / (4 + 8), 6);
  });

  test('an outcome counts half after sixty days', () => {
    expect(fading(daysAgo(60), NOW)).toBeCloseTo(0.5, 10);
    expect(fading(daysAgo(-400), NOW)).toBe(1);
  });
});

describe('where to stand', () => {
  const chance = fc.double({ min: 0, max: 1, noNaN: true });
  const faults = fc.array(
    fc.record({ front: chance, side: chance, back: chance, oblique: chance }).map((views) => fault('f', { views })),
    { minLength: 1, maxLength: 5 },
  );

  test('no other choice of views sees more', () => {
    fc.assert(
      fc.property(faults, fc.integer({ min: 1, max: 3 }), (seen, sets) => {
        const chosen = seeing(seen, whereToStand(seen, sets));
        const every = (n: number): (typeof VIEWS)[number][][] =>
          n === 0 ? [[]] : every(n - 1).flatMap((rest) => VIEWS.map((v) => [...rest, v]));
        expect(chosen).toBeCloseTo(Math.max(...every(sets).map((views) => seeing(seen, views))), 9);
      }),
    );
  });

  test('the next place shows what was not seen yet, and with sets enough every fault that shows is seen', () => {
    fc.assert(
      fc.property(faults, fc.subarray([...VIEWS]), fc.integer({ min: 1, max: 4 }), (seen, taken, sets) => {
        const shows = (view: (typeof VIEWS)[number], one: Fault) => one.views[view] >= 0.5;
        const unseen = (views: readonly (typeof VIEWS)[number][]) =>
          seen.filter((one) => VIEWS.some((view) => shows(view, one)) && !views.some((view) => shows(view, one)));
        const place = nextPlace(seen, taken, sets);
        if (unseen(taken).length > 0) expect(unseen(taken).some((one) => place && shows(place, one))).toBe(true);
        const stood: (typeof VIEWS)[number][] = [];
        for (let left = VIEWS.length; left > 0; left -= 1) stood.push(nextPlace(seen, stood, left) ?? 'front');
        expect(unseen(stood)).toEqual([]);
      }),
    );
  });

  test('faults are grouped by the side that shows them best, each exactly once', () => {
    fc.assert(
      fc.property(faults, (seen) => expect(groupByView(seen).flatMap((g) => g.faults)).toHaveLength(seen.length)),
    );
  });
});

test('sharp pain closes what loads the region, dull pain leaves a trace', () => {
  const sharp = limitsFromPain([{ region: 'knee', quality: 'sharp' }]);
  expect(sharp).toContainEqual({ demand: 'deep-knee-bend', allowed: 0, reason: 'sharp pain at the knee today' });
  expect(limitsFromPain([{ region: 'knee', quality: 'dull' }]).every((limit) => limit.allowed === 1)).toBe(true);
});

test('whom to watch first is where most is to be seen, and from the place that shows it', () => {
  const from = fc.constantFrom(...VIEWS);
  const one = fc.record({
    view: from,
    severity: fc.constantFrom('stop', 'fix', 'polish'),
    chance: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.array(fc.array(one, { maxLength: 3 }), { maxLength: 4 }), (lanes) => {
      const watched = lanes.map((all, i) => ({
        clientId: `${i}`,
        faults: all.map(({ view, severity }, k) =>
          fault(`${i}-${k}`, { severity, views: { front: 0, side: 0, back: 0, oblique: 0, [view]: 1 } }),
        ),
        likely: ({ id }: Fault) => all[Number(id.split('-')[1])]?.chance,
      }));
      const order = whomToWatch(watched);
      expect(order.map(({ clientId }) => clientId).sort()).toEqual(
        watched.filter(({ faults }) => faults.length > 0).map(({ clientId }) => clientId),
      );
      expect(order.map(({ worth }) => worth)).toEqual(order.map(({ worth }) => worth).sort((a, b) => b - a));
      for (const { clientId, view, worth, fault: shown } of order) {
        const { faults, likely } = watched[Number(clientId)] ?? { faults: [], likely: () => 0 };
        for (const other of VIEWS)
          if (faults.length === 1) expect(worth).toBeGreaterThanOrEqual(seeing(faults, [other], likely) - 1e-9);
        if (worth > 0) expect(shown.views[view]).toBe(1);
        // Whom to watch at the side is not told of what the list has in front.
        const there = faults.filter((one) => bestView(one) === view);
        if (there.length > 0) expect(bestView(shown)).toBe(view);
      }
    }),
  );
});
