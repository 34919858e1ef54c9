/** Why a movement is swapped, as people say it. */
import type { SwapReason } from '@waxwing/core/ladder';

export const REASON_WORDS: Readonly<Record<SwapReason, string>> = {
  'too-hard': 'Too hard',
  'too-easy': 'Too easy',
  wobbly: 'Wobbly',
  pain: 'Pain',
  'no-kit': 'Kit is taken',
  'no-room': 'No room',
  bored: 'Something else',
};
