/** Names as they are called across a room, and in a row. */
import { lower } from './plan-words';
import { say } from './say';

export const firstName = ({ name }: { name: string }): string => name.split(' ')[0] ?? name;

/** So many of a list are named. */
const NAMED = 3;

/** `Goblet squat, push-up, bent-over row and 2 more`; empty for none. */
export function someOf(names: readonly string[]): string {
  const shown = names.slice(0, NAMED).map((name, i) => (i === 0 ? name : lower(name)));
  return shown.join(', ') + (names.length > NAMED ? say.shell.andMore(names.length - NAMED) : '');
}
