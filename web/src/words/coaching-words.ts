/** Why a correction is proposed to this client now, as a sentence. */
import type { CorrectionFacts, Style } from '@waxwing/core/coaching';
import { causeWords, type CorrectionKind } from '@waxwing/core/movement';

const KIND_PHRASE: Readonly<Record<Exclude<CorrectionKind, 'say'>, string>> = {
  show: 'showing it',
  touch: 'a touch',
  prop: 'a prop or target',
  slow: 'slowing down',
  shorten: 'a shorter range',
  lighten: 'a lighter load',
  swap: 'another movement',
  stop: 'stopping',
};

const styleWords = ({ kind, focus }: Style): string =>
  kind === 'say' ? `${focus ? `${focus} ` : ''}words` : KIND_PHRASE[kind];

export function correctionReason({ style, tried, worked, answers, cause, steppedDown }: CorrectionFacts): string {
  const by = styleWords(style);
  const words = [
    tried > 0
      ? `${by} helped ${worked} of ${tried} ${tried === 1 ? 'time' : 'times'} for this client`
      : `${by}: not tried with this client yet`,
    ...(answers > 1 ? [`answers ${answers} faults at once${cause === null ? '' : ` (${causeWords(cause)})`}`] : []),
    ...(steppedDown ? ['lighter steps did not help today'] : []),
  ].join(' · ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}
