/** Where the rungs of a family stand on its map: the easiest at the bottom, a row for each level. */
import dagre from '@dagrejs/dagre';
import { buildLadder, familiesOf } from '@waxwing/core/ladder';
import { leverWords, type MovementSummary } from '@waxwing/core/movement';

export const NODE = { width: 208, height: 68 } as const;
/** Between two rows, half on either side of a label. */
const GAP = 34;
const LABEL = { height: 20, letter: 6.6, around: 12 } as const;
/** How far a link between neighbours of a row hangs below it. */
const DIP = 30;

interface Point {
  x: number;
  y: number;
}

export interface LaidLink {
  from: string;
  to: string;
  words: string;
  sideways: boolean;
  /** From the easier one up to the harder, round whatever stands between them. */
  points: Point[];
  /** The middle of its words. */
  at: Point;
}

/** A row of rungs: where its foot is, and the level that all of the family's own in it have; null where they differ. */
export interface LaidRow {
  y: number;
  level: number | null;
}

export interface LaidRung {
  movement: MovementSummary;
  x: number;
  y: number;
  /** Of another family, shown because it is linked. */
  outside: boolean;
}

export interface LaidLadder {
  nodes: LaidRung[];
  /** The easiest of the family from which one climbs on; undefined when it is empty. */
  lowest: LaidRung | undefined;
  edges: LaidLink[];
  /** The hardest first. */
  rows: LaidRow[];
  /** The movement that an arrow key leads to; undefined where there is none. */
  step: (id: string, key: string) => string | undefined;
}

export function layLadder(movements: readonly MovementSummary[], family: string): LaidLadder {
  const ladder = buildLadder(movements);
  const inside = new Set(movements.filter((movement) => movement.families.includes(family)).map(({ id }) => id));
  const linked = [...inside].flatMap((id) => {
    const rung = ladder.rungs.get(id);
    return [...(rung?.easier ?? []), ...(rung?.harder ?? [])].map((step) => step.to);
  });
  const shown = new Set([...inside, ...linked]);

  const graph = new dagre.graphlib.Graph();
  // Edges run from harder to easier, so that the longest way down, which is the level, decides the row.
  graph.setGraph({ rankdir: 'TB', ranker: 'longest-path', nodesep: 36, edgesep: 24, ranksep: GAP });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const id of shown) graph.setNode(id, { width: NODE.width, height: NODE.height });
  const links: Omit<LaidLink, 'points' | 'at'>[] = [];
  for (const id of shown) {
    const rung = ladder.rungs.get(id);
    for (const { to, lever } of rung?.harder ?? []) {
      if (!shown.has(to)) continue;
      const words = leverWords(lever, 'harder');
      // Words have a place of their own in the layout, so that nothing lies over them.
      graph.setEdge(to, id, { width: widthOf(words), height: LABEL.height, labelpos: 'c' });
      links.push({ from: id, to, words, sideways: false });
    }
    for (const { to, lever } of rung?.sideways ?? [])
      if (shown.has(to) && id < to) links.push({ from: id, to, words: leverWords(lever, 'sideways'), sideways: true });
  }
  dagre.layout(graph);
  const nodes = movements
    .filter(({ id }) => shown.has(id))
    .map((movement) => {
      const { x, y } = graph.node(movement.id);
      return { movement, x: x - NODE.width / 2, y: y - NODE.height / 2, outside: !inside.has(movement.id) };
    });
  const place = new Map(nodes.map((node) => [node.movement.id, node]));
  const edges = links.map((link): LaidLink => {
    const [a, b] = [place.get(link.from), place.get(link.to)];
    if (link.sideways && a && b) return { ...link, ...hanging(a, b) };
    const { points, x, y } = graph.edge(link.to, link.from) as { points: Point[]; x: number; y: number };
    return { ...link, points: points.toReversed(), at: { x, y } };
  });
  const levels = new Map(
    familiesOf(movements)
      .find((one) => one.family === family)
      ?.members.map(({ movement, level }) => [movement.id, level]),
  );
  const rows = [...new Set(nodes.map(({ y }) => y))]
    .toSorted((a, b) => a - b)
    .map((y): LaidRow => {
      const own = nodes.flatMap((node) => (node.y === y ? (levels.get(node.movement.id) ?? []) : []));
      return { y: y + NODE.height, level: new Set(own).size === 1 ? (own[0] ?? null) : null };
    });
  const nearest = (from: LaidRung, others: readonly LaidRung[]): string | undefined =>
    others.toSorted((a, b) => Math.abs(a.x - from.x) - Math.abs(b.x - from.x))[0]?.movement.id;

  /** Whether one climbs on from it at all. */
  const climbs = ({ movement: { id } }: LaidRung): number => ((ladder.rungs.get(id)?.harder.length ?? 0) > 0 ? 1 : 0);

  return {
    nodes,
    lowest: nodes.filter(({ outside }) => !outside).toSorted((a, b) => climbs(b) - climbs(a) || b.y - a.y)[0],
    edges,
    rows,
    step: (id, key) => {
      const here = place.get(id);
      if (!here) return undefined;
      const along = (steps: readonly { to: string }[] = []) =>
        nearest(
          here,
          steps.flatMap(({ to }) => place.get(to) ?? []),
        );
      const rung = ladder.rungs.get(id);
      if (key === 'ArrowUp') return along(rung?.harder);
      if (key === 'ArrowDown') return along(rung?.easier);
      const right = key === 'ArrowRight';
      return nearest(
        here,
        nodes.filter((other) => other.y === here.y && (right ? other.x > here.x : other.x < here.x)),
      );
    },
  };
}

const widthOf = (words: string): number => words.length * LABEL.letter + LABEL.around;

/** Under the feet of both: beside each other, whatever stands between. */
function hanging(a: LaidRung, b: LaidRung): Pick<LaidLink, 'points' | 'at'> {
  const foot = ({ x, y }: LaidRung): Point => ({ x: x + NODE.width / 2, y: y + NODE.height });
  const [from, to] = [foot(a), foot(b)];
  const low = Math.max(from.y, to.y) + DIP;
  const middle = { x: (from.x + to.x) / 2, y: low };
  return {
    points: [
      from,
      { x: from.x + (to.x - from.x) * 0.15, y: low },
      middle,
      { x: to.x - (to.x - from.x) * 0.15, y: low },
      to,
    ],
    at: middle,
  };
}
