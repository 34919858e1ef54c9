/** A movement on one page, as Markdown: for a wall, a folder or a message. */
import { bestView } from '../coaching/stand.js';
import type { Step } from '../ladder/page.js';
import { signWords } from '../ladder/readiness.js';
import type { Correction, Movement } from '../movement/schema.js';
import type { Direction } from '../movement/vocabulary.js';
import {
  causeWords,
  correctionWords,
  cueWords,
  demandList,
  inWords,
  kitWords,
  label,
  leverWords,
  SEVERITY_WORDS,
  SIDES_WORDS,
  UNIT_WORDS,
  viewWords,
} from '../movement/words.js';

export type NamedStep = Step & { name: string };

export interface CardNeighbours {
  easier: readonly NamedStep[];
  harder: readonly NamedStep[];
}

/** Characters that Markdown would read as markup. */
export const plain = (text: string): string => text.replace(/([\\`*_{}[\]<>#|])/g, '\\$1');

/** The dose of one purpose: `2–3 × 8–12 reps a side, 60 s rest`. */
export function doseWords(movement: Movement): { purpose: string; words: string }[] {
  const unit = UNIT_WORDS[movement.dose.mode];
  const side = movement.sides === 'each' ? ' a side' : '';
  const range = (low: number, high: number) => (low === high ? `${low}` : `${low}–${high}`);
  return Object.entries(movement.dose.windows).map(([purpose, { low, high, sets, rest }]) => ({
    purpose: inWords(purpose),
    words: `${range(...sets)} × ${range(low, high)} ${unit}${side}, ${rest} s rest`,
  }));
}

const correctionLine = ({ cues }: Movement, correction: Correction): string =>
  `${label(correction.kind)}: ${correctionWords(correction, cues)}`;

export function cardMarkdown(movement: Movement, neighbours: CardNeighbours): string {
  const steps = (title: string, direction: Direction, list: readonly NamedStep[]) =>
    list.length === 0
      ? []
      : [
          `**${title}:** ${list
            .map(({ name, lever, readyWhen }) => {
              const ready = direction === 'harder' && readyWhen ? `, ready after ${signWords(readyWhen)}` : '';
              return plain(`${name} (${leverWords(lever, direction)}${ready})`);
            })
            .join('; ')}`,
          '',
        ];
  const lines = [
    `# ${plain(movement.name)}`,
    '',
    ...(movement.aliases.length > 0 ? [`*also: ${plain(movement.aliases.join(', '))}*`, ''] : []),
    `**Needs:** ${kitWords(movement.kit)} · **Sides:** ${SIDES_WORDS[movement.sides]} · **Tempo:** ${movement.dose.tempo}`,
    '',
    ...doseWords(movement).map(({ purpose, words }) => `- ${purpose}: ${words}`),
    '',
    ...(movement.how ? [plain(movement.how), ''] : []),
    `**Breath:** ${plain(movement.breath)}`,
    '',
    '## Say and show',
    '',
    ...movement.phases.flatMap((phase) => {
      const cues = movement.cues.filter((cue) => cue.phase === phase);
      return cues.length === 0 ? [] : [`- **${label(phase)}:** ${cues.map((cue) => plain(cueWords(cue))).join(' · ')}`];
    }),
    '',
    '## Look for',
    '',
    ...movement.faults.flatMap((fault) => [
      `- **${plain(fault.name)}** (${SEVERITY_WORDS[fault.severity].toLowerCase()}; ${viewWords(bestView(fault), movement.position).toLowerCase()}): ${plain(fault.looksLike)} Often from ${fault.causes.map(causeWords).join(', ')}.`,
      ...fault.corrections.map((correction) => `  - ${plain(correctionLine(movement, correction))}`),
    ]),
    '',
    ...steps('Easier', 'easier', neighbours.easier),
    ...steps('Harder', 'harder', neighbours.harder),
    `**Asks for:** ${demandList(movement.demands).join(', ') || 'nothing special'}`,
    '',
    ...movement.cautions.map((caution) => `> ${plain(caution)}`),
  ];
  return `${lines.join('\n').trim()}\n`;
}
