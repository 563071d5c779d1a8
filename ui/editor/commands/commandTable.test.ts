import { expect, it } from 'vitest';
import { isSingle, keysShown } from './commandTable';

it.each([
  ['mod+shift+z', 'Ctrl Shift Z'],
  ['alt+left', 'Alt ←'],
  ['delete,backspace', 'Delete'],
  ['shift+slash', '?'],
  ['bracketleft', '['],
  ['i', 'I'],
])('%s is shown as %s', (keys, shown) => {
  expect(keysShown(keys)).toBe(shown);
});
it('only keys that a hand may strike by chance are single', () => {
  expect(['i', '1', 'shift+c', 'delete,backspace', 'mod+k', 'alt+left'].map(isSingle)).toEqual([
    true,
    true,
    true,
    true,
    false,
    false,
  ]);
});
