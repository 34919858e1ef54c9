/** The reps of a reading by how much there is to mend in them, the most first. */
import type { Reading, SeenRep } from '@waxwing/core/sight';

/** What was seen in it counts most; then how far it is from where the clean one turns. */
function offness({ answers, clean }: Reading, rep: SeenRep, i: number): number {
  const seen = answers.filter((answer) => answer.seen.includes(i)).length;
  const short = clean.rep ? Math.abs(rep.reach - clean.rep.reach) / 180 : 0;
  return seen + (Number.isNaN(short) ? 0 : short);
}

export const rankedReps = (reading: Reading): { rep: SeenRep; i: number; off: number }[] =>
  reading.reps.map((rep, i) => ({ rep, i, off: offness(reading, rep, i) })).toSorted((a, b) => b.off - a.off);
