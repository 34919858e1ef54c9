/** Why a correction is proposed to this client now, as a sentence. */
import type { CorrectionFacts, Style } from '@waxwing/core/coaching';
import { causeWords, type CorrectionKind } from '@waxwing/core/movement';

import { say } from './say';

const KIND_PHRASE: Readonly<Record<Exclude<CorrectionKind, 'say'>, string>> = {
  show: say.floor.showingIt,
  touch: say.floor.aTouch,
  prop: say.floor.aPropOrTarget,
  slow: say.floor.slowingDown,
  shorten: say.floor.aShorterRange,
  lighten: say.floor.aLighterLoad,
  swap: say.floor.anotherMovement,
  stop: say.floor.stopping,
};

const styleWords = ({ kind, focus }: Style): string =>
  kind === 'say' ? `${focus ? `${focus} ` : ''}words` : KIND_PHRASE[kind];

export function correctionReason({ style, tried, worked, answers, cause, steppedDown }: CorrectionFacts): string {
  const by = styleWords(style);
  const words = [
    tried > 0 ? say.floor.helpedOfTimeTimesFor(by, worked, tried) : say.floor.notTriedWithThisClient(by),
    ...(answers > 1 ? [say.floor.answersFaultsAtOnce(answers, cause === null ? '' : ` (${causeWords(cause)})`)] : []),
    ...(steppedDown ? [say.floor.lighterStepsDidNotHelp] : []),
  ].join(' · ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}
