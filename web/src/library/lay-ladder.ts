/** Where the rungs of a family stand on its map: the easiest at the bottom, a row for each level. */
import dagre from '@dagrejs/dagre';
import { buildLadder } from '@waxwing/core/ladder';
import { leverWords, type MovementSummary } from '@waxwing/core/movement';

export const NODE = { width: 200, height: 66, row: 128 } as const;

export interface LaidRung {
  movement: MovementSummary;
  x: number;
  y: number;
  /** Of another family, shown because it is linked. */
  outside: boolean;
}

export interface LaidLadder {
  nodes: LaidRung[];
  /** The easiest of the family; undefined when it is empty. */
  lowest: LaidRung | undefined;
  edges: { from: string; to: string; words: string; sideways: boolean }[];
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
  graph.setGraph({ rankdir: 'TB', ranker: 'longest-path', nodesep: 30, ranksep: NODE.row - NODE.height });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const id of shown) graph.setNode(id, { width: NODE.width, height: NODE.height });
  const edges: LaidLadder['edges'] = [];
  for (const id of shown) {
    const rung = ladder.rungs.get(id);
    for (const { to, lever } of rung?.harder ?? []) {
      if (!shown.has(to)) continue;
      graph.setEdge(to, id);
      edges.push({ from: id, to, words: leverWords(lever, 'harder'), sideways: false });
    }
    for (const { to, lever } of rung?.sideways ?? [])
      if (shown.has(to) && id < to) edges.push({ from: id, to, words: leverWords(lever, 'sideways'), sideways: true });
  }
  dagre.layout(graph);
  const nodes = movements
    .filter(({ id }) => shown.has(id))
    .map((movement) => {
      const { x, y } = graph.node(movement.id);
      return { movement, x: x - NODE.width / 2, y: y - NODE.height / 2, outside: !inside.has(movement.id) };
    });
  const place = new Map(nodes.map((node) => [node.movement.id, node]));
  const nearest = (from: LaidRung, others: readonly LaidRung[]): string | undefined =>
    others.toSorted((a, b) => Math.abs(a.x - from.x) - Math.abs(b.x - from.x))[0]?.movement.id;

  return {
    nodes,
    lowest: nodes
      .filter(({ outside }) => !outside)
      .reduce<LaidRung | undefined>((low, node) => (!low || node.y > low.y ? node : low), undefined),
    edges,
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
