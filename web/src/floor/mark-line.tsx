/** The mark for today, in one quiet line: what turned, and one tap for less of what is left. */
import { type LaneView, markFor, type MarkSign, movementOf, takeMark } from '@waxwing/core/floor';
import { inWords } from '@waxwing/core/movement';
import { v7 as uuidv7 } from 'uuid';

import { say } from '../words/say';
import { useTap } from './use-tap';

const ORDINALS = [
  '',
  say.common.first,
  say.floor.second,
  say.floor.third,
  say.floor.fourth,
  say.floor.fifth,
  say.floor.sixth,
] as const;
const ordinal = (set: number): string => say.floor.nthSet(ORDINALS[set] ?? `${set}th`);

function signWords(sign: MarkSign, faultName: (id: string) => string): string {
  switch (sign.code) {
    case 'fewer':
      return say.floor.downBy(ordinal(sign.set), sign.by);
    case 'below-last-time':
      return say.floor.fewerThanLastTime(sign.by);
    case 'fault-again':
      return say.floor.faultInSets(faultName(sign.fault), sign.sets);
    case 'harder':
      return sign.effort === 'failed' ? say.floor.aSetFailed : say.floor.itTurnedHard;
    case 'broken':
      return say.floor.heldInPieces(sign.pieces);
  }
}

export function MarkLine({ view }: { view: LaneView }) {
  const tap = useTap(view.client.id);
  const mark = markFor(view);
  if (!mark) return null;
  const faultName = (id: string) =>
    (view.justDone?.page?.movement.faults.find((fault) => fault.id === id)?.name ?? inWords(id)).toLowerCase();
  const signs = mark.signs.map((sign) => signWords(sign, faultName)).join(', ');
  const said = signs.charAt(0).toLowerCase() + signs.slice(1);
  const words = ({ take, movementId }: (typeof mark.takes)[number]): string =>
    take === 'fewer-sets'
      ? say.floor.endTheLine((view.justDone?.movement?.name ?? '').toLowerCase())
      : take === 'stretch'
        ? say.floor.onToTheStretch
        : say.floor.take((movementOf(view, movementId ?? '')?.name ?? say.floor.anEasierOne).toLowerCase());
  return (
    <section aria-label={say.floor.markForToday} className="mt-2 flex flex-wrap items-center gap-2">
      <p className="mr-2">{say.floor.windDown(view.justDone?.movement?.name ?? '', said)}</p>
      {mark.takes.map((one) => (
        <button
          key={one.take}
          type="button"
          className="btn target"
          onClick={() => tap(takeMark(view, mark, one, uuidv7))}
        >
          {words(one)}
        </button>
      ))}
      <button type="button" className="btn btn-ghost target" onClick={() => tap(takeMark(view, mark, null, uuidv7))}>
        {say.common.goOn}
      </button>
    </section>
  );
}
