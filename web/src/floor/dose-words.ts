/** A dose in a few words: `8 × 12 kg`, `30 s`, `10 reps`. */
import { type DoseMode, UNIT_WORDS } from '@waxwing/core/movement';
import type { PlanLane } from '@waxwing/core/planning';

export const doseWords = ({ amount, load }: Pick<PlanLane, 'amount' | 'load'>, mode: DoseMode): string =>
  `${amount}${mode === 'reps' && load ? '' : ` ${UNIT_WORDS[mode]}`}${load ? ` × ${load.label}` : ''}`;
