import { describe, expect, it } from 'vitest';
import { parseRack } from '../document/rack';
import type { Patch } from '../document/types';
import { parsePatch } from '../document/parse';
import { predict } from '../answers/predict';
import { tolerance } from '../answers/tolerance';
import { printPatch } from '../document/print';
import { printRack } from '../document/printRack';
import type { Edit } from '../edit/edit';
import { applyEdits } from '../edit/edit';
import { asMeasured } from '../rack/asMeasured';
import { solve } from '../testing/unhurried';
import { calibrate, withMeasured } from './calibrate';
import type { Calibration } from './calibrate';
import { parseLog } from './log';
import type { BenchLog, LogSession } from './log';
import { quantitiesAt } from './readings';
import { SimulatedRack } from './simulated';
import { drawnTraits, traitsOf } from './truths';
import { channelLimits } from '../rack/limits';

const rack = (() => {
  const read = parseRack({
    format: 'fenvo.rack',
    version: 1,
    name: 'Pier rack',
    modules: [
      { id: 'swells', channels: [{ id: 'a', kind: 'lfo' }] },
      {
        id: 'scale',
        channels: [
          { id: 'a', kind: 'offset' },
          { id: 'b', kind: 'attenuverter' },
        ],
      },
      { id: 'fader', channels: [{ id: 'a', kind: 'constant' }] },
      { id: 'lag', channels: [{ id: 'a', kind: 'slew' }] },
      { id: 'amp', channels: [{ id: 'a', kind: 'vca' }] },
      { id: 'tone', channels: [{ id: 'a', kind: 'oscillator' }] },
    ],
  });
  if (!read.ok) throw new Error(JSON.stringify(read.errors));
  return read.value;
})();

/** Sessions at a simulated rack: knobs stand elsewhere from one to the next, as they do over a season. */
function patchOf(n: number): Patch {
  const amount = [0.4, -0.6, 0.9, 0.1][n % 4];
  const volts = [2, -1, 0.5, 3][n % 4];
  const read = parsePatch({
    format: 'fenvo.patch',
    version: 1,
    name: `Night ${n}`,
    settings: { duration: 2 },
    modules: [
      { id: 'swell', kind: 'lfo', rack: 'swells/a', params: { rateHz: 1 + 0.5 * (n % 3) } },
      { id: 'trim', kind: 'offset', rack: 'scale/a', params: { amount, volts } },
      { id: 'flip', kind: 'attenuverter', rack: 'scale/b', params: { amount: volts! / 4 } },
      { id: 'hand', kind: 'constant', rack: 'fader/a', params: { volts: 1 + (n % 4) } },
      { id: 'glide', kind: 'slew', rack: 'lag/a', params: { rise: 1 + n, fall: 1 + n } },
      { id: 'amp', kind: 'vca', rack: 'amp/a', params: { cvAmount: 0.5 + 0.1 * (n % 4) } },
      ...(n === 0 ? [{ id: 'tone', kind: 'oscillator', rack: 'tone/a', params: { baseHz: 110 } }] : []),
    ],
    cables: [
      { from: 'swell.out', to: 'trim.in' },
      { from: 'hand.out', to: 'flip.in' },
      { from: 'swell.pulse', to: 'glide.in' },
      { from: 'trim.out', to: 'amp.in' },
      { from: 'hand.out', to: 'amp.cv' },
      ...(n === 0 ? [{ from: 'hand.out', to: 'tone.pitch' }] : []),
    ],
  });
  if (!read.ok) throw new Error(JSON.stringify(read.errors));
  return read.value;
}

const READ = ['swell.out', 'trim.out', 'hand.out', 'flip.out', 'glide.out', 'amp.out', 'tone.sine'];

function readingsOf(patch: Patch, seed: number): LogSession['readings'] {
  const meter = new SimulatedRack(patch, { seed, channels: channelLimits(patch, rack) });
  const there = READ.filter((at) => patch.modules.some((m) => at.startsWith(`${m.id}.`)));
  const places = there.flatMap((at) => quantitiesAt(patch, at).map((quantity) => ({ at, quantity, knobs: [] })));
  return meter.readAll(places).map((value, i) => ({ ...places[i]!, value }));
}

function logOf(seed: number, sessions: number): BenchLog {
  return {
    format: 'fenvo.log',
    version: 1,
    sessions: Array.from({ length: sessions }, (_, n): LogSession => {
      const patch = patchOf(n);
      return {
        id: `s${n}`,
        started: `2026-03-0${n + 1}T20:00`,
        patch,
        rack: 'Pier rack',
        assignment: patch.modules.map((m) => ({ module: m.id, rack: m.rack! })),
        readings: readingsOf(patch, seed),
      };
    }),
  };
}

/** What is learned of a simulated rack from its sessions, worked out once. */
const learned = new Map<number, Calibration>();
function learnedOf(seed: number): Calibration {
  const found = learned.get(seed) ?? calibrate(rack, logOf(seed, 4));
  learned.set(seed, found);
  return found;
}

const truthsOf = (patch: Patch, channel: string, seed: number): Map<string, number> => {
  const m = patch.modules.find((x) => x.rack === channel)!;
  return drawnTraits(m, traitsOf(m, 120, channelLimits(patch, rack)), seed);
};

describe('calibrating', () => {
  it('finds the true scales of simulated racks within three standard errors', () => {
    let [told, within] = [0, 0];
    for (let seed = 1; seed <= 2; seed++) {
      const found = learnedOf(seed);
      expect(found.rms.after).toBeLessThan(found.rms.before / 5);
      for (const { rack: channel, parameter, value, error } of found.channels) {
        told++;
        const truth = truthsOf(patchOf(0), channel, seed).get(parameter)!;
        if (Math.abs(value - truth) <= 3 * error) within++;
      }
    }
    expect(within / told).toBeGreaterThan(0.95);
    expect(told).toBeGreaterThan(12);
  });

  it('tells two that point the same way together only', () => {
    const found = learnedOf(1);
    const why = (channel: string, parameter: string): string | undefined =>
      found.untold.find((u) => u.rack === channel && u.parameter === parameter)?.why;
    expect(why('scale/a', 'offsetVolts')).toContain('pointer.volts');
    expect(why('scale/a', 'pointer.volts')).toContain('offsetVolts');
    const joint = found.joint.find((j) => j.rack === 'scale/a')!;
    expect(joint).toMatchObject({ parameters: ['offsetVolts', 'pointer.volts'], unit: 'V' });
    const truths = truthsOf(patchOf(0), 'scale/a', 1);
    // A percent of a knob from −5 to 5 V is 0.1 V, before its gain.
    const volts = truths.get('offsetVolts')! + 0.1 * truths.get('pointer.volts')!;
    expect(Math.abs(joint.value - volts)).toBeLessThan(3 * joint.error + 0.01);
    expect(found.rack.modules.find((m) => m.id === 'scale')!.channels[0]!.measured).not.toHaveProperty('offsetVolts');
  });

  it('guesses nothing where nothing was read', () => {
    const {
      channels,
      untold,
      joint,
      rms,
      rack: same,
    } = calibrate(rack, { format: 'fenvo.log', version: 1, sessions: [] });
    expect([channels, joint, same]).toEqual([[], [], rack]);
    // Every channel of the rack is told of, if only that nobody played it.
    expect(new Set(untold.map((u) => u.rack)).size).toBe(7);
    expect(untold.every((u) => u.why === 'No session used this channel.')).toBe(true);
    expect(rms).toEqual({ before: 0, after: 0, unit: 'sigma' });
    const unread = calibrate(rack, {
      format: 'fenvo.log',
      version: 1,
      sessions: logOf(1, 1).sessions.map((s) => ({ ...s, readings: [] })),
    });
    expect(unread.channels).toEqual([]);
    const said = new Set(unread.untold.map((u) => u.why));
    expect([...said]).toEqual(['No reading depends on it.']);
  });

  it('names a slip of the pen, and is not led by it', () => {
    const log = logOf(2, 4);
    const [first, ...others] = log.sessions;
    const index = first!.readings.findIndex((r) => r.at === 'trim.out' && r.quantity === 'high');
    const slipped = first!.readings.map((r, i) => (i === index ? { ...r, value: r.value + 2 } : r));
    const found = calibrate(rack, { ...log, sessions: [{ ...first!, readings: slipped }, ...others] });
    expect(found.outliers).toContainEqual(expect.objectContaining({ session: 's0', reading: index }));
    const gain = found.channels.find((c) => c.rack === 'scale/a' && c.parameter === 'gain')!;
    expect(Math.abs(gain.value - truthsOf(first!.patch, 'scale/a', 2).get('gain')!)).toBeLessThan(4 * gain.error);
    // A correction takes its place.
    const corrected = [...slipped, { ...first!.readings[index]!, corrects: index }];
    expect(calibrate(rack, { ...log, sessions: [{ ...first!, readings: corrected }, ...others] }).outliers).toEqual([]);
  });

  it('keeps what was measured before beside what is told, and passes check', () => {
    const before = withMeasured(rack, [
      { rack: 'scale/b', parameter: 'gain', value: 0.99, error: 0.001, readings: 3, ideal: 1 },
    ]);
    const found = calibrate(before, logOf(1, 2));
    const read = parseRack(printRack(found.rack));
    expect(read.ok).toBe(true);
    const [a, b] = found.rack.modules.find((m) => m.id === 'scale')!.channels;
    expect(b!.measured!.gain).toBe(0.99);
    expect(a!.measured).toMatchObject({ at: '2026-03-02' });
    for (const { rack: channel, parameter } of found.channels) {
      const [module, id] = channel.split('/');
      const measured = found.rack.modules.find((m) => m.id === module)!.channels.find((c) => c.id === id)!.measured!;
      expect(measured.errors).toHaveProperty([parameter]);
    }
  });
});

describe('a patch as measured', () => {
  const told = { error: 0.001, readings: 3, ideal: 0 };
  const measured = withMeasured(rack, [
    { ...told, rack: 'scale/a', parameter: 'pointer.amount', value: 2 },
    { ...told, rack: 'scale/a', parameter: 'gain', value: 0.98 },
    { ...told, rack: 'scale/a', parameter: 'offsetVolts', value: 0.05 },
    { ...told, rack: 'swells/a', parameter: 'rateScale', value: 1.02 },
    { ...told, rack: 'tone/a', parameter: 'centsPerOctave', value: 4 },
  ]);

  it('predicts what the modules really do', () => {
    const patch = patchOf(0);
    const there = asMeasured(patch, measured);
    const { outputs, readings } = predict(there, { simulation: false });
    // 2% of a travel of 2 is 0.04: (0.4 + 0.04) · ±5 V + 2 V, then 0.98 and 0.05 V.
    expect(outputs['trim.out']!.bound[0]).toBeCloseTo(0.98 * (2 - 2.2) + 0.05, 9);
    expect(outputs['trim.out']!.bound[1]).toBeCloseTo(0.98 * (2 + 2.2) + 0.05, 9);
    expect(outputs['swell.out']!.repeatsEvery).toBeCloseTo(1 / 1.02, 9);
    const pitch = readings.find((r) => r.at === 'tone.pitch')!;
    expect(pitch.low).toBeCloseTo(110 * 2 ** (1 * (1 + 4 / 1200)), 6);
    // The document says nothing of it.
    expect(printPatch(there)).toEqual(printPatch(patch));
  });

  it('is solved for where pointers must stand', () => {
    const target = { at: 'trim.out', quantity: 'volts', low: 0, high: 4, basis: 'bound' } as const;
    const patch = asMeasured({ ...patchOf(0), targets: [{ ...target, want: 'range' as const, weight: 1 }] }, measured);
    const [answer] = solve(patch).solutions;
    const set = answer!.settings.map(({ at, value }): Edit => {
      const [module, param] = at.split('.') as [string, string];
      return { do: 'set', module, param, value };
    });
    const [low, high] = predict(applyEdits(patch, set), { simulation: false }).outputs['trim.out']!.bound;
    expect([low, high]).toEqual([expect.closeTo(0, 6), expect.closeTo(4, 6)]);
    const amount = answer!.settings.find((s) => s.at === 'trim.amount')!;
    expect(amount.value).toBeCloseTo(2 / 5 / 0.98 - 0.04, 6);
    expect(amount.percent).toBeCloseTo(50 + 50 * amount.value, 6);
  });

  it('is off by no more than what was measured leaves', () => {
    const patch = patchOf(0);
    const width = (p: Patch): number => {
      const [low, high] = tolerance(p, { only: ['trim.out'], voltsOnly: true }).outputs['trim.out']!.max;
      return high - low;
    };
    const known = withMeasured(
      measured,
      ['gain', 'offsetVolts', 'pointer.amount', 'pointer.volts'].flatMap((parameter) =>
        ['scale/a', 'swells/a'].map((channel) => ({
          ...told,
          rack: channel,
          parameter,
          value: parameter === 'gain' ? 1 : 0,
        })),
      ),
    );
    expect(width(asMeasured(patch, known))).toBeLessThan(width(patch) / 5);
  });
});

describe('a log', () => {
  const doc = (change: (session: Record<string, unknown>) => void): unknown => {
    const session: Record<string, unknown> = {
      id: 's1',
      started: '2026-03-01T20:00',
      patch: printPatch(patchOf(0)),
      rack: 'Pier rack',
      assignment: [{ module: 'trim', rack: 'scale/a' }],
      readings: [{ at: 'trim.out', quantity: 'low', value: 0.1 }],
    };
    change(session);
    return { format: 'fenvo.log', version: 1, sessions: [{ ...session, id: 's0' }, session] };
  };
  const faults = (json: unknown): string[] => {
    const read = parseLog(json, rack);
    return read.ok ? [] : read.errors.map((e) => e.path);
  };

  it('is refused with the place of each fault', () => {
    expect(faults(doc(() => undefined))).toEqual([]);
    const both = (path: string): string[] => [`sessions[0].${path}`, `sessions[1].${path}`];
    expect(faults(doc((s) => (s.assignment = [{ module: 'trim', rack: 'scale/x' }])))).toEqual(
      both('assignment[0].rack'),
    );
    expect(faults(doc((s) => (s.assignment = [{ module: 'gone', rack: 'scale/a' }])))).toEqual(
      both('assignment[0].module'),
    );
    expect(faults(doc((s) => (s.readings = [{ at: 'trim.no', quantity: 'low', value: 0 }])))).toEqual(
      both('readings[0].at'),
    );
    expect(faults(doc((s) => (s.readings = [{ at: 'trim.out', quantity: 'hz', value: 0 }])))).toEqual(
      both('readings[0].quantity'),
    );
    expect(
      faults(doc((s) => (s.patch = { format: 'fenvo.patch', version: 1, modules: [{ id: 'a', kind: 'no' }] }))),
    ).toEqual(both('patch.modules[0].kind'));
    expect(faults({ format: 'fenvo.rack', version: 2 })).toEqual(['format', 'version']);
  });
});
