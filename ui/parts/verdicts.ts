import type { Verdict } from '@/core';
import { ink } from '@/ui/theme/tokens';

/** What a reading is called beside what was expected, and in which colour. */
export const VERDICTS: Readonly<Record<Verdict, { readonly text: string; readonly colour: string }>> = {
  good: { text: '✓ good', colour: ink.good },
  off: { text: '≈ off', colour: ink.warning },
  wrong: { text: '✗ wrong', colour: ink.error },
};
