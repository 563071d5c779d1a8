/** A thing to do in the editor, for its key, the palette and the help. */
export interface Command {
  readonly id: string;
  readonly title: string;
  /** As react-hotkeys-hook writes it, several between commas; left out: only found by typing. */
  readonly keys?: string;
  /** Whether it can be done now. */
  readonly can: boolean;
  /** Why it cannot be done now. */
  readonly why?: string;
  run(): void;
}

const PEOPLE: Readonly<Record<string, string>> = {
  mod: 'Ctrl',
  alt: 'Alt',
  shift: 'Shift',
  left: '←',
  right: '→',
  up: '↑',
  down: '↓',
  bracketleft: '[',
  bracketright: ']',
  slash: '?',
  space: 'Space',
  delete: 'Delete',
};

/** `mod+shift+z` as people read it: `Ctrl Shift Z`; of several, the first. */
export const keysShown = (keys: string): string =>
  (keys.split(',')[0] ?? '')
    .trim()
    .split('+')
    .filter((key, _i, all) => !(key === 'shift' && all.includes('slash')))
    .map((key) => PEOPLE[key] ?? key.toUpperCase())
    .join(' ');

/** Keys that are one letter or sign: they can be switched off. */
export const isSingle = (keys: string): boolean => !/(mod|alt|ctrl)/.test(keys);
