import { auditioned, heardAlone } from '@/core';
import type { Patch } from '@/core';
import { audition } from '@/ui/session/audition';
import type { Auditioned } from '@/ui/session/audition';
import { listenedTo } from './listened';
import type { Listened } from './listened';
import type { LiveState } from './liveState';
import type { Sound } from './sound';

/** How a state of a patch is heard; null where nothing of it can be. @param free knobs in a hand's own power. */
export function asHeard(
  shown: Patch,
  end: string | null,
  { choice, alone }: Pick<LiveState, 'choice' | 'alone'>,
  free: ReadonlySet<string>,
): Listened | null {
  const { right, tone, resting, ...off } = audition.getState();
  const isFree = (at: string): boolean => free.has(at) || resting.has(at);
  const patch = shown.hands.some((h) => isFree(h.at))
    ? { ...shown, hands: shown.hands.filter((h) => !isFree(h.at)) }
    : shown;
  const listened = listenedTo(patch, end, choice);
  if (!listened) return null;
  const ears = right !== '' ? { ...listened.ears, right } : listened.ears;
  const heard = auditioned(listened.patch, patch, off);
  return { ...listened, ears, patch: alone ? heardAlone(heard, ears, tone === '' ? [] : [tone]) : heard };
}

/**
 * Tells a sound thread what is heard beside the patch, where that has changed.
 *
 * @param before what it was told; left out: nothing. @param records a take runs on past the end of a loop.
 */
export function tellAuditioned(sound: Sound, records: boolean, before?: Auditioned): void {
  const now = audition.getState();
  const { balance, tone, loop } = now;
  if (before?.balance !== balance) sound.setBalance(balance);
  if (before?.tone !== tone) sound.setTone(tone === '' ? null : tone);
  if (before?.loop !== loop) sound.setLoop(loop.on && !records ? [loop.from, loop.to] : null);
}

/** Whether a patch is wired or heard otherwise by a change. */
export const isWiredOtherwise = (a: Auditioned, b: Auditioned): boolean =>
  (['muted', 'soloed', 'right', 'tone', 'resting'] as const).some((key) => a[key] !== b[key]);
