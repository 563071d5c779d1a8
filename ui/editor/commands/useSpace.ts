import { useEffect } from 'react';
import { playOrStop } from '@/ui/session/hearing';

/** What a finger or the mouse left the focus on: it is not where somebody is with the keyboard. */
const BUTTONS = 'button, [role=button], [role=combobox], [role=tab], a';

/**
 * Space plays and stops also after a click, which leaves the focus on what was clicked. Where one came by keyboard it
 * stays the key of that very button.
 */
export function useSpace(on: boolean): void {
  useEffect(() => {
    if (!on) return undefined;
    let taken = false;
    // The last thing that somebody did was to point; the browser's own :focus-visible changes with the key itself.
    let pointed = false;
    const point = (): void => void (pointed = true);
    const down = (e: KeyboardEvent): void => {
      const { target } = e;
      if (e.code !== 'Space') {
        pointed = false;
        return;
      }
      // Answered already, by what stops the sound.
      if (e.defaultPrevented) return;
      if (!pointed || e.ctrlKey || e.metaKey || e.altKey || !(target instanceof Element)) return;
      if (!target.matches(BUTTONS) || target.closest('[role=dialog], [role=listbox], [role=menu]')) return;
      taken = true;
      e.preventDefault();
      e.stopPropagation();
      if (!e.repeat) playOrStop();
    };
    // The button would be pressed when the key is let go.
    const up = (e: KeyboardEvent): void => {
      if (e.code !== 'Space' || !taken) return;
      taken = false;
      e.preventDefault();
      e.stopPropagation();
    };
    window.addEventListener('pointerdown', point, true);
    window.addEventListener('keydown', down, true);
    window.addEventListener('keyup', up, true);
    return () => {
      window.removeEventListener('pointerdown', point, true);
      window.removeEventListener('keydown', down, true);
      window.removeEventListener('keyup', up, true);
    };
  }, [on]);
}
