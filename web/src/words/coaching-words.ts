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

export function correctionReason({
  style,
  tried,
  worked,
  answers,
  cause,
  named,
  steppedDown,
}: CorrectionFacts): string {
  const by = styleWords(style);
  const words = [
    ...(cause !== null && named ? [say.floor.theCauseYouNamed(causeWords(cause))] : []),
    ...(cause !== null && !named ? [say.floor.oneCauseForAll(causeWords(cause), answers)] : []),
    ...(answers > 1 && cause === null ? [say.floor.answersFaultsAtOnce(answers)] : []),
    tried > 0 ? say.floor.helpedOfTimeTimesFor(by, worked, tried) : say.floor.notTriedWithThisClient(by),
    ...(steppedDown ? [say.floor.lighterStepsDidNotHelp] : []),
  ].join(' · ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}
