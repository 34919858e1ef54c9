/** Everything that the floor computes for one client: where they are, what may come next, and what to say now. */
import type { Client, ClientRecord, MovementPage, MovementSummary, Studio } from '@waxwing/core/formats';
import {
  advise,
  limitsFromPain,
  limitsHolding,
  teachingCues,
  type Advice,
  type TeachingCue,
} from '@waxwing/core/coaching';
import {
  buildCatalog,
  readiness,
  signWords,
  substitutes,
  type Catalog,
  type Substitute,
  type SubstituteAnswer,
  type SwapReason,
} from '@waxwing/core/ladder';
import {
  faultKey,
  fitFor,
  kitCounts,
  tagsInForce,
  underRules,
  usableOption,
  type Fit,
  type KitItem,
  type Limit,
  type Movement,
  type Region,
} from '@waxwing/core/movement';
import { currentEntry, likelyFault, openFaults, type Entry, type Lane } from '@waxwing/core/session';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  clientQuery,
  figuresQuery,
  houseRulesQuery,
  movementQuery,
  movementsQuery,
  recordQuery,
  studioQuery,
} from '../api/queries';
import { today } from '../words/dates';
import type { LiveSession, Recorder } from './use-session';

export interface LaneView {
  lane: Lane;
  client: Client;
  record: ClientRecord;
  studio: Studio;
  movements: readonly MovementSummary[];
  limits: readonly Limit[];
  kit: ReadonlyMap<KitItem, number>;
  /** Movements that hurt today. */
  hurt: readonly string[];
  entry: Entry | undefined;
  page: MovementPage | undefined;
  swaps: (reason: SwapReason, region?: Region, most?: number) => SubstituteAnswer;
  tap: (say: (record: Recorder) => void) => void;
}

const FOREVER = { staleTime: Infinity, gcTime: Infinity };

/** The lane of one client; undefined until everything it rests on is here. */
export function useLane(live: LiveSession, clientId: string): { view: LaneView | undefined; error: Error | null } {
  const client = useQuery(clientQuery(clientId));
  const record = useQuery({ ...recordQuery(clientId), ...FOREVER });
  const studio = useQuery(studioQuery);
  const rules = useQuery(houseRulesQuery);
  const movements = useQuery({ ...movementsQuery, ...FOREVER });
  const lane = live.state.lanes[clientId];
  const entry = lane && currentEntry(lane);
  const whole = useQuery({ ...movementQuery(entry?.movementId ?? ''), ...FOREVER, enabled: entry !== undefined }).data;
  // The neighbours are fetched ahead, so that a swap works when the server is gone.
  useQueries({
    queries: [...(whole?.easier ?? []), ...(whole?.harder ?? []), ...(whole?.sideways ?? [])].map(({ to }) => ({
      ...movementQuery(to),
      ...FOREVER,
    })),
  });
  // And the figures, so that a demonstration does not need the server either.
  useQuery(figuresQuery);
  const catalog = useMemo(() => buildCatalog(movements.data ?? []), [movements.data]);

  const error = client.error ?? record.error ?? studio.error ?? rules.error ?? movements.error;
  if (!lane || !client.data || !record.data || !studio.data || !rules.data || !movements.data)
    return { view: undefined, error };
  const tags = tagsInForce(rules.data, studio.data.houseRules, client.data.houseRules);
  const page = whole && { ...whole, movement: underRules(whole.movement, withSeen(tags, whole.movement, entry)) };
  const limits = [...limitsHolding(client.data, today()), ...limitsFromPain(lane.pains)];
  const kit = kitCounts(studio.data.kit);
  const hurtBefore = record.data.hurt.map(({ movementId }) => movementId);
  const hurt = lane.pains.filter((pain) => pain.quality === 'sharp').flatMap((pain) => pain.movementId ?? []);
  const view: LaneView = {
    lane,
    client: client.data,
    record: record.data,
    studio: studio.data,
    movements: movements.data,
    limits,
    kit,
    hurt,
    entry,
    page,
    swaps: (reason, region, most) =>
      entry
        ? ask(catalog, {
            from: entry.movementId,
            reason,
            region,
            limits,
            kit,
            avoid: [...hurt, ...hurtBefore],
            ...(most ? { most } : {}),
          })
        : NOTHING,
    tap: (say) => void live.tap(clientId, say),
  };
  return { view, error: null };
}

/** A fault that was seen stays on the screen and in force, whatever school it belongs to. */
function withSeen(tags: ReadonlySet<string>, movement: Movement, entry: Entry | undefined): ReadonlySet<string> {
  const seen = movement.faults.filter(({ id }) => entry?.faults.some((fault) => fault.faultId === id));
  return new Set([...tags, ...seen.flatMap(({ houseRule }) => houseRule ?? [])]);
}

const NOTHING: SubstituteAnswer = { ranked: [], ruledOut: [] };

/** A movement that is no longer in the library has no substitutes. */
const ask = (catalog: Catalog, query: Parameters<typeof substitutes>[1]): SubstituteAnswer =>
  catalog.entries.has(query.from) ? substitutes(catalog, query) : NOTHING;

/** Whether this client may do a movement now: limits, kit, and what hurt today. */
export function fitNow(view: LaneView, movement: MovementSummary): Fit {
  if (view.hurt.includes(movement.id)) return { status: 'closed', because: ['hurt today'] };
  const fit = fitFor(movement.demands, view.limits);
  if (fit.status === 'closed') return fit;
  return usableOption(movement.kit, view.kit) ? fit : { status: 'closed', because: ['kit is missing'] };
}

/** What to do about the open faults of the movement in hand. */
export function adviceFor(view: LaneView, now: string): Advice {
  const { entry, page, record, client } = view;
  if (!entry || !page) return { kind: 'clear' };
  return advise({
    movement: page.movement,
    seen: openFaults(entry),
    attempts: entry.corrections,
    trials: record.trials,
    clientId: client.id,
    now,
    mayTouch: client.touchConsentOn !== null,
    maySwapTo: (id) => {
      const movement = view.movements.find((m) => m.id === id);
      return movement !== undefined && fitNow(view, movement).status !== 'closed';
    },
  });
}

/** What to say before anything goes wrong. */
export const cuesFor = (view: LaneView, now: string): TeachingCue[] =>
  view.page ? teachingCues(view.page.movement, view.record.trials, view.client.id, now) : [];

/** Chance per set that a fault of the movement in hand shows in this client. */
export const likelihood =
  (view: LaneView) =>
  (fault: Parameters<typeof likelyFault>[0]): number =>
    likelyFault(fault, view.record.faults[faultKey(view.entry?.movementId ?? '', fault.id)]);

export interface NextUp {
  best: Substitute | undefined;
  /** Why it is not offered. */
  held: string | null;
  /** Said when the record shows that the client is ready for it. */
  ready: string | null;
}

/** The next rung up, held back while a serious fault is open, after pain, or after a failed set. */
export function nextUp(view: LaneView): NextUp {
  const { entry, page } = view;
  const best = view.swaps('too-easy', undefined, 1).ranked[0];
  if (!entry || !page) return { best: undefined, held: null, ready: null };
  const open = page.movement.faults.find(
    (fault) => fault.severity !== 'polish' && openFaults(entry).includes(fault.id),
  );
  const held = open
    ? `first solve: ${open.name.toLowerCase()}`
    : view.lane.pains.length > 0
      ? 'not after pain today'
      : entry.sets.at(-1)?.effort === 'failed'
        ? 'not after a failed set'
        : null;
  const sign = page.harder.find((step) => step.to === best?.id)?.readyWhen;
  const state = sign && readiness(sign, view.record.sets[entry.movementId] ?? []);
  return { best, held, ready: sign && state?.ready ? `ready: ${signWords(sign)}` : null };
}
