/** What is said of somebody before they come, and when they usually do. */
import { join } from 'node:path';

import { describe, expect, test } from '@jest/globals';
import { loadLibrary } from '@waxwing/library';
import fc from 'fast-check';

import { BLANK_CLIENT, type ClientOnDay, clientOnDay, type PastSession, withoutReasons } from '../client/index.js';
import { buildCatalog } from '../ladder/index.js';
import { DEMANDS, kitCounts, type MovementSummary } from '../movement/index.js';
import { fitNow, isOpen, NOTHING_LEFT, standingOf } from '../progress/index.js';
import { briefOf, type BriefRequest, nextUsual, usualSlots, weekdayOf } from './index.js';

const library = loadLibrary(join(import.meta.dirname, '../../../library/movements'));
const catalog = buildCatalog(library);
const byId = new Map(library.map((one): [string, MovementSummary] => [one.id, { ...one, level: 0 }]));
const kit = [
  { item: 'dumbbell' as const, count: 2, kg: 10 },
  { item: 'bell' as const, count: 1, kg: 12 },
];
const person = (over: object = {}): ClientOnDay =>
  clientOnDay({ ...BLANK_CLIENT, id: 'a', version: 1, name: 'Ada', ...over } as Parameters<typeof clientOnDay>[0], DAY);
const DAY = '2030-02-01';
const now = `${DAY}T09:00:00.000Z`;
const at = '2030-01-30T10:00:00.000Z';
const clean = (amount: number): PastSession => ({
  at,
  sets: Array.from({ length: 3 }, () => ({ amount, effort: 'easy' as const, clean: true, kg: 12 })),
});
const asked = (record: Partial<BriefRequest['record']>, client = person()): BriefRequest => ({
  client,
  record: { sets: {}, hurt: [], pains: [], left: [], ...record },
  purpose: 'strength',
  kit,
  ladder: catalog.ladder,
  find: (id) => byId.get(id),
  faultOf: (_, faultId) => ({ name: faultId, severity: 'fix' }),
  now,
});
const codes = (request: BriefRequest) => briefOf(request).map(({ code }) => code);

describe('what to know before somebody comes', () => {
  test('begins with what is dangerous, and names a fault that is open, who has been away and who is new', () => {
    expect(codes(asked({}))).toEqual(['first-time']);
    const waits = person({ readiness: { on: DAY, yes: ['heart'], clearedOn: null, clearedBy: '' } });
    const limited = person({ limits: [{ demand: 'deep-knee-bend', allowed: 0, reason: 'knee' }] });
    expect(codes(asked({}, waits))).toEqual(['clearance', 'first-time']);
    const faulty: PastSession = { at, sets: [{ amount: 8, effort: 'medium', clean: false, faults: ['heels-lift'] }] };
    const sets = { 'bodyweight-squat': [faulty] };
    const knee = { id: 'a', at, quality: 'dull', movementId: 'split-squat', region: 'knee', side: 'left' } as const;
    const pains = [knee, { ...knee, id: 'b', quality: 'sharp', movementId: 'lunge' } as const];
    expect(briefOf(asked({ sets, pains }, limited))).toMatchObject([
      {
        code: 'hurt',
        pain: { ids: ['a', 'b'], place: 'left knee', quality: 'sharp', movementIds: ['split-squat', 'lunge'] },
      },
      { code: 'limits', limits: limited.limits },
      { code: 'fault', movementId: 'bodyweight-squat', fault: 'heels-lift' },
    ]);
    const long = { ...asked({ sets }), now: '2030-03-01T09:00:00.000Z' };
    expect(briefOf(long)).toContainEqual({ code: 'away', days: 29 });
  });

  test('says when it is time to ask about a condition, and of whom; not before, and not to whom it is not told', () => {
    const knee = {
      id: 'worn-knee',
      name: 'Worn knee',
      kind: 'with-limits' as const,
      caution: 'Slowly.',
      stop: 'Sharp pain.',
      clearedBy: 'a physiotherapist',
      from: 'the day it began',
      askAfter: 4,
      limits: [{ demand: 'impact' as const, allowed: 0 as const }],
    };
    const since = (day: string) =>
      person({ limits: [{ demand: 'impact', allowed: 0, reason: 'knee', condition: knee.id, since: day }] });
    const told = (client: ClientOnDay) => briefOf({ ...asked({}, client), conditions: [knee] });
    expect(told(since('2030-01-04'))).toContainEqual({ code: 'ask', condition: knee.name, whom: knee.clearedBy });
    expect(told(since('2030-01-05')).map(({ code }) => code)).not.toContain('ask');
    expect(told(withoutReasons(since('2030-01-04'))).map(({ code }) => code)).not.toContain('ask');
  });

  test('never says that somebody is ready for what is closed to them', () => {
    const ids = [...byId.keys()];
    const limits = fc.uniqueArray(fc.constantFrom(...DEMANDS), { maxLength: 5 });
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...ids), { minLength: 1, maxLength: 12 }), limits, (done, demands) => {
        const client = person({ limits: demands.map((demand) => ({ demand, allowed: 0, reason: 'x' })) });
        const request = asked({ sets: Object.fromEntries(done.map((id) => [id, [clean(30), clean(30)]])) }, client);
        for (const note of briefOf(request))
          if (note.code === 'ready') {
            const to = byId.get(note.to);
            expect(to && isOpen(fitNow(standingOf(client, NOTHING_LEFT), kitCounts(kit), to))).toBe(true);
          }
      }),
    );
    expect(codes(asked({ sets: { 'bodyweight-squat': [clean(30), clean(30)] } }))).toContain('ready');
  });
});

describe('the usual hours', () => {
  const slots = fc.uniqueArray(fc.record({ weekday: fc.nat(6), minute: fc.integer({ min: 5, max: 1435 }) }), {
    selector: ({ weekday }) => weekday,
    maxLength: 4,
  });
  const TODAY = 20_000;

  test('are those of somebody who comes every week, a few minutes early or late, and none for who came once', () => {
    fc.assert(
      fc.property(slots, fc.integer({ min: 2, max: 5 }), fc.integer({ min: 0, max: 30 }), (usual, weeks, late) => {
        const came = usual.flatMap(({ weekday, minute }) =>
          Array.from({ length: weeks }, (_, w) => {
            const back = 1 + ((weekdayOf({ day: TODAY - 1 }) - weekday + 7) % 7) + 7 * w;
            return { day: TODAY - back, minute: w % 2 ? Math.min(1439, minute + late) : minute };
          }),
        );
        const found = usualSlots(came, TODAY);
        expect(found.map(({ weekday }) => weekday)).toEqual(
          usual.map(({ weekday }) => weekday).toSorted((a, b) => a - b),
        );
        expect(usualSlots(came.slice(0, usual.length && 1), TODAY)).toEqual([]);
        const next = nextUsual(found, { day: TODAY, minute: 720 });
        if (usual.length === 0) expect(next).toBeNull();
        else {
          expect(usual.map(({ weekday }) => weekday)).toContain(weekdayOf(next ?? { day: 0 }));
          expect((next?.day ?? 0) - TODAY).toBeLessThanOrEqual(7);
          expect(next && (next.day > TODAY || next.minute > 720)).toBe(true);
          expect(nextUsual(found, { day: TODAY, minute: 720 }, [next?.day ?? 0])?.day).not.toBe(next?.day);
        }
      }),
    );
  });
});
