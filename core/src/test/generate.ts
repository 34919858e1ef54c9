/** Random but lawful movements, ladders and events for property tests and the benchmark. */
import fc from 'fast-check';

import type { MovementFacts } from '../ladder/substitutes.js';
import type { Link } from '../movement/schema.js';
import {
  DEMANDS,
  KIT_ITEMS,
  LEVERS,
  MUSCLES,
  PATTERNS,
  PLANES,
  POSITIONS,
  SIDES,
  SPACES,
} from '../movement/vocabulary.js';
import type { PlanLane } from '../planning/plan.js';
import type { SessionEvent } from '../session/events.js';

const demands = fc
  .uniqueArray(fc.constantFrom(...DEMANDS), { maxLength: 4 })
  .chain((keys) =>
    fc
      .tuple(...keys.map(() => fc.integer({ min: 1, max: 3 })))
      .map((amounts) => Object.fromEntries(keys.map((key, i) => [key, amounts[i]]))),
  );

/** A library of `size` movements whose links only ever go from a lower to a higher number: it has no cycle. */
export const lawfulLibrary = (size: number): fc.Arbitrary<MovementFacts[]> =>
  fc.tuple(...Array.from({ length: size }, (_, i) => movementAt(i, size)));

const id = (i: number): string => `movement-${i}`;

function movementAt(i: number, size: number): fc.Arbitrary<MovementFacts> {
  const targets =
    i + 1 < size ? fc.uniqueArray(fc.integer({ min: i + 1, max: size - 1 }), { maxLength: 3 }) : fc.constant([]);
  const links = targets.chain((to) =>
    fc.tuple(
      ...to.map((t) => fc.constantFrom(...LEVERS).map((lever): Link => ({ to: id(t), direction: 'harder', lever }))),
    ),
  );
  return fc.record({
    id: fc.constant(id(i)),
    name: fc.constant(`Movement ${i}`),
    aliases: fc.constant([]),
    precursors: fc.constant([]),
    notFor: fc.constant([]),
    suits: fc.constant([]),
    families: fc.constant(['family']),
    pattern: fc.constantFrom(...PATTERNS.slice(0, 4)),
    role: fc.constantFrom('strength', 'drill'),
    position: fc.constantFrom(...POSITIONS),
    sides: fc.constantFrom(...SIDES),
    planes: fc.subarray([...PLANES], { minLength: 1 }),
    space: fc.constantFrom(...SPACES),
    muscles: fc.record({
      prime: fc.uniqueArray(fc.constantFrom(...MUSCLES), { minLength: 1, maxLength: 3 }),
      assist: fc.uniqueArray(fc.constantFrom(...MUSCLES), { maxLength: 3 }),
    }),
    kit: fc.array(
      fc.record(
        {
          needs: fc.array(fc.record({ item: fc.constantFrom(...KIT_ITEMS), count: fc.integer({ min: 1, max: 2 }) }), {
            maxLength: 2,
          }),
          demands: fc.dictionary(fc.constantFrom<string>(...DEMANDS), fc.integer({ min: 0, max: 3 }), { maxKeys: 2 }),
        },
        { requiredKeys: ['needs'] },
      ),
      { maxLength: 2 },
    ),
    demands,
    links,
  });
}

export const CLIENT = '018f0000-0000-7000-8000-00000000c11e';
export const SESSION = '018f0000-0000-7000-8000-0000000005e5';

/** A version-7 style UUID that is the same for the same number. */
export const uuidAt = (n: number): string => `018f0000-0000-7000-8000-${n.toString(16).padStart(12, '0')}`;

/** Draws events as a real device would make them: each refers to something that came before, undo included. */
export const lawfulEvents = (most: number): fc.Arbitrary<SessionEvent[]> =>
  fc.array(fc.tuple(fc.nat(), fc.nat(), fc.integer({ min: 0, max: 2 })), { maxLength: most }).map(eventsFrom);

/** The lines that drawn events speak of. */
export const itemAt = (n: number): string => uuidAt(0xa00 + n);

export const laneAt = (n: number): PlanLane => ({
  clientId: CLIENT,
  movementId: `movement-${n}`,
  withId: null,
  sets: 1 + (n % 3),
  amount: 8,
  tempo: '2-0-1-0',
  rest: 30,
  load: null,
  why: [],
});

/** Builds a session from numbers: what happens, what it refers to, and how far the clock moves. */
export function eventsFrom(draws: readonly (readonly [what: number, which: number, tick: number])[]): SessionEvent[] {
  const events: SessionEvent[] = [];
  const pick = (type: SessionEvent['type'], n: number): string | undefined => {
    const known = events.filter((event) => event.type === type);
    return known[n % (known.length || 1)]?.id;
  };
  let counter = 1;
  draws.forEach(([what, which, tick], i) => {
    counter += tick;
    const envelope = {
      id: uuidAt(i + 1),
      sessionId: SESSION,
      clientId: CLIENT,
      counter,
      at: new Date(Date.UTC(2030, 0, 1, 10, 0, i)).toISOString(),
    };
    const entryId = pick('movement-started', which);
    const faultId = `fault-${which % 3}`;
    const makers: (() => SessionEvent | undefined)[] = [
      () => ({ ...envelope, type: 'movement-started', data: { movementId: `movement-${which % 5}`, why: null } }),
      () =>
        (entryId &&
          ({
            ...envelope,
            type: 'set-done',
            data: { entryId, side: 'both', amount: which % 20, kg: 8, loadLabel: null },
          } as const)) ||
        undefined,
      () => (entryId && ({ ...envelope, type: 'fault-seen', data: { entryId, faultId } } as const)) || undefined,
      () =>
        (entryId &&
          ({
            ...envelope,
            type: 'correction-given',
            data: { entryId, faultId, correctionId: 'say-it', addresses: [faultId] },
          } as const)) ||
        undefined,
      () => {
        const correctionEventId = pick('correction-given', which);
        return correctionEventId
          ? { ...envelope, type: 'outcome-noted', data: { correctionEventId, outcome: which % 2 ? 'fixed' : 'same' } }
          : undefined;
      },
      () => {
        const setId = pick('set-done', which);
        return setId ? { ...envelope, type: 'effort-felt', data: { setId, effort: 'medium' } } : undefined;
      },
      () => (entryId && ({ ...envelope, type: 'rep-counted', data: { entryId, side: 'both' } } as const)) || undefined,
      () => {
        const setId = pick('set-done', which);
        const numbers = { amount: which % 7, kg: null, loadLabel: null };
        return setId ? { ...envelope, type: 'set-corrected', data: { setId, ...numbers } } : undefined;
      },
      () => {
        const times = { blockId: null, side: 'both', work: 20, rest: 10, count: 1 + (which % 3) } as const;
        return { ...envelope, type: 'timer-started', data: { entryId: entryId ?? null, ...times } };
      },
      () => {
        const timerId = pick('timer-started', which);
        const type = (['timer-paused', 'timer-resumed', 'timer-stopped'] as const)[which % 3] ?? 'timer-paused';
        const cut = type === 'timer-resumed' && which % 2 ? { cut: 1 + (which % 5) } : {};
        return timerId ? { ...envelope, type, data: { timerId, ...cut } } : undefined;
      },
      () => ({
        ...envelope,
        type: which % 2 ? 'session-paused' : 'session-resumed',
        data: {},
      }),
      () => {
        const itemId = itemAt(which % 4);
        const changes: SessionEvent[] = [
          { ...envelope, type: 'item-added', data: { itemId, afterId: null, lane: laneAt(which % 5) } },
          { ...envelope, type: 'item-dropped', data: { itemId } },
          { ...envelope, type: 'sets-changed', data: { itemId, sets: which % 5 } },
          {
            ...envelope,
            type: 'dose-changed',
            data: { itemId, amount: 1 + (which % 9), load: null, tempo: '3-0-1-0' },
          },
          { ...envelope, type: 'step-skipped', data: { itemId, set: 1 + (which % 3) } },
          { ...envelope, type: 'gone-to', data: { itemId, set: 1 + (which % 3) } },
          { ...envelope, type: 'movement-started', data: { movementId: `movement-${which % 5}`, why: null, itemId } },
        ];
        return changes[which % changes.length];
      },
      () =>
        (entryId &&
          ({
            ...envelope,
            type: 'cause-named',
            data: { entryId, cause: `set-up/cause-${which % 2}`, holds: which % 3 > 0 },
          } as const)) ||
        undefined,
      () => {
        const target = events[which % (events.length || 1)];
        return target ? { ...envelope, type: 'undone', data: { eventId: target.id } } : undefined;
      },
    ];
    const event = makers[what % makers.length]?.();
    if (event) events.push(event);
  });
  return events;
}
