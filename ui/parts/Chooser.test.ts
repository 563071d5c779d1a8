import { describe, expect, it } from 'vitest';
import { found } from './Chooser';
import type { Choice } from './Chooser';

const choice = (key: string, title: string, says: string, group: string): Choice => ({ key, title, says, group });

describe('what fits the words typed', () => {
  const choices = [
    choice('end6', 'Show Tone 6, cutoff', '7', 'Commands'),
    choice('end7', 'Show Tone 7, cutoff', '8', 'Commands'),
    choice('tone7', 'Tone 7', 'Filter', 'Stages'),
    choice('slew', 'Smooths', 'Slew limiter', 'Insert'),
  ];
  it('begins with titles that hold them as they stand', () => {
    expect(found(choices, 'tone 7').map((c) => c.key)).toEqual(['end7', 'end6', 'tone7']);
  });
  it('finds a stage by what it does and by its name, in any case', () => {
    expect(found(choices, 'SMOOTH').map((c) => c.key)).toEqual(['slew']);
    expect(found(choices, 'limiter').map((c) => c.key)).toEqual(['slew']);
    expect(found(choices, 'no such thing')).toEqual([]);
  });
  it('keeps groups together', () => {
    const groups = found(choices, '').map((c) => c.group);
    expect(groups.filter((g, i) => g !== groups[i - 1])).toHaveLength(3);
  });
});
