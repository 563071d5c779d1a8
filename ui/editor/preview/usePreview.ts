import { useEffect, useId } from 'react';
import { useStore } from 'zustand';
import { dropPreview, holdPreview, hoverPreview, isPreviewed, leavePreview, previews } from '@/ui/session/previews';
import type { Preview } from '@/ui/session/previews';

/**
 * One preview, as all behave: hover and focus show it, a click holds it until the next click or Escape.
 *
 * @param make the patch as it would be; null where nothing can be shown.
 */
export function usePreview(make: () => Preview | null) {
  const key = useId();
  const held = useStore(previews, (s) => s.held?.key === key);
  const showing = useStore(previews, (s) => isPreviewed(s, key));
  useEffect(() => () => dropPreview(key), [key]);
  const enter = (): void => hoverPreview(key, make());
  const leave = (): void => leavePreview(key);
  return {
    held,
    showing,
    /** For the row that it belongs to. */
    area: { onPointerEnter: enter, onPointerLeave: leave },
    button: {
      'aria-pressed': held,
      onClick: () => holdPreview(key, make()),
      onFocus: enter,
      onBlur: leave,
    },
    /** Ended, as what it showed is applied. */
    end: () => dropPreview(key),
  };
}
