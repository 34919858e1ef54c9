/** Two or more movements side by side, with what differs told apart from what is the same in all. */
import type { Movement } from './schema.js';
import { demandList, inWords, kitWords, label, PLANE_WORDS, SIDES_WORDS } from './words.js';

/** One line of a comparison: for each movement its values, and which of them no other movement shares. */
export interface ComparedRow {
  title: string;
  values: { text: string; own: boolean }[][];
  /** False when every movement has exactly the same values. */
  differs: boolean;
}

type Facet = readonly [title: string, of: (movement: Movement) => readonly string[]];

const FACETS: readonly Facet[] = [
  ['Pattern', (m) => [label(m.pattern)]],
  ['Position', (m) => [label(m.position)]],
  ['Direction', (m) => m.planes.map((plane) => PLANE_WORDS[plane])],
  ['Sides', (m) => [SIDES_WORDS[m.sides]]],
  ['Works', (m) => m.muscles.prime.map(inWords)],
  ['Helps', (m) => m.muscles.assist.map(inWords)],
  [
    'Needs',
    (m) =>
      m.kit.length === 0
        ? ['nothing']
        : m.kit.map((option) => [kitWords([option]), ...demandList(option.demands ?? {})].join(', with ')),
  ],
  ['Room', (m) => [m.space]],
  ['Tempo', (m) => [m.dose.tempo]],
  ['Asks for', (m) => demandList(m.demands)],
  ['Set up', (m) => m.setUp.map(inWords)],
  ['Feels like', (m) => (m.feel ? [m.feel.expected] : [])],
  ['Faults', (m) => m.faults.map((fault) => fault.name)],
];

/** The phases of all, in the order of the first that has them, with the cues of each. */
function cueFacets(movements: readonly Movement[]): Facet[] {
  const phases = [...new Set(movements.flatMap((movement) => movement.phases))];
  return phases.map((phase): Facet => [
    label(phase),
    (m) => m.cues.filter((cue) => cue.phase === phase).map((cue) => cue.text),
  ]);
}

/** What tells a movement apart at a glance: the first words said about its first action. */
const FIRST_ACTION: Facet = [
  'The move',
  (m) => {
    const phase = m.phases.find((one) => one !== 'set-up' && m.cues.some((cue) => cue.phase === one));
    return m.cues
      .filter((cue) => cue.phase === phase)
      .map((cue) => cue.text)
      .slice(0, 1);
  },
];

/** Compares the first action, then facts, then cues phase by phase. */
export function compareMovements(movements: readonly Movement[]): ComparedRow[] {
  return [FIRST_ACTION, ...FACETS, ...cueFacets(movements)]
    .map(([title, of]): ComparedRow => {
      const lists = movements.map((movement) => [...of(movement)]);
      const holders = (text: string) => lists.filter((list) => list.includes(text)).length;
      const values = lists.map((list) => list.map((text) => ({ text, own: holders(text) < movements.length })));
      return { title, values, differs: values.some((list) => list.some(({ own }) => own)) };
    })
    .filter((row) => row.values.some((list) => list.length > 0));
}
