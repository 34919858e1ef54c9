/** Whether the movements that stand for a level of a demand have it, and every level that is used says what it means. */
import { type DemandLevel, DEMANDS, levelOf, type Movement } from '@waxwing/core/movement';

import type { FileProblem } from './load.js';

const FILE = 'demands.yaml';
/** As many as stand for a level where the library has so many. */
const EXAMPLES = 2;

export function levelShortfalls(levels: readonly DemandLevel[], movements: readonly Movement[]): FileProblem[] {
  const problems: FileProblem[] = [];
  const say = (path: string, message: string) => problems.push({ file: FILE, path, message });
  for (const demand of DEMANDS)
    for (const level of [1, 2, 3]) {
      const having = new Set(movements.filter(({ demands }) => demands[demand] === level).map(({ id }) => id));
      const said = levelOf(levels, demand, level);
      const path = `${demand}.${level}`;
      if (!said && having.size > 0)
        say(path, `is asked for by ${having.size} movements, and says nowhere what it means`);
      if (!said) continue;
      if (having.size === 0) say(path, 'is asked for by no movement');
      if (said.like.length < Math.min(EXAMPLES, having.size))
        say(path, `needs ${EXAMPLES} movements that stand for it`);
      for (const id of said.like) if (!having.has(id)) say(path, `${id} does not ask for this much`);
    }
  return problems;
}
