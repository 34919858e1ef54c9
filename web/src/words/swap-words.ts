/** Why a movement is swapped, what speaks for a substitute, and what rules one out, as people say it. */
import { becauseWords } from '@waxwing/core/formats';
import type { RuledOutBy, SwapFact, SwapReason } from '@waxwing/core/ladder';
import { demandWords, inWords, kitWords, leverWords, SPACE_WORDS } from '@waxwing/core/movement';

import { say } from './say';

export const REASON_WORDS: Readonly<Record<SwapReason, string>> = say.library.reasonWords;

/** Levers that are named for a step of several rungs, at most. */
const MOST_LEVERS = 2;

function factWords(fact: SwapFact): string {
  switch (fact.code) {
    case 'spares':
      return say.library.sparesThe(inWords(fact.region));
    case 'other-pattern':
      return say.library.anotherPattern(inWords(fact.pattern));
    case 'off-ladder':
      return say.library.samePatternOffThisLadder;
    case 'other-branch':
      return say.library.sameFamilyOnAnotherBranch;
    case 'same-level':
      return say.library.sameLevel;
    case 'rungs': {
      const direction = fact.levels < 0 ? 'easier' : 'harder';
      const changes = [...new Set(fact.levers.map((lever) => leverWords(lever, direction)))];
      const rungs = say.library.rungs(Math.abs(fact.levels));
      return `${rungs} ${direction}: ${changes.slice(0, MOST_LEVERS).join(', ')}`;
    }
    case 'same-muscles':
      return say.library.sameMuscles;
    case 'mostly-same-muscles':
      return say.library.mostlyTheSameMuscles;
    case 'also-works':
      return say.library.alsoWorks(fact.muscles.map(inWords).join(', '));
    case 'other-muscles':
      return say.library.otherMuscles;
    case 'needs':
      return say.library.needsOption(kitWords(fact.option ? [fact.option] : []));
    case 'care':
      return say.library.withCare(becauseWords(fact.because));
  }
}

/** What speaks for a substitute, in one line. */
export const swapWords = (why: readonly SwapFact[]): string => why.map(factWords).join(' · ');

/** What rules a movement out. */
export function ruledOutWords(by: RuledOutBy): string {
  switch (by.code) {
    case 'hurt-before':
      return say.library.hurtWhenItWasLast;
    case 'limits':
      return becauseWords(by.because);
    case 'kit':
      return say.library.needsOneOf(kitWords(by.options));
    case 'room':
      return say.library.needsRoom(SPACE_WORDS[by.space]);
    case 'still-asks':
      return say.library.stillAsksFor(by.demands.map(demandWords).join(say.common.and));
    case 'other-way':
      return say.library.goesAnotherWay;
    case 'as-much-balance':
      return say.library.asksForAsMuchBalance;
    case 'same-kit':
      return say.library.needsTheSameKit;
    case 'as-much-room':
      return say.library.needsAsMuchRoom;
  }
}
