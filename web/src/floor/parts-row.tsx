/** The parts of a composed set: the one in work stands out, and a tap says that the set ended in one of them. */
import { partTotals, partWords } from '@waxwing/core/dosage';
import { type LaneView, partNow } from '@waxwing/core/floor';
import type { Part } from '@waxwing/core/schema';
import { useEffect } from 'react';

import { say } from '../words/say';
import { useTimed } from './clock';
import { speak } from './sound';

/** Where a set ended before its end. */
export interface Ended {
  index: number;
  /** Done of that part. */
  count: number;
}

/** Whether a set can have ended one earlier or later in its part: never before anything was done. */
export function canEnd(parts: readonly Part[], { index, count }: Ended, by: 1 | -1): boolean {
  const to = count + by;
  return to <= (parts[index]?.count ?? 0) && (to > 0 || (to === 0 && index > 0));
}

/** `11 reps, 8 pulses, 8 s held`. */
export function partsTotalWords(parts: readonly Part[]): string {
  const { reps, pulses, held } = partTotals(parts);
  return [
    ...(reps > 0 ? [say.floor.reps(reps)] : []),
    ...(pulses > 0 ? [say.floor.pulses(pulses)] : []),
    ...(held > 0 ? [say.floor.secondsHeld(held)] : []),
  ].join(', ');
}

export function PartsRow({
  view,
  parts,
  ended,
  onEnd,
}: {
  view: LaneView;
  parts: readonly Part[];
  ended: Ended | null;
  onEnd: (ended: Ended | null) => void;
}) {
  const at = useTimed((now) => partNow(view, now)?.index ?? -1);
  const working = parts[at];
  const words = working && partWords(working);
  useEffect(() => {
    if (words) speak(words);
  }, [words]);
  return (
    <div role="group" aria-label={say.floor.partsOfThisSet} className="mt-2 flex flex-wrap gap-2">
      {parts.map((part, i) => {
        const left = ended !== null && i > ended.index;
        return (
          <button
            // The parts of a set are told apart by their place alone.
            key={i}
            type="button"
            aria-pressed={ended?.index === i}
            aria-current={i === at ? 'step' : undefined}
            aria-label={say.floor.setEndedHere(partWords(part))}
            className={`btn target px-3 font-bold ${i === at ? 'now-mark' : ''} ${left ? 'quiet line-through' : ''}`}
            onClick={() => onEnd(ended?.index === i ? null : { index: i, count: part.count })}
          >
            {partWords(part)}
          </button>
        );
      })}
    </div>
  );
}
