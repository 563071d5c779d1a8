import type { Severity } from '@/core';
import { ink } from '@/ui/theme/tokens';

/** `1 difference`, `2 differences`. */
export const counted = (count: number, what: string, many = `${what}s`): string =>
  `${count} ${count === 1 ? what : many}`;

/** The worst of what is said, counted: `1 error`, `2 info`; null where there is nothing to say. */
export function worstText(counts: Readonly<Record<Severity, number>>): { text: string; colour: string } | null {
  for (const [severity, colour] of [
    ['error', ink.error],
    ['warning', ink.warning],
    ['note', ink.softInk],
  ] as const) {
    if (counts[severity] > 0)
      return { text: severity === 'note' ? `${counts.note} info` : counted(counts[severity], severity), colour };
  }
  return null;
}
