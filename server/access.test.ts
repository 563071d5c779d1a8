import { describe, expect, it } from 'vitest';
import { comesFromOwnPage, isOwn } from './access';
import { refusalOf } from './refusal';

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

describe('a write', () => {
  const from = (headers: Record<string, string>) =>
    comesFromOwnPage((name) => ({ host: '127.0.0.1:3210', ...headers })[name] ?? null);
  it('comes from an own page, or from none', () => {
    expect(from({})).toBe(true);
    expect(from({ 'sec-fetch-site': 'same-origin', referer: 'http://127.0.0.1:3210/patches/x' })).toBe(true);
    expect(from({ 'sec-fetch-site': 'none' })).toBe(true);
  });
  it('is refused from another site, though it sends no origin', () => {
    expect(from({ 'sec-fetch-site': 'cross-site' })).toBe(false);
    expect(from({ 'sec-fetch-site': 'same-site' })).toBe(false);
    expect(from({ referer: 'http://elsewhere.example/127.0.0.1:3210' })).toBe(false);
    expect(from({ referer: 'no address' })).toBe(false);
  });
});

describe('a first line', () => {
  it.each([
    ['TRACE', '/', 405],
    ['CONNECT', '127.0.0.1:1', 405],
    ['OPTIONS', '*', 400],
    ['GET', 'http://127.0.0.1/', 400],
    ['GET', '/patches/%E0%A4%A', 400],
    ['GET', '/patches/%00', 400],
    ['GET', `/${'a'.repeat(9000)}`, 414],
  ])('%s %s is refused', (method, url, status) => {
    expect(refusalOf(method, url)).toMatchObject({ status });
  });
  it('as a page sends it passes', () => {
    expect(refusalOf('GET', '/patches/lamp?x=%25')).toBeNull();
    expect(refusalOf('DELETE', '/api/patches/lamp')).toBeNull();
  });
});
