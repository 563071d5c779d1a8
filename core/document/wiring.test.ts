import { describe, expect, it } from 'vitest';
import { LIMITS } from './limits';
import { parsePatch } from './parse';

const modules = [
  { id: 'swell', kind: 'lfo' },
  { id: 'trim', kind: 'offset' },
  { id: 'blend', kind: 'mixer', params: { inputs: 2 } },
  { id: 'tone', kind: 'filter' },
];

/** What is said of a document with these parts, a line a fault. */
function said(parts: object): string[] {
  const result = parsePatch({ format: 'fenvo.patch', version: 1, modules, ...parts });
  return result.ok ? [] : result.errors.map((e) => `${e.path}: ${e.message}`);
}
const cable = (from: unknown, to: unknown) => ({ from, to });

describe('cables', () => {
  it.each([
    [cable('swell.out', 'trim.in'), []],
    [cable('swell.out', 'blend.in2'), []],
    [cable('swell.out', 'blend.in3'), ['cables[0].to: "in3" is not an input of blend; expected one of in1, in2']],
    [cable('trim.in', 'tone.cutoff'), ['cables[0].from: "in" is not an output of trim; expected one of out']],
    [cable('swell.out', 'trim.out'), ['cables[0].to: "out" is not an input of trim; expected one of in']],
    [cable('swell', 'trim.in'), ['cables[0].from: must be moduleId.socketName, got "swell"']],
    [cable('swell.out.left', 'trim.in'), ['cables[0].from: must be moduleId.socketName, got "swell.out.left"']],
    [cable('nobody.out', 'trim.in'), ['cables[0].from: there is no module "nobody"']],
    [cable(7, 'trim.in'), ['cables[0].from: must be text, got 7']],
    [cable('swell.out', null), ['cables[0].to: must be text, got null']],
    [{ ...cable('swell.out', 'trim.in'), colour: 'red' }, ['cables[0].colour: unknown key']],
  ])('%j', (one, errors) => {
    expect(said({ cables: [one] }).map((e, i) => e.slice(0, errors[i]?.length ?? 200))).toEqual(errors);
  });
  it('that is no cable at all is told as that first', () => {
    expect(said({ cables: ['swell.out > trim.in'] })[0]).toBe(
      'cables[0]: must be an object, got "swell.out > trim.in"',
    );
  });
  it('a second into one input is named, the first stands', () => {
    const twice = [cable('swell.out', 'trim.in'), cable('swell.out', 'tone.cutoff'), cable('blend.out', 'trim.in')];
    expect(said({ cables: twice })).toEqual([
      'cables[2].to: trim.in already has a cable; an input takes one (add a mixer or a junction)',
    ]);
  });
  it('more than are allowed are refused as a list, not one by one', () => {
    const many = Array.from({ length: LIMITS.cables + 1 }, () => cable('swell.out', 'trim.in'));
    expect(said({ cables: many })[0]).toMatch(/^cables: .*/);
    expect(said({ cables: { 0: cable('swell.out', 'trim.in') } })[0]).toMatch(/^cables: must be a list/);
  });
});

describe('normals', () => {
  it.each([
    [{ to: 'trim.in', volts: 5 }, null],
    [{ to: 'trim.in', from: 'swell.out' }, null],
    [{ to: 'trim.in', from: 'tone.cutoff', brokenBy: 'source' }, null],
    [{ to: 'trim.in', volts: 25 }, 'normals[0].volts: must be between -24 and 24, got 25'],
    [{ to: 'trim.in' }, 'normals[0].volts: must be a finite number, got nothing'],
    [{ to: 'trim.in', from: 'swell.out', volts: 5 }, 'normals[0].volts: unknown key'],
    [{ to: 'trim.in', from: 'swell.out', brokenBy: 'me' }, 'normals[0].brokenBy: must be one of "source", got "me"'],
    [{ to: 'trim.out', volts: 5 }, 'normals[0].to: "out" is not an input of trim'],
    [{ to: 'trim.in', from: 'swell.in' }, 'normals[0].from: "in" is not a socket of swell'],
  ])('%j', (one, error) => {
    const errors = said({ normals: [one] });
    if (error === null) expect(errors).toEqual([]);
    else expect(errors[0]).toMatch(new RegExp(`^${error.replace(/[[\].-]/g, '\\$&')}`));
  });
  it('two of one input are refused', () => {
    const both = [
      { to: 'trim.in', volts: 5 },
      { to: 'trim.in', from: 'swell.out' },
    ];
    expect(said({ normals: both })).toEqual(['normals[1].to: trim.in already has a normal']);
  });
});

describe('what else speaks of sockets and modules', () => {
  it.each([
    [{ probes: [{ at: 'trim.out' }, { at: 'tone.cutoff', label: 'Drive' }] }, null],
    [{ probes: [{ at: 'trim.up' }] }, 'probes[0].at: "up" is not a socket of trim'],
    [{ probes: [{ at: 'trim.out', label: 'x'.repeat(LIMITS.label + 1) }] }, 'probes[0].label: '],
    [{ order: ['swell', 'tone'] }, null],
    [{ order: ['swell', 'gone'] }, 'order[1]: there is no module "gone"'],
    [{ bypassed: [{ module: 'trim', cables: [] }] }, null],
    [{ bypassed: [{ module: 'trim', cables: [cable('swell.out', 'trim.in')] }] }, null],
    [{ bypassed: [{ module: 'gone', cables: [] }] }, 'bypassed[0].module: there is no module "gone"'],
    [
      { bypassed: [{ module: 'trim', cables: [cable('swell.out', 'gone.in')] }] },
      'bypassed[0].cables[0].to: there is no module "gone"',
    ],
    [{ dismissed: [{ code: 'clip', at: 'trim.out', reason: 'on purpose' }] }, null],
    [{ dismissed: [{ code: 'clip', at: 'trim.out', reason: 3 }] }, 'dismissed[0].reason: must be text, got 3'],
  ])('%j', (parts, error) => {
    const errors = said(parts);
    if (error === null) expect(errors).toEqual([]);
    else expect(errors[0]?.slice(0, error.length)).toBe(error);
  });
  it('every fault is told at once, each at its own place', () => {
    const errors = said({
      cables: [cable('swell.up', 'trim.in'), cable('swell.out', 'gone.in')],
      normals: [{ to: 'tone.nowhere', volts: 99 }],
      probes: [{ at: 'no.way' }],
      order: ['nobody'],
    });
    expect(errors.map((e) => e.split(':')[0])).toEqual([
      'cables[0].from',
      'cables[1].to',
      'normals[0].to',
      'normals[0].volts',
      'probes[0].at',
      'order[0]',
    ]);
  });
});
