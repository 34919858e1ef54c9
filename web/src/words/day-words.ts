/** How a day is mostly spent, in words. */
import type { DayKind } from '@waxwing/core/client';

import { say } from './say';

export const DAY_WORDS: Readonly<Record<DayKind, string>> = say.people.dayWords;
