/** Why a movement is swapped, what speaks for a substitute, and what rules one out, as people say it. */
import { becauseWords } from '@waxwing/core/formats';
import type { RuledOutBy, SwapFact, SwapReason } from '@waxwing/core/ladder';
import { demandWords, inWords, kitWords, leverWords, SPACE_WORDS } from '@waxwing/core/movement';

export const REASON_WORDS: Readonly<Record<SwapReason, string>> = {
  'too-hard': 'Too hard',
  'too-easy': 'Too easy',
  wobbly: 'Wobbly',
  pain: 'Pain',
  'no-kit': 'Kit is taken',
  'no-room': 'No room',
  bored: 'Something else',
};

/** Levers that are named for a step of several rungs, at most. */
const MOST_LEVERS = 2;

function factWords(fact: SwapFact): string {
  switch (fact.code) {
    case 'spares':
      return `spares the ${inWords(fact.region)}`;
    case 'other-pattern':
      return `another pattern: ${inWords(fact.pattern)}`;
    case 'off-ladder':
      return 'same pattern, off this ladder';
    case 'other-branch':
      return 'same family, on another branch';
    case 'same-level':
      return 'same level';
    case 'rungs': {
      const direction = fact.levels < 0 ? 'easier' : 'harder';
      const changes = [...new Set(fact.levers.map((lever) => leverWords(lever, direction)))];
      const rungs = Math.abs(fact.levels) === 1 ? 'one rung' : `${Math.abs(fact.levels)} rungs`;
      return `${rungs} ${direction}: ${changes.slice(0, MOST_LEVERS).join(', ')}`;
    }
    case 'same-muscles':
      return 'same muscles';
    case 'mostly-same-muscles':
      return 'mostly the same muscles';
    case 'also-works':
      return `also works ${fact.muscles.map(inWords).join(', ')}`;
    case 'other-muscles':
      return 'other muscles';
    case 'needs':
      return `needs ${kitWords(fact.option ? [fact.option] : [])}`;
    case 'care':
      return `with care: ${becauseWords(fact.because)}`;
  }
}

/** What speaks for a substitute, in one line. */
export const swapWords = (why: readonly SwapFact[]): string => why.map(factWords).join(' · ');

/** What rules a movement out. */
export function ruledOutWords(by: RuledOutBy): string {
  switch (by.code) {
    case 'hurt-before':
      return 'hurt when it was last done';
    case 'limits':
      return becauseWords(by.because);
    case 'kit':
      return `needs ${kitWords(by.options)}`;
    case 'room':
      return `needs room: ${SPACE_WORDS[by.space]}`;
    case 'still-asks':
      return `still asks for ${by.demands.map(demandWords).join(' and ')}`;
    case 'other-way':
      return 'goes another way';
    case 'as-much-balance':
      return 'asks for as much balance';
    case 'same-kit':
      return 'needs the same kit';
    case 'as-much-room':
      return 'needs as much room';
  }
}
