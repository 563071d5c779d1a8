import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { holdKeys, takeKeys } from './typeahead';

/** A key as the window hears it; answers whether anybody else would have got it. */
function press(key: string, held: { ctrlKey?: boolean; metaKey?: boolean; altKey?: boolean } = {}): boolean {
  const event = Object.assign(new Event('keydown', { cancelable: true }), {
    key,
    ctrlKey: false,
    metaKey: false,
    altKey: false,
    ...held,
  });
  window.dispatchEvent(event);
  return !event.defaultPrevented;
}

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('window', new EventTarget());
});
afterEach(() => {
  takeKeys();
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

describe('keys typed before their list is there', () => {
  it('are kept for it, corrections and all, and are no keys of the desk', () => {
    holdKeys();
    expect(['r', 'e', 'x', 'Backspace', 'c', ' '].map((k) => press(k))).toEqual(Array(6).fill(false));
    expect(takeKeys()).toBe('rec ');
    expect(press('x')).toBe(true);
    expect(takeKeys()).toBe('');
  });
  it('arrows, Escape and what is pressed with Ctrl, Alt or Meta go where they always go', () => {
    holdKeys();
    for (const key of ['ArrowDown', 'Escape', 'Tab', 'Enter']) expect(press(key)).toBe(true);
    for (const held of [{ ctrlKey: true }, { altKey: true }, { metaKey: true }]) expect(press('z', held)).toBe(true);
    expect(takeKeys()).toBe('');
  });
  it('belong to the desk again where the list never comes', () => {
    holdKeys();
    press('a');
    vi.advanceTimersByTime(3001);
    expect(press('b')).toBe(true);
    expect(takeKeys()).toBe('');
  });
  it('asked for twice, only the second list’s are kept', () => {
    holdKeys();
    press('a');
    holdKeys();
    press('b');
    expect(takeKeys()).toBe('b');
  });
});
