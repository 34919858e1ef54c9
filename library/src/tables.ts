/**
 * The library as lists to be read by a trainer: `npm run ladders` prints what is easier and harder than what, `npm run conditions` what
 * each condition leaves open and what it rules out.
 */
import { proposedLimits } from '@waxwing/core/client';
import { buildLadder } from '@waxwing/core/ladder';
import { KIT_ITEMS, type KitItem, opennessWith, PATTERNS } from '@waxwing/core/movement';

import { loadConditions, loadLibrary } from './load.js';
import { CONDITIONS, STARTER_FOLDER } from './places.js';

const movements = loadLibrary(STARTER_FOLDER);
/** A place that has everything: what is closed is closed by the condition. */
const EVERYTHING: ReadonlyMap<KitItem, number> = new Map(KIT_ITEMS.map((item) => [item, 9]));

function printLadders(): void {
  const { rungs, levels } = buildLadder(movements);
  const families = new Map<string, string[]>();
  for (const { id, families: own } of movements)
    families.set(own[0] ?? '', [...(families.get(own[0] ?? '') ?? []), id]);
  for (const [family, ids] of [...families].sort(([a], [b]) => a.localeCompare(b))) {
    console.log(`\n${family}`);
    const level = (id: string) => levels.get(id) ?? 0;
    for (const id of ids.toSorted((a, b) => level(a) - level(b) || a.localeCompare(b)))
      console.log(`  ${level(id)} ${id}${(rungs.get(id)?.harder ?? []).map(({ to }) => ` → ${to}`).join('')}`);
  }
}

function printConditions(): void {
  for (const condition of loadConditions(CONDITIONS)) {
    const limits = proposedLimits(condition, [], '2000-01-01');
    const open = movements.filter((movement) => opennessWith(movement, limits, EVERYTHING) !== 'closed');
    console.log(
      `\n${condition.name} (${condition.kind}, since ${condition.from}): ${open.length} of ${movements.length}`,
    );
    for (const pattern of PATTERNS) {
      const some = open.filter((movement) => movement.pattern === pattern).map(({ id }) => id);
      if (some.length > 0) console.log(`  ${pattern}: ${some.join(' ')}`);
    }
    const ruled = movements.filter(({ notFor }) => notFor.includes(condition.id)).map(({ id }) => id);
    if (ruled.length > 0) console.log(`  ruled out: ${ruled.join(' ')}`);
  }
}

if (process.argv[2] === 'conditions') printConditions();
else printLadders();
