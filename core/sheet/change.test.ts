import { describe, expect, it } from 'vitest';
import { completeParams, existing } from '../document/params';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { idOf } from '../document/sockets';
import type { Cable, Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { kindNamed } from '../kinds';
import type { ParamValue } from '../kinds/params';
import { editedPatches } from '../testing/edits';
import { patchOf } from '../testing/patch';
import { changeOf } from './change';
import type { ChangeStep } from './change';

const a = patchOf(
  {
    swell: ['lfo', { rateHz: 0.25 }],
    trim: ['attenuverter', { amount: 0.5 }],
    lift: ['offset', { volts: 2 }],
    tone: ['oscillator'],
    fog: ['filter'],
    out: ['lineOut'],
  },
  ['swell.out > trim.in', 'trim.out > lift.in', 'lift.out > fog.cutoff', 'tone.saw > fog.in', 'fog.lowpass > out.left'],
  { duration: 4, sampleRate: 1000 },
);
const kindsOf = (steps: readonly ChangeStep[]): string[] => steps.map((s) => s.id);

describe('a change sheet', () => {
  it('from a patch to itself has no steps', () => {
    expect(changeOf(a, a).steps).toEqual([]);
  });
  it('of a knob names that knob, and measures its stage as it stands then', () => {
    const b = applyEdits(a, [{ do: 'set', module: 'trim', param: 'amount', value: -0.2 }]);
    const { steps } = changeOf(a, b);
    expect(kindsOf(steps)).toEqual(['set-trim', 'measure-trim.out']);
    const [set, measure] = steps;
    expect(set!.do === 'set' && set!.knobs.map((k) => [k.param, k.value])).toEqual([['amount', -0.2]]);
    expect(measure!.do === 'measure' && measure!.expect.meter.find((r) => r.quantity === 'high')!.value).toBeCloseTo(
      1,
      2,
    );
  });
  it('of cables turns levels down first, pulls before it plugs, and turns levels up last', () => {
    const b = applyEdits(a, [
      { do: 'add', module: { id: 'slew', kind: 'slew', params: { rise: 0.5 } } },
      { do: 'plug', cable: { from: 'trim.out', to: 'slew.in' } },
      { do: 'plug', cable: { from: 'slew.out', to: 'fog.cutoff' } },
      { do: 'set', module: 'swell', param: 'rateHz', value: 0.5 },
    ]);
    const ids = kindsOf(changeOf(a, b).steps);
    expect(ids[0]).toBe('note-levels-down');
    expect(ids.at(-1)).toBe('note-levels-up');
    expect(ids.indexOf('unplug-lift.out-fog.cutoff')).toBeLessThan(ids.indexOf('plug-slew.out-fog.cutoff'));
    expect(ids.indexOf('set-swell')).toBeLessThan(ids.indexOf('measure-swell.out'));
    expect(ids.indexOf('set-slew')).toBeLessThan(ids.indexOf('plug-trim.out-slew.in'));
    // A new module is set whole.
    const set = changeOf(a, b).steps.find((s) => s.id === 'set-slew')!;
    expect(set.do === 'set' && set.knobs.length + set.setup.length).toBeGreaterThan(3);
    // Trim to lift stays.
    expect(ids.filter((id) => id.includes('trim.out-lift.in'))).toEqual([]);
  });
  it('knows a module by its channel, whatever it is called', () => {
    const seat = (p: Patch, id: string): Patch => ({
      ...p,
      modules: p.modules.map((m) => (m.id === id ? { ...m, rack: 'quad/a' } : m)),
    });
    const renamed = parsePatch(JSON.parse(JSON.stringify(printPatch(seat(a, 'trim'))).replaceAll('trim', 'press')));
    if (!renamed.ok) throw new Error(JSON.stringify(renamed.errors));
    expect(changeOf(seat(a, 'trim'), renamed.value).steps).toEqual([]);
    expect(changeOf(a, renamed.value).steps.length).toBeGreaterThan(0);
  });
  it('says what goes back to its default', () => {
    const sine = applyEdits(a, [{ do: 'set', module: 'swell', param: 'shape', value: 'sine' }]);
    const [set] = changeOf(sine, a).steps;
    expect(set!.text).toContain('triangle');
  });
  it('leads from any patch to any other, with no cable touched that is in both', () => {
    let checked = 0;
    for (let seed = 1; seed <= 12; seed++) {
      const states = [...editedPatches(seed, 8)];
      const [from, to] = [states[0]!, states.at(-1)!];
      const { steps } = changeOf(from, to);
      const stood = followed(from, steps);
      expect(stood.cables).toEqual(cablesOf(to));
      for (const m of to.modules) {
        const kind = kindNamed(m.kind);
        if (!kind || Object.keys(kind.params).length === 0) continue;
        const all = existing(kind, completeParams(kind, m.params, to.settings.bpm));
        const settled = stood.params.get(m.id) ?? {};
        for (const [name, value] of Object.entries(all)) {
          expect(settled[name], `${m.id}.${name}`).toEqual(value);
          checked++;
        }
      }
      const moves = steps.filter((s) => s.do === 'plug' || s.do === 'unplug').length;
      const both = from.cables.filter((c) => cablesOf(to).includes(text(c)) && sameKind(from, to, c)).length;
      expect(moves).toBe(from.cables.length + to.cables.length - 2 * both);
    }
    expect(checked).toBeGreaterThan(100);
  });
});

const text = (c: Cable): string => `${c.from} > ${c.to}`;
const cablesOf = (p: Patch): string[] => p.cables.map(text).toSorted();
const sameKind = (from: Patch, to: Patch, c: Cable): boolean =>
  [c.from, c.to].every((s) => {
    const [m, n] = [from, to].map((p) => p.modules.find((x) => x.id === idOf(s)));
    return m !== undefined && m.kind === n?.kind;
  });

/** Does the steps at a rack where the first patch stands. */
function followed(from: Patch, steps: readonly ChangeStep[]) {
  const cables = new Set(cablesOf(from));
  const params = new Map<string, Record<string, ParamValue>>();
  for (const m of from.modules) {
    const kind = kindNamed(m.kind);
    if (kind) params.set(m.id, { ...existing(kind, completeParams(kind, m.params, from.settings.bpm)) });
  }
  for (const step of steps) {
    if (step.do === 'unplug') expect(cables.delete(text(step.cable)), step.id).toBe(true);
    if (step.do === 'plug') {
      expect(
        [...cables].some((c) => c.endsWith(` > ${step.cable.to}`)),
        step.id,
      ).toBe(false);
      cables.add(text(step.cable));
    }
    if (step.do === 'set') {
      const known = params.get(step.module) ?? {};
      for (const { param, value } of [...step.knobs, ...step.setup]) known[param] = value;
      params.set(step.module, known);
    }
  }
  return { cables: [...cables].toSorted(), params };
}
