/** Random plans over a random library, for laws about planning. */
import fc from 'fast-check';

import type { Ease } from '../client/ease.js';
import type { PastSession } from '../client/history-schema.js';
import { loadsFor } from '../dosage/index.js';
import { buildLadder } from '../ladder/graph.js';
import { DEMANDS, EFFORTS, type KitPiece, type Limit, PLANES } from '../movement/index.js';
import type { MovementSummary } from '../movement/summary-schema.js';
import {
  type Block,
  BLOCK_KINDS,
  emptyPlan,
  type Plan,
  type PlanContext,
  type PlanItem,
  type SuggestClient,
} from '../planning/index.js';
import type { Standing } from '../progress/standing.js';
import { lawfulLibrary, uuidAt } from './generate.js';

/** A day on which nothing goes up. */
export const POOR_SLEEP: Ease = { code: 'today', sleep: true, energy: false, sore: [] };

export const NOW = '2030-03-01T10:00:00.000Z';

export const KIT: KitPiece[] = [
  ...[4, 8, 10].map((kg): KitPiece => ({ item: 'dumbbell', count: 2, kg })),
  { item: 'bell', count: 1, kg: 12 },
  { item: 'dumbbell', count: 2, kg: 2, plates: [{ kg: 2.5, count: 8 }], changeSeconds: 30 },
  { item: 'bench', count: 1 },
  { item: 'mat', count: 4 },
];

export const clientId = (i: number): string => uuidAt(0xc00 + i);

/** A movement of two seconds a rep, both sides, that nothing stands against. */
export const movement = (id: string, change: Partial<MovementSummary> = {}): MovementSummary => ({
  id,
  name: id,
  aliases: [],
  precursors: [],
  notFor: [],
  suits: [],
  families: [id],
  pattern: 'squat',
  role: 'strength',
  position: 'standing',
  sides: 'both',
  phases: ['lower', 'rise'],
  planes: ['sagittal'],
  muscles: { prime: ['quads'], assist: [] },
  kit: [],
  setUp: [],
  progression: 'yes',
  space: 'spot',
  demands: {},
  dose: { mode: 'reps', tempo: '1-0-1-0', windows: { strength: { low: 8, high: 12, sets: [2, 3], rest: 60 } } },
  links: [],
  level: 0,
  ...change,
});

/** Movements with everything that planning looks at. */
export const plannable = (size: number): fc.Arbitrary<MovementSummary[]> =>
  fc
    .tuple(
      lawfulLibrary(size),
      fc.array(
        fc.record({
          planes: fc.uniqueArray(fc.constantFrom(...PLANES), { minLength: 1, maxLength: 2 }),
          role: fc.constantFrom('strength', 'strength', 'drill', 'mobility', 'stretch', 'power'),
          mode: fc.constantFrom('reps', 'reps', 'time'),
          tempo: fc.constantFrom('2-0-1-0', '3-1-1-0'),
          phases: fc.constantFrom(['set-up', 'lower', 'rise'], ['set-up', 'rise', 'lower']),
          low: fc.integer({ min: 5, max: 12 }),
          kit: fc.constantFrom(
            [],
            [],
            [{ needs: [{ item: 'dumbbell', count: 1 }] }],
            [{ needs: [{ item: 'dumbbell', count: 2 }] }],
            [{ needs: [{ item: 'bell', count: 1 }] }],
            [{ needs: [{ item: 'bench', count: 1 }] }],
          ),
        }),
        { minLength: size, maxLength: size },
      ),
    )
    .map(([facts, more]) => {
      const { levels } = buildLadder(facts);
      return facts.map((one, i): MovementSummary => {
        const { planes, role, mode, tempo, phases, low, kit } = more[i] as (typeof more)[number];
        const windows = { strength: { low, high: low + 4, sets: [2, 4] as [number, number], rest: 60 } };
        return {
          ...one,
          planes,
          role,
          phases,
          kit,
          dose: { mode, tempo, windows },
          level: levels.get(one.id) ?? 0,
        } as unknown as MovementSummary;
      });
    });

export const contextOf = (movements: readonly MovementSummary[]): PlanContext => ({
  find: (id) => movements.find((movement) => movement.id === id),
  knows: (_, id) => !id.endsWith('3'),
});

const laneAt = (client: number, movements: readonly MovementSummary[]) =>
  fc
    .record({
      at: fc.nat(movements.length - 1),
      sets: fc.integer({ min: 1, max: 4 }),
      amount: fc.integer({ min: 1, max: 40 }),
      rest: fc.constantFrom(0, 30, 60),
      load: fc.nat(),
      withAt: fc.option(fc.nat(movements.length - 1), { nil: null, freq: 8 }),
    })
    .map(({ at, sets, amount, rest, load, withAt }) => {
      const movement = movements[at] as MovementSummary;
      const loads = loadsFor(movement.kit, KIT);
      return {
        clientId: clientId(client),
        movementId: movement.id,
        withId: withAt === null ? null : (movements[withAt]?.id ?? null),
        sets,
        amount,
        tempo: movement.dose.tempo,
        rest,
        load: loads[load % (loads.length || 1)] ?? null,
        why: [{ code: 'kept-from-last-time' as const }],
      };
    });

/** A lawful plan for one to four people. */
export const planOver = (movements: readonly MovementSummary[], people = 3): fc.Arbitrary<Plan> =>
  fc.integer({ min: 1, max: people }).chain((count) => {
    const item = fc
      .record({
        locked: fc.boolean(),
        lanes: fc.tuple(...Array.from({ length: count }, (_, i) => laneAt(i, movements))),
      })
      .map((drawn) => ({ ...drawn, id: '', tied: false }) as PlanItem);
    const block = fc
      .record({
        kind: fc.constantFrom(...BLOCK_KINDS),
        rounds: fc.integer({ min: 1, max: 3 }),
        workSeconds: fc.constantFrom(null, 30),
        items: fc.array(item, { minLength: 1, maxLength: 5 }),
      })
      .map((drawn) => ({ ...drawn, id: '' }) as Block);
    return fc
      .record({ minutes: fc.constantFrom(10, 30, 60), blocks: fc.array(block, { minLength: 1, maxLength: 3 }) })
      .map(({ minutes, blocks }) => {
        let n = 1;
        return {
          ...emptyPlan(
            Array.from({ length: count }, (_, k) => clientId(k)),
            minutes,
          ),
          blocks: blocks.map((one) => ({
            ...one,
            id: uuidAt(n++),
            items: one.items.map((each) => ({ ...each, id: uuidAt(n++) })),
          })),
        };
      });
  });

export const limits: fc.Arbitrary<Limit[]> = fc.array(
  fc.record({
    demand: fc.constantFrom(...DEMANDS),
    allowed: fc.integer({ min: 0, max: 2 }),
    reason: fc.constant('sore'),
  }),
  { maxLength: 4 },
);

const past = (movements: readonly MovementSummary[]): fc.Arbitrary<Record<string, PastSession[]>> =>
  fc
    .array(
      fc.record({
        at: fc.nat(movements.length - 1),
        days: fc.integer({ min: 1, max: 60 }),
        amount: fc.integer({ min: 1, max: 20 }),
        effort: fc.constantFrom(...EFFORTS, null),
        clean: fc.boolean(),
        kg: fc.constantFrom(4, 8, 10),
      }),
      { maxLength: 8 },
    )
    .map((drawn) => {
      const sets: Record<string, PastSession[]> = {};
      for (const { at, days, amount, effort, clean, kg } of drawn) {
        const movement = movements[at] as MovementSummary;
        const when = new Date(Date.parse(NOW) - days * 86_400_000).toISOString();
        (sets[movement.id] ??= []).push({
          at: when,
          sets: [{ amount, effort, clean, kg: movement.kit.length > 0 ? kg : null }],
        });
      }
      return sets;
    });

export const suggestClient = (i: number, movements: readonly MovementSummary[]): fc.Arbitrary<SuggestClient> =>
  fc.record({
    id: fc.constant(clientId(i)),
    name: fc.constant(`Client ${i}`),
    sets: past(movements),
    standing: fc
      .record({
        limits,
        hurtBefore: fc.subarray(
          movements.map(({ id }) => id),
          { maxLength: 2 },
        ),
        ease: fc.constantFrom(null, null, POOR_SLEEP),
      })
      .map(standing),
  });

/** Ids in a row. */
export function counting(from = 0x10000): () => string {
  let n = from;
  return () => uuidAt(n++);
}

/** Somebody of whom nothing stands against anything, but what is said. */
export const standing = (over: Partial<Standing> = {}): Standing => ({
  limits: [],
  hurtNow: [],
  hurtBefore: [],
  pain: false,
  ease: null,
  trainingYears: null,
  day: null,
  ...over,
});
