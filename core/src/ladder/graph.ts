/**
 * The ladder graph: every link entered once and read both ways, levels within a family, and the shortest way round a cycle.
 * Only easier/harder links order movements; sideways links join equals.
 */
import type { Link } from '../movement/schema.js';
import type { Step } from './page.js';

/** What the graph needs to know of a movement. */
export interface LadderNode {
  id: string;
  links: readonly Link[];
}

/** A movement's neighbours: the nearest rung first, and of several as near the one that leads on to most. */
export interface Rung {
  easier: Step[];
  harder: Step[];
  sideways: Step[];
}

export interface Ladder {
  rungs: ReadonlyMap<string, Rung>;
  /** Longest path from the easiest of the connected family; 0 is the easiest. */
  levels: ReadonlyMap<string, number>;
  /** Movements with the same number are joined by easier/harder links. */
  components: ReadonlyMap<string, number>;
}

/** Thrown when easier/harder links run in a circle. `path` starts and ends with the same movement, each harder than the one before. */
export class CycleError extends Error {
  constructor(readonly path: readonly string[]) {
    super(`run in a circle, each harder than the one before: ${path.join(' → ')}`);
    this.name = 'CycleError';
  }
}

const emptyRung = (): Rung => ({ easier: [], harder: [], sideways: [] });

/**
 * Builds the graph in O(movements + links).
 * Links to unknown movements are ignored here: `checkReferences` reports them.
 * @throws CycleError naming the path.
 */
export function buildLadder(nodes: readonly LadderNode[]): Ladder {
  const rungs = new Map<string, Rung>(nodes.map((node) => [node.id, emptyRung()]));
  for (const node of nodes) {
    for (const { to, direction, lever, readyWhen, backWhen } of node.links) {
      const here = rungs.get(node.id);
      const there = rungs.get(to);
      if (!here || !there) continue;
      const back = direction === 'easier' ? 'harder' : direction === 'harder' ? 'easier' : 'sideways';
      addStep(here[direction], { to, lever, readyWhen, backWhen });
      addStep(there[back], { to: node.id, lever, readyWhen, backWhen });
    }
  }
  const levels = levelsOf(rungs);
  for (const rung of rungs.values())
    for (const way of ['easier', 'harder'] as const) {
      const far = ({ to }: Step): number => (levels.get(to) ?? 0) * (way === 'harder' ? 1 : -1);
      const on = ({ to }: Step): number => rungs.get(to)?.[way].length ?? 0;
      rung[way].sort((a, b) => far(a) - far(b) || on(b) - on(a));
    }
  return { rungs, levels, components: componentsOf(rungs) };
}

/** The same link written at both ends stays one step; the end with the signs wins. */
function addStep(steps: Step[], step: Step): void {
  const twin = steps.find((s) => s.to === step.to);
  if (!twin) steps.push(step);
  else {
    twin.readyWhen ??= step.readyWhen;
    twin.backWhen ??= step.backWhen;
  }
}

/** Longest-path levels by repeatedly taking off movements with nothing easier left (Kahn 1962). */
function levelsOf(rungs: ReadonlyMap<string, Rung>): Map<string, number> {
  const levels = new Map<string, number>();
  const waiting = new Map<string, number>();
  const ready: string[] = [];
  for (const [id, rung] of rungs) {
    waiting.set(id, rung.easier.length);
    if (rung.easier.length === 0) ready.push(id);
  }
  for (let id = ready.pop(); id !== undefined; id = ready.pop()) {
    const rung = rungs.get(id) ?? emptyRung();
    levels.set(
      id,
      rung.easier.reduce((level, step) => Math.max(level, (levels.get(step.to) ?? 0) + 1), 0),
    );
    for (const step of rung.harder) {
      const left = (waiting.get(step.to) ?? 0) - 1;
      waiting.set(step.to, left);
      if (left === 0) ready.push(step.to);
    }
  }
  if (levels.size < rungs.size) throw new CycleError(findCycle(rungs, levels));
  return levels;
}

/** Walks down from any movement that got no level: each such movement has an easier one without a level, so the walk must close. */
function findCycle(rungs: ReadonlyMap<string, Rung>, levels: ReadonlyMap<string, number>): string[] {
  const walked: string[] = [];
  let id = [...rungs.keys()].find((key) => !levels.has(key));
  while (id !== undefined && !walked.includes(id)) {
    walked.push(id);
    id = rungs.get(id)?.easier.find((step) => !levels.has(step.to))?.to;
  }
  const circle = walked.slice(walked.indexOf(id ?? ''));
  return [...circle, circle[0] ?? ''].reverse();
}

function componentsOf(rungs: ReadonlyMap<string, Rung>): Map<string, number> {
  const components = new Map<string, number>();
  let next = 0;
  for (const start of rungs.keys()) {
    if (components.has(start)) continue;
    const stack = [start];
    components.set(start, next);
    for (let id = stack.pop(); id !== undefined; id = stack.pop()) {
      const rung = rungs.get(id) ?? emptyRung();
      for (const { to } of [...rung.easier, ...rung.harder]) {
        if (components.has(to)) continue;
        components.set(to, next);
        stack.push(to);
      }
    }
    next += 1;
  }
  return components;
}

/** Links from `start` in one direction, nearest first, to at most `maxLinks`: movement id → the steps that lead to it. */
export function reach(
  ladder: Pick<Ladder, 'rungs'>,
  start: string,
  directions: readonly (keyof Rung)[],
  maxLinks: number,
): Map<string, readonly Step[]> {
  const found = new Map<string, readonly Step[]>([[start, []]]);
  let edge = [start];
  for (let distance = 0; distance < maxLinks && edge.length > 0; distance += 1) {
    const nextEdge: string[] = [];
    for (const id of edge) {
      const rung = ladder.rungs.get(id);
      const way = found.get(id) ?? [];
      for (const direction of directions)
        for (const step of rung?.[direction] ?? []) {
          if (found.has(step.to)) continue;
          found.set(step.to, [...way, step]);
          nextEdge.push(step.to);
        }
    }
    // Which of two ways of one length is taken must not hang on the order of the library.
    edge = nextEdge.sort();
  }
  found.delete(start);
  return found;
}
