import { expect, test } from '@jest/globals';
import { buildLadder } from '@waxwing/core/ladder';
import type { MovementSummary } from '@waxwing/core/movement';
import fc from 'fast-check';

import { layLadder, NODE } from './lay-ladder';

/** Families whose links only ever go up, some to a movement of another family. */
const families: fc.Arbitrary<MovementSummary[]> = fc
  .array(fc.tuple(fc.uniqueArray(fc.nat(9), { maxLength: 3 }), fc.boolean()), { minLength: 1, maxLength: 10 })
  .map((rows) =>
    rows.map(([targets, other], i) => ({
      id: `m${i}`,
      name: `Movement ${i}`,
      aliases: [],
      families: [other && i > 0 ? 'row' : 'squat'],
      pattern: 'squat' as const,
      role: 'strength' as const,
      position: 'standing' as const,
      sides: 'both' as const,
      phases: ['lower' as const, 'rise' as const],
      planes: ['sagittal' as const],
      muscles: { prime: ['quads' as const], assist: [] },
      kit: [],
      space: 'spot' as const,
      demands: {},
      notFor: [],
      suits: [],
      dose: { mode: 'reps' as const, tempo: '2-0-1-0', windows: {} },
      links: targets
        .filter((to) => to > i && to < rows.length)
        .map((to) => ({ to: `m${to}`, direction: 'harder' as const, lever: 'load' as const })),
      setUp: [],
      precursors: [],
      progression: 'yes' as const,
      level: 0,
    })),
  );

test('every rung of the family is drawn, harder always above easier, and no two on one spot', () => {
  fc.assert(
    fc.property(families, (movements) => {
      const { nodes, edges, lowest } = layLadder(movements, 'squat');
      const at = new Map(nodes.map((node) => [node.movement.id, node]));
      for (const movement of movements.filter((one) => one.families.includes('squat')))
        expect(at.get(movement.id)?.outside).toBe(false);
      for (const { from, to } of edges) expect(at.get(to)?.y).toBeLessThan(at.get(from)?.y ?? -Infinity);
      expect(new Set(nodes.map(({ x, y }) => `${x} ${y}`)).size).toBe(nodes.length);
      nodes.forEach((a, i) =>
        nodes.slice(i + 1).forEach((b) => {
          if (a.y === b.y) expect(Math.abs(a.x - b.x)).toBeGreaterThanOrEqual(NODE.width);
        }),
      );
      expect(lowest?.outside).toBe(false);
    }),
  );
});

test('up and down lead along a link, left and right along a row, and back again', () => {
  fc.assert(
    fc.property(families, (movements) => {
      const { nodes, step } = layLadder(movements, 'squat');
      const { rungs } = buildLadder(movements);
      for (const { movement, x, y } of nodes) {
        const rung = rungs.get(movement.id);
        const up = step(movement.id, 'ArrowUp');
        const down = step(movement.id, 'ArrowDown');
        if (up) expect(rung?.harder.map(({ to }) => to)).toContain(up);
        if (down) expect(rung?.easier.map(({ to }) => to)).toContain(down);
        const right = nodes.find((node) => node.movement.id === step(movement.id, 'ArrowRight'));
        if (right) {
          expect(right.y).toBe(y);
          expect(right.x).toBeGreaterThan(x);
          expect(step(right.movement.id, 'ArrowLeft')).toBe(movement.id);
        }
      }
    }),
  );
});
