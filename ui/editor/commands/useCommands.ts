import { useHotkeys } from 'react-hotkeys-hook';
import { useStore } from 'zustand';
import { settings } from '@/ui/parts/settings';
import { sayWhyNot } from '@/ui/session/hint';
import { isSingle } from './commandTable';
import type { Command } from './commandTable';
import { deskCommands } from './deskCommands';
import { entriesOf } from './entries';
import type { Given } from './given';
import type { PaletteEntry } from './Palette';
import { pathCommands } from './pathCommands';
import { stageCommands } from './stageCommands';
import { useSpace } from './useSpace';

/** A key by itself at a knob or a handle is the knob's. */
const isTurn = ({ target, ctrlKey, metaKey, altKey }: KeyboardEvent): boolean =>
  (target as Element).getAttribute('role') === 'slider' && !ctrlKey && !metaKey && !altKey;

/** A key in a field is a letter there; a slider takes none. */
const isWritten = ({ target }: KeyboardEvent): boolean => target instanceof HTMLInputElement && target.type !== 'range';

/** What a knob, a cursor or a dialog has answered is not for the editor; what it did can be undone from there. */
const options = {
  enableOnFormTags: ['slider', 'input'] as const,
  ignoreEventWhen: (e: KeyboardEvent) =>
    e.defaultPrevented || isWritten(e) || isTurn(e) || (e.target as Element).closest('[role=dialog]') !== null,
};

/** What can be done in the editor right now, with its keys bound; and all of it as entries to be found by typing. */
export function useCommands(given: Given): { list(): readonly Command[]; entries(): readonly PaletteEntry[] } {
  const singleKeys = useStore(settings, (s) => s.singleKeys);
  useSpace(singleKeys);
  // Made anew whenever it is asked for, so that it speaks of the editor as it is.
  const list = (): Command[] => [...stageCommands(given), ...pathCommands(given), ...deskCommands(given)];
  const bound = list().flatMap((c) => (c.keys && (singleKeys || !isSingle(c.keys)) ? [c.keys] : []));
  useHotkeys(
    bound.join(','),
    (event, { hotkey }) => {
      const command = list().find((c) => c.keys?.split(',').includes(hotkey));
      if (!command) return;
      event.preventDefault();
      if (command.can) command.run();
      else sayWhyNot(command.why ?? 'Not available right now.');
    },
    options,
  );
  return { list, entries: () => entriesOf(given, list()) };
}
