/**
 * Where to stand: for the sets to come, a view for each, so that every likely fault is seen at least once with the greatest weight.
 * Few views and few sets: every choice is compared.
 */
import type { Fault } from '../movement/schema.js';
import { bySeverity } from '../movement/severity.js';
import { type View, VIEWS } from '../movement/vocabulary.js';
import { FAULT_PRIOR, SEVERITY_WEIGHT } from './weights.js';

/** The side that shows a fault best; the earlier in `VIEWS` on a tie. */
export const bestView = (fault: Fault): View =>
  VIEWS.reduce((best, view) => (fault.views[view] > fault.views[best] ? view : best));

/** Faults by the place that shows them best, the place with the most to see first; the dangerous before the likely. */
export function groupByView(
  faults: readonly Fault[],
  likely: Likelihood = () => undefined,
): { view: View; faults: Fault[] }[] {
  const worth = (fault: Fault) => weightOf(fault, likely);
  return VIEWS.map((view) => ({
    view,
    faults: faults.filter((fault) => bestView(fault) === view).sort((a, b) => bySeverity(a, b) || worth(b) - worth(a)),
  }))
    .filter((group) => group.faults.length > 0)
    .sort((a, b) => sum(b.faults.map(worth)) - sum(a.faults.map(worth)));
}

/** Chance per set that this client shows a fault; undefined where nothing is known. */
export type Likelihood = (fault: Fault) => number | undefined;

/** From this on a view is one to see a fault from. */
const SHOWS = 0.5;

const sum = (numbers: readonly number[]): number => numbers.reduce((total, n) => total + n, 0);
const weightOf = (fault: Fault, likely: Likelihood): number =>
  SEVERITY_WEIGHT[fault.severity] * (likely(fault) ?? FAULT_PRIOR[fault.severity]);

/** Every choice is compared, so there must not be too many. */
export const MOST_SETS_PLANNED = 6;

/** Σ severity × likelihood × chance to see the fault at least once from these views. */
export function seeing(faults: readonly Fault[], views: readonly View[], likely: Likelihood = () => undefined): number {
  return sum(
    faults.map(
      (fault) => weightOf(fault, likely) * (1 - views.reduce((missed, view) => missed * (1 - fault.views[view]), 1)),
    ),
  );
}

/**
 * The views for the next `sets` sets (1 to `MOST_SETS_PLANNED`), most telling first.
 * @throws RangeError for another number of sets.
 */
export function whereToStand(faults: readonly Fault[], sets: number, likely: Likelihood = () => undefined): View[] {
  if (!Number.isInteger(sets) || sets < 1 || sets > MOST_SETS_PLANNED)
    throw new RangeError(`sets must be 1 to ${MOST_SETS_PLANNED}`);
  return bestViews(faults, sets, [], likely).toSorted(
    (a, b) => seeing(faults, [b], likely) - seeing(faults, [a], likely),
  );
}

/** The views that show most together with those that were taken; every choice is compared. */
function bestViews(faults: readonly Fault[], sets: number, taken: readonly View[], likely: Likelihood): View[] {
  let best: View[] = [];
  let most = -1;
  const choose = (chosen: View[], from: number): void => {
    if (chosen.length === sets) {
      const seen = seeing(faults, [...taken, ...chosen], likely);
      if (seen > most + 1e-12) {
        most = seen;
        best = chosen;
      }
      return;
    }
    for (let i = from; i < VIEWS.length; i += 1) choose([...chosen, VIEWS[i] as View], i);
  };
  choose([], 0);
  return best;
}

/**
 * The place for the set to come, after those that were taken: the best that the sets left allow, and of those first the one that shows what
 * could not be seen from anywhere yet.
 * @param taken where the trainer stood, set by set
 * @param sets sets to come, this one included; more than `MOST_SETS_PLANNED` are not looked at
 */
export function nextPlace(
  faults: readonly Fault[],
  taken: readonly View[],
  sets: number,
  likely: Likelihood = () => undefined,
): View | undefined {
  if (faults.length === 0) return undefined;
  const left = Math.min(Math.max(1, sets), MOST_SETS_PLANNED);
  const views = bestViews(faults, left, taken, likely);
  const shows = (view: View, fault: Fault) => fault.views[view] >= SHOWS;
  const unseen = faults.filter((fault) => !taken.some((view) => shows(view, fault)));
  const news = (view: View) =>
    sum(unseen.filter((fault) => shows(view, fault)).map((fault) => weightOf(fault, likely) * fault.views[view]));
  const showing = [views, VIEWS].map((some) => some.filter((view) => news(view) > 0)).find((some) => some.length > 0);
  const worth = showing ? news : (view: View) => seeing(faults, [...taken, view], likely);
  return (showing ?? views).toSorted((a, b) => worth(b) - worth(a))[0];
}

/** One client's set to come. */
export interface Watched {
  clientId: string;
  faults: readonly Fault[];
  likely: Likelihood;
  /** Where the trainer stood for the sets before. */
  taken?: readonly View[];
}

export interface Attention {
  clientId: string;
  view: View;
  /** Σ severity × likelihood × how well it shows from there. */
  worth: number;
  /** What is most to be seen. */
  fault: Fault;
}

/** Whom to watch, and from where: the most to be seen first. Somebody without any fault to see is left out. */
export function whomToWatch(lanes: readonly Watched[]): Attention[] {
  return lanes
    .flatMap(({ clientId, faults, likely, taken = [] }): Attention[] => {
      const view = nextPlace(faults, taken, 1, likely);
      if (!view) return [];
      const worth = (fault: Fault) => weightOf(fault, likely) * fault.views[view];
      // Of what shows well enough from there, the dangerous is named before the likely.
      const shown = faults.filter((one) => one.views[view] >= SHOWS);
      // What the lists call best seen from there is what they are sent to see.
      const best = shown.filter((one) => bestView(one) === view);
      const [fault] = ([best, shown].find((some) => some.length > 0) ?? faults).toSorted(
        (a, b) => bySeverity(a, b) || worth(b) - worth(a),
      );
      if (!fault) return [];
      // What was seen well from there already is worth less.
      const more = seeing(faults, [...taken, view], likely) - seeing(faults, taken, likely);
      return [{ clientId, view, worth: more, fault }];
    })
    .sort((a, b) => b.worth - a.worth);
}
