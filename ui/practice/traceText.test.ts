import { describe, expect, it } from 'vitest';
import { traceText } from './traceText';

const wave = (of: (x: number) => number): number[] => Array.from({ length: 401 }, (_, i) => of(i / 400));
const plain = (text: string): string => text.replaceAll('\u2212', '-');

describe('a trace in words', () => {
  it('tells its range, its ends and its peaks', () => {
    expect(plain(traceText(wave((x) => 5 * Math.sin(2 * Math.PI * 3 * x))))).toBe(
      '-5.0 to 5.0 volts, starts at 0.0, ends at 0.0, 3 peaks',
    );
    expect(plain(traceText(wave((x) => 8 * x)))).toBe('0.0 to 8.0 volts, starts at 0.0, ends at 8.0, 0 peaks');
  });
  it('tells steps by how long they rest, and what does not move as such', () => {
    expect(traceText(wave((x) => (x < 0.5 ? 0 : 5)))).toContain('still for up to 50 percent of the time');
    expect(traceText(wave(() => 2))).toBe('stands at 2.0 volts');
  });
  it('counts no peak that is too small to be seen', () => {
    expect(traceText(wave((x) => 10 * x + 0.1 * Math.sin(2 * Math.PI * 40 * x)))).toContain('0 peaks');
  });
});
