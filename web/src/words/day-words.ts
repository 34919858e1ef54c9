/** How a day is mostly spent, in words. */
import type { DayKind } from '@waxwing/core/client';

export const DAY_WORDS: Readonly<Record<DayKind, string>> = {
  sits: 'sits',
  bends: 'bends or leans forward',
  lifts: 'lifts and carries',
  stands: 'stands or walks',
};
