import { describe, expect, it } from 'vitest';
import { LEAST_DRAWS } from '../core';
import { parseArguments, Refusal, SHEET_FORMATS } from './arguments';

/** The error message, or null. */
function refused(command: string, ...argv: string[]): string | null {
  try {
    parseArguments(command, argv);
    return null;
  } catch (error) {
    expect(error).toBeInstanceOf(Refusal);
    return (error as Refusal).lines.join('\n');
  }
}

describe('the words after a command', () => {
  it('are files, wherever options stand among them', () => {
    expect(parseArguments('simulate', ['--probe', 'a.out', 'one.json', '--probe', 'b.out'])).toMatchObject({
      files: ['one.json'],
      probes: ['a.out', 'b.out'],
    });
    expect(parseArguments('check', ['one.json', '-', 'two.json']).files).toEqual(['one.json', '-', 'two.json']);
    expect(parseArguments('check', ['--', '--odd.json']).files).toEqual(['--odd.json']);
  });
  it('left out mean what is usual', () => {
    expect(parseArguments('predict', ['a'])).toEqual({
      files: ['a'],
      simulation: true,
      probes: [],
      csv: null,
      wav: null,
      free: null,
      jumpers: false,
      rounded: false,
      draws: null,
      format: 'json',
      out: null,
      at: 'middle',
      seed: 1,
      faults: [],
      ideal: false,
      steps: false,
      asMeasured: false,
      list: false,
      skill: null,
      level: 1,
      read: null,
      answer: null,
    });
    expect(parseArguments('predict', ['a', '--no-simulation']).simulation).toBe(false);
    expect(parseArguments('solve', ['a', '--free', 'm.gain1', '--jumpers', '--rounded'])).toMatchObject({
      free: ['m.gain1'],
      jumpers: true,
      rounded: true,
    });
  });
  it.each([
    ['predict', ['--wings'], 'predict has no option --wings'],
    ['predict', ['--csv', 'x'], 'predict has no option --csv'],
    ['check', ['--out', 'x'], 'check has no option --out'],
    ['simulate', ['--probe'], '--probe needs a value'],
    ['sheet', ['--format', 'doc'], `--format must be one of ${SHEET_FORMATS.join(', ')}, got doc`],
    ['simulate', ['a', 'b', '--csv', 'x'], '--csv and --wav take one patch at a time'],
    ['simulate', ['a', 'b', '--wav', 'x'], '--csv and --wav take one patch at a time'],
  ])('%s %j is refused in its own words', (command, argv, words) => {
    expect(refused(command, ...argv)).toBe(words);
  });
  it.each([
    [String(LEAST_DRAWS), true],
    [String(LEAST_DRAWS - 1), false],
    ['100000', true],
    ['100001', false],
    ['1e4', true],
    ['600.5', false],
    ['many', false],
    ['', false],
    ['-700', false],
  ])('draws of %j: %s', (text, taken) => {
    const said = refused('tolerance', `--draws=${text}`);
    if (taken) expect(parseArguments('tolerance', [`--draws=${text}`]).draws).toBe(Number(text));
    else expect(said).toBe(`--draws must be a whole number between ${LEAST_DRAWS} and 100000, got ${text}`);
  });
  it.each(SHEET_FORMATS)('a sheet may be %s', (format) => {
    expect(parseArguments('sheet', ['a', '--format', format, '--out', 'x'])).toMatchObject({ format, out: 'x' });
  });
});
