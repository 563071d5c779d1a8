import { beforeEach, describe, expect, it } from 'vitest';
import { blank } from '@/core';
import {
  dropPreview,
  endPreviews,
  holdPreview,
  hoverPreview,
  isPreviewed,
  leavePreview,
  offerPreview,
  previews,
  shownPreview,
} from './previews';

const patch = (name: string) => ({ patch: { ...blank, name } });
const shown = (): string | undefined => shownPreview(previews.getState())?.patch.name;

describe('previews', () => {
  beforeEach(() => void endPreviews());
  it('are shown while the pointer is there, and no longer', () => {
    hoverPreview('a', patch('a'));
    expect(shown()).toBe('a');
    leavePreview('b');
    expect(shown()).toBe('a');
    leavePreview('a');
    expect(shown()).toBeUndefined();
  });
  it('stay once clicked, until clicked again; another under the pointer is shown meanwhile', () => {
    holdPreview('a', patch('a'));
    hoverPreview('b', patch('b'));
    expect([shown(), isPreviewed(previews.getState(), 'b')]).toEqual(['b', true]);
    leavePreview('b');
    expect(shown()).toBe('a');
    holdPreview('a', patch('a'));
    expect(shown()).toBeUndefined();
  });
  it('one that is held gives way to the next', () => {
    holdPreview('a', patch('a'));
    holdPreview('b', patch('b'));
    expect(shown()).toBe('b');
    expect(isPreviewed(previews.getState(), 'a')).toBe(false);
  });
  it('end together, and with what they belong to', () => {
    holdPreview('a', patch('a'));
    offerPreview(patch('choice'));
    expect(shown()).toBe('choice');
    offerPreview(null);
    dropPreview('a');
    expect(shown()).toBeUndefined();
    expect(endPreviews()).toBe(false);
    hoverPreview('a', patch('a'));
    expect(endPreviews()).toBe(true);
  });
});
