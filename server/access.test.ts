import { describe, expect, it } from 'vitest';
import { isOwn } from './access';

describe('who may call', () => {
  it.each([
    ['127.0.0.1:3210', null],
    ['localhost:3210', null],
    ['[::1]:3210', null],
    ['127.0.0.1:3210', 'http://127.0.0.1:3210'],
    ['localhost:3210', 'http://localhost:3210'],
  ])('%s from %s', (host, origin) => expect(isOwn(host, origin, '3210')).toBe(true));

  it.each([
    [null, null],
    ['', null],
    ['elsewhere.example:3210', null],
    ['127.0.0.1.elsewhere.example:3210', null],
    ['127.0.0.1:9999', null],
    ['127.0.0.1:3210', 'null'],
    ['127.0.0.1:3210', 'http://elsewhere.example'],
    ['127.0.0.1:3210', 'https://127.0.0.1:3210'],
    ['127.0.0.1:3210', 'http://localhost:3210'],
    ['127.0.0.1:3210', 'http://127.0.0.1:9999'],
  ])('not %s from %s', (host, origin) => expect(isOwn(host, origin, '3210')).toBe(false));

  it('further names only where they are set', () => {
    expect(isOwn('studio.lan', 'https://studio.lan', '3210')).toBe(false);
    expect(isOwn('studio.lan', 'https://studio.lan', '3210', 'studio.lan')).toBe(true);
    expect(isOwn('other.lan', null, '3210', 'studio.lan')).toBe(false);
  });
});
