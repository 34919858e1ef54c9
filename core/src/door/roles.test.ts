/** Whoever may not know why is told enough to leave out the same. */
import { expect, test } from '@jest/globals';
import fc from 'fast-check';

import { BODY_SIDES, type ClientOnDay, PAIN_QUALITIES } from '../client/index.js';
import { DEMANDS, type Equipped, opennessWith, REGIONS, RULINGS } from '../movement/index.js';
import { NOTHING_LEFT, standingOf } from '../progress/index.js';
import { fold, type SessionEvent } from '../session/index.js';
import { uuidAt } from '../test/generate.js';
import { eventsFor, onDayFor, type Visitor } from './index.js';

const HELPER: Visitor = { id: 'helper', name: 'Helper', role: 'assistant', sees: 'own' };
const TRAINER: Visitor = { ...HELPER, role: 'trainer' };

const conditions = fc.subarray(['new-knee', 'hernia', 'dizziness']);
const movements = fc.array(
  fc.record({
    notFor: conditions,
    suits: conditions,
    demands: fc.dictionary(fc.constantFrom(...DEMANDS), fc.integer({ min: 1, max: 3 })),
  }),
  { maxLength: 8 },
);
const limits = fc.array(
  fc.oneof(
    fc.record({ demand: fc.constantFrom(...DEMANDS), allowed: fc.integer({ min: 0, max: 2 }) }),
    fc.record({
      demand: fc.constantFrom(...RULINGS),
      allowed: fc.constant(0),
      condition: fc.constantFrom('new-knee', 'hernia'),
    }),
  ),
  { maxLength: 5 },
);

test('an assistant finds the same movements closed, and neither reason nor condition', () => {
  fc.assert(
    fc.property(movements, limits, (facts, held) => {
      const library = facts.map((one, i): Equipped => ({ ...one, id: `m${i}`, kit: [] }));
      const client = {
        limits: held.map((limit) => ({ ...limit, reason: 'torn' })),
        ease: null,
      } as unknown as ClientOnDay;
      const told = onDayFor(HELPER, client, library);
      for (const one of library)
        expect(opennessWith(one, told.limits, new Map())).toBe(opennessWith(one, client.limits, new Map()));
      expect(JSON.stringify(told)).not.toMatch(/torn|"condition"/);
      expect(onDayFor(TRAINER, client, library)).toBe(client);
    }),
  );
});

test('after pain an assistant’s floor leaves out what the trainer’s does, without its place', () => {
  const frame = { sessionId: uuidAt(1), clientId: uuidAt(2), at: '2030-01-01T10:00:00.000Z' };
  const started = {
    ...frame,
    id: uuidAt(3),
    counter: 1,
    type: 'movement-started',
    data: { movementId: 'm', why: null },
  };
  fc.assert(
    fc.property(
      fc.constantFrom(...REGIONS),
      fc.constantFrom(...PAIN_QUALITIES),
      fc.option(fc.constantFrom(...BODY_SIDES), { nil: undefined }),
      (region, quality, side) => {
        const data = { entryId: started.id, region, quality, ...(side && { side }) };
        const events = [
          started,
          { ...frame, id: uuidAt(4), counter: 2, type: 'pain-reported', data },
        ] as SessionEvent[];
        const standing = (seen: readonly SessionEvent[]) => {
          const lane = fold(seen, [frame.clientId]).lanes[frame.clientId];
          const { limits: all, ...rest } = standingOf({ limits: [], ease: null } as never, NOTHING_LEFT, lane?.pains);
          return { ...rest, limits: all.map(({ demand, allowed }) => ({ demand, allowed })) };
        };
        const told = eventsFor(HELPER, { events }).events;
        expect(standing(told)).toEqual(standing(events));
        expect(told.map(({ id }) => id)).toEqual(events.map(({ id }) => id));
        expect(JSON.stringify(told)).not.toContain(`"${region}"`);
      },
    ),
  );
});
