/** What to say to one client now: before anything goes wrong, and about what was seen. */
import { type Advice, advise } from '../coaching/correct.js';
import { likelyFault } from '../coaching/likelihood.js';
import { type TeachingCue, teachingCues } from '../coaching/teach.js';
import type { Fault } from '../movement/schema.js';
import { isOpen } from '../progress/fit.js';
import { isUp, type OpenFault, seriousOf } from '../progress/held.js';
import { openFaults } from '../session/fold.js';
import { fitOf, type LaneView } from './lane-view.js';

/** What to do about the open faults of the movement in hand. */
export function adviceFor(view: LaneView, now: string): Advice {
  const { entry, page, record, client } = view;
  if (!entry || !page) return { kind: 'clear' };
  return advise({
    movement: page.movement,
    seen: openFaults(entry),
    named: entry.causes,
    attempts: entry.corrections,
    evidence: record,
    now,
    mayTouch: client.mayTouch,
    maySwapTo: (id) => {
      const movement = view.movements.find((m) => m.id === id);
      // A fault is open, and nothing goes up while one is.
      const up = isUp(view.catalog.ladder, page.movement.id, id);
      return movement !== undefined && !up && isOpen(fitOf(view, movement));
    },
  });
}

/** What to say before anything goes wrong. */
export const cuesFor = ({ page, record, client }: LaneView, now: string): TeachingCue[] =>
  page ? teachingCues(page.movement, record, now, client.mayTouch) : [];

/** Chance per set that a fault of the movement in hand shows in this client. */
export const likelihood =
  ({ record, movement }: LaneView) =>
  (fault: Fault): number =>
    likelyFault(fault, record.faults[movement?.id ?? '']);

/**
 * What speaks against more: the open faults, and those of the latest set that were put right since. That set was not clean, and what stopped
 * it then holds back now.
 */
export function faultsAgainst(view: LaneView): OpenFault[] {
  const open = seriousFaults(view);
  const sets = view.entry?.sets ?? [];
  const latest = sets.at(-1);
  // Left and right make one set.
  const other = latest?.side === 'both' ? undefined : sets.findLast(({ side }) => side !== latest?.side);
  const last = [...(latest?.openFaults ?? []), ...(other?.openFaults ?? [])];
  const since = (view.page?.movement.faults ?? []).filter(
    ({ id }) => last.includes(id) && !open.some((one) => one.id === id),
  );
  return [...open, ...seriousOf(since).map(({ name }) => ({ name, severity: 'fix' as const }))];
}

/** Open faults of the movement in hand that are more than polish, the dangerous first. */
export function seriousFaults({ entry, page }: LaneView): Fault[] {
  const open = entry ? openFaults(entry) : [];
  return seriousOf((page?.movement.faults ?? []).filter(({ id }) => open.includes(id)));
}
