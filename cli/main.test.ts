import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-cli-'));
const fog = 'demo/patches/fog-bank-breathing.fenvo.json';

function fenvo(args: readonly string[], input = ''): { status: number | null; stdout: string; stderr: string } {
  return spawnSync(process.execPath, ['scripts/fenvo.mjs', ...args], { input, encoding: 'utf8', maxBuffer: 1e8 });
}

/** The blocks of code of one language in a page. */
const examplesOf = (page: string, language: string): string[] =>
  [...readFileSync(page, 'utf8').matchAll(/```(\w+)\n(.*?)```/gs)].flatMap(([, of, code]) =>
    of === language ? [code ?? ''] : [],
  );

describe('the command line', () => {
  it('predicts a file: 0.4·(±5) + 2, and 212 Hz up by 5.2 octaves', () => {
    const { status, stdout } = fenvo(['predict', fog]);
    expect(status).toBe(0);
    const answer = JSON.parse(stdout) as {
      outputs: Record<string, unknown>;
      readings: { at: string; low: number; high: number }[];
    };
    expect(answer.outputs['trim.out']).toMatchObject({ bound: [0, 4], seen: [0, 4], repeatsEvery: 4, exact: true });
    const reading = answer.readings.find((r) => r.at === 'tone.cutoff')!;
    expect(reading.low).toBeCloseTo(212, 9);
    expect(reading.high).toBeCloseTo(212 * 2 ** 5.2, 6);
  });
  it('takes several files in their order, and standard input', () => {
    const list = JSON.parse(fenvo(['check', fog, 'demo/patches/morse-key-slewed.fenvo.json']).stdout) as {
      name: string;
    }[];
    expect(list.map((x) => x.name)).toEqual(['Fog bank breathing', 'Morse key, slewed']);
    expect(JSON.parse(fenvo(['check', '-'], readFileSync(fog, 'utf8')).stdout)).toMatchObject({ ok: true });
  });
  it('reads a simulated rack, and says what is wrong with it, as its page shows', () => {
    const file = path.join(folder, 'readings.json');
    const [shell = ''] = examplesOf('docs/bench.md', 'sh');
    const lines = shell.replaceAll('npm run -s fenvo --', 'node scripts/fenvo.mjs').replaceAll('readings.json', file);
    const run = spawnSync('bash', ['-ec', lines], { encoding: 'utf8' });
    expect(run.status).toBe(0);
    const found = JSON.parse(run.stdout) as {
      causes: { faults: { kind: string; at: string; value: number }[]; probability: number }[];
    };
    expect(found.causes[0]!.faults[0]).toMatchObject({ kind: 'knob', at: 'trim.amount' });
    expect(found.causes[0]!.faults[0]!.value).toBeCloseTo(0.2, 2);
    expect(found.causes[0]!.probability).toBeGreaterThan(0.99);
    writeFileSync(file, readFileSync(file, 'utf8').replace('drone.saw', 'drone.gone'));
    expect(fenvo(['diagnose', fog, file])).toMatchObject({ status: 2, stdout: '' });
    expect(fenvo(['diagnose', fog, file]).stderr).toContain('readings[0].at');
    expect(fenvo(['bench', fog, '--fault', '{"kind":"flood"}']).stderr).toContain('kind');
    expect(fenvo(['bench', fog, '--seed', 'x']).status).toBe(2);
  });
  it('takes the readings and the log that its page shows', () => {
    const [readings = '', log = ''] = examplesOf('docs/bench.md', 'json');
    const file = path.join(folder, 'example.json');
    writeFileSync(file, readings);
    expect(fenvo(['diagnose', fog, file])).toMatchObject({ status: 0, stderr: '' });
    writeFileSync(file, log);
    const learned = fenvo(['calibrate', 'demo/racks/pier-rack.fenvo-rack.json', file]);
    expect(learned).toMatchObject({ status: 0, stderr: '' });
    const { joint } = JSON.parse(learned.stdout) as { joint: { rack: string; parameters: string[] }[] };
    expect(joint).toMatchObject([{ rack: 'lifts/a', parameters: ['gain', 'offsetVolts', 'pointer.volts'] }]);
  });
  it('tells the steps from one patch to another', () => {
    const still = JSON.parse(fenvo(['change', fog, fog]).stdout) as { steps: unknown[] };
    expect(still.steps).toEqual([]);
    const moved = JSON.parse(fenvo(['change', fog, 'demo/patches/morse-key-slewed.fenvo.json']).stdout) as {
      format: string;
      steps: { do: string }[];
    };
    expect(moved.format).toBe('fenvo.change');
    expect(new Set(moved.steps.map((s) => s.do))).toEqual(new Set(['unplug', 'set', 'plug', 'measure']));
    expect(fenvo(['change', fog]).status).toBe(2);
  });
  it('says what it can do when asked', () => {
    const { status, stdout, stderr } = fenvo(['--help']);
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
    for (const command of ['predict', 'solve', 'assign', 'plan', 'sheet', 'schema']) expect(stdout).toContain(command);
    expect(fenvo(['help']).stdout).toBe(stdout);
  });
  it('leaves the simulation out when told', () => {
    const { outputs } = JSON.parse(fenvo(['predict', fog, '--no-simulation']).stdout) as {
      outputs: Record<string, object>;
    };
    expect(outputs['trim.out']).not.toHaveProperty('seen');
  });
  it('tells what one voltage is when another is at a place on its way', () => {
    const probes = ['--probe', 'swell.out', '--probe', 'trim.out'];
    const at = (place: string) =>
      JSON.parse(fenvo(['joint', fog, ...probes, '--at', place]).stdout) as { crossings: { other: number }[] };
    // 0.4·v + 2 V.
    expect(at('highest').crossings.map((c) => c.other)).toEqual([expect.closeTo(4, 6)]);
    for (const { other } of at('1V').crossings) expect(other).toBeCloseTo(2.4, 6);
    expect(fenvo(['joint', fog, ...probes, '--at', 'soon']).status).toBe(2);
    expect(fenvo(['joint', fog, '--probe', 'trim.out']).stderr).toContain('two --probe');
  });
  it('writes traces as CSV and WAV', () => {
    const [csv, wav] = [path.join(folder, 'a.csv'), path.join(folder, 'a.wav')];
    expect(fenvo(['simulate', fog, '--probe', 'trim.out', '--csv', csv, '--wav', wav]).status).toBe(0);
    const lines = readFileSync(csv, 'utf8').split('\n');
    expect(lines.slice(0, 2)).toEqual(['time_s,trim.out', '0,2']);
    expect(lines).toHaveLength(8 * 48000 + 2);
    const bytes = readFileSync(wav);
    expect(bytes.toString('latin1', 0, 4)).toBe('RIFF');
    expect(bytes.readUInt16LE(20)).toBe(3); // Float.
  });
  it('ends quietly where its reader does', () => {
    const piped = `"${process.execPath}" scripts/fenvo.mjs predict ${fog} | true`;
    expect(spawnSync('sh', ['-c', piped], { encoding: 'utf8' })).toMatchObject({ stdout: '', stderr: '', status: 0 });
  });
  it('exits 2 with a message a fault, never a stack trace', () => {
    const bad = path.join(folder, 'bad.json');
    writeFileSync(
      bad,
      JSON.stringify({
        format: 'fenvo.patch',
        version: 1,
        modules: [{ id: 'a', kind: 'lfo', params: { rateHz: -3, phase: 2 } }],
      }),
    );
    const { status, stdout, stderr } = fenvo(['predict', bad]);
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr.trim().split('\n')).toEqual([
      `${bad}: modules[0].params.rateHz: must be between 0.001 and 1000, got -3`,
      `${bad}: modules[0].params.phase: must be between 0 and 1, got 2`,
    ]);
    for (const [args, input] of [
      [['predict', 'no-such-file'], ''],
      [['predict', '-'], '{'],
      [['fly', fog], ''],
      [[], ''],
      [['predict', fog, '--wings'], ''],
      [['simulate', fog, '--probe', 'x.y'], ''],
    ] as const) {
      const answer = fenvo(args, input);
      expect(answer.status).toBe(2);
      expect(answer.stderr).not.toMatch(/\n\s+at /);
    }
  });
  it('assigns, plans, checks and makes sheets with a rack', () => {
    const rack = 'demo/racks/pier-rack.fenvo-rack.json';
    expect(JSON.parse(fenvo(['check', rack, fog]).stdout)).toMatchObject([
      { name: 'Pier rack', channels: 43 },
      { ok: true },
    ]);
    const assigned = JSON.parse(fenvo(['assign', fog, rack]).stdout) as {
      short: unknown[];
      assigned: { rack: string }[];
    };
    expect(assigned.short).toEqual([]);
    expect(assigned.assigned.map((a) => a.rack)).toContain('lifts/a');
    const request = path.join(folder, 'request.json');
    writeFileSync(
      request,
      JSON.stringify({ from: 'lfo', to: 'filter.cutoff', target: { quantity: 'frequency', low: 250, high: 4000 } }),
    );
    const plan = JSON.parse(fenvo(['plan', request, rack]).stdout) as { proposals: { met: boolean }[] };
    expect(plan.proposals[0]!.met).toBe(true);
    const pdf = path.join(folder, 'sheet.pdf');
    expect(JSON.parse(fenvo(['sheet', fog, rack, '--format', 'pdf', '--out', pdf]).stdout)).toMatchObject({
      written: pdf,
    });
    expect(readFileSync(pdf, 'latin1').slice(0, 5)).toBe('%PDF-');
    expect(fenvo(['sheet', fog, '--format', 'md']).stdout).toContain('# Fog bank breathing');
    expect(fenvo(['sheet', fog, '--format', 'csv']).stdout.split('\n')[0]).toContain('plusminus');
    expect(JSON.parse(fenvo(['solve', fog, rack]).stdout)).toHaveProperty('feasible');
  });
  it('learns a rack from a log, and predicts with it as it was measured', () => {
    const rack = 'demo/racks/pier-rack.fenvo-rack.json';
    const patch = JSON.parse(readFileSync(fog, 'utf8')) as { modules: { id: string }[] };
    const { assigned } = JSON.parse(fenvo(['assign', fog, rack]).stdout) as {
      assigned: { module: string; rack: string }[];
    };
    const bench = JSON.parse(fenvo(['bench', fog, rack, '--seed', '4']).stdout) as { readings: object[] };
    const log = (assignment: object[]) => ({
      format: 'fenvo.log',
      version: 1,
      sessions: [{ id: 'a', started: '2026-05-02', patch, rack: 'Pier rack', assignment, readings: bench.readings }],
    });
    const seats = assigned.map(({ module, rack: channel }) => ({ module, rack: channel }));
    const file = path.join(folder, 'log.json');
    writeFileSync(file, JSON.stringify(log(seats)));
    const found = JSON.parse(fenvo(['calibrate', rack, file]).stdout) as {
      channels: object[];
      rms: { before: number; after: number };
      rack: object;
    };
    expect(found.rms.after).toBeLessThan(found.rms.before);
    expect(found.channels.length).toBeGreaterThan(0);
    const learned = path.join(folder, 'learned.json');
    writeFileSync(learned, JSON.stringify(found.rack));
    expect(JSON.parse(fenvo(['check', learned]).stdout)).toMatchObject({ ok: true });
    const [plain, measured] = [
      fenvo(['predict', fog, '--no-simulation']),
      fenvo(['predict', fog, learned, '--as-measured', '--no-simulation']),
    ].map(({ stdout }) => (JSON.parse(stdout) as { outputs: Record<string, { bound: number[] }> }).outputs);
    expect(measured!['swell.out']!.bound).not.toEqual(plain!['swell.out']!.bound);
    writeFileSync(file, JSON.stringify(log([{ module: 'swell', rack: 'no/a' }])));
    const { status, stderr } = fenvo(['calibrate', rack, file]);
    expect([status, stderr.trim()]).toEqual([
      2,
      `${file}: sessions[0].assignment[0].rack: Pier rack has no channel "no/a"`,
    ]);
    expect(fenvo(['predict', fog, '--as-measured']).stderr).toContain('one rack');
  });
  it('says what is wrong with a rack, a request or a form', () => {
    const bad = path.join(folder, 'rack.json');
    writeFileSync(
      bad,
      JSON.stringify({ format: 'fenvo.rack', version: 1, modules: [{ id: 'a', channels: [{ id: 'a', kind: 'no' }] }] }),
    );
    const wrong = (...args: string[]) => {
      const { status, stderr } = fenvo(args);
      expect(status).toBe(2);
      return stderr;
    };
    expect(wrong('check', bad)).toContain('modules[0].channels[0].kind');
    expect(wrong('assign', fog)).toContain('a patch and a rack');
    expect(wrong('sheet', fog, '--format', 'pdf')).toContain('--out');
    expect(wrong('sheet', fog, '--format', 'doc')).toContain('--format');
    expect(wrong('plan', bad)).toContain('unknown key');
  });
  it('draws exercises, reads their racks and marks answers', () => {
    const [shell = ''] = examplesOf('docs/practice.md', 'sh');
    const lines = shell.replaceAll('npm run -s fenvo --', 'node scripts/fenvo.mjs');
    const shown = spawnSync('bash', ['-ec', lines], { encoding: 'utf8' });
    expect(shown).toMatchObject({ status: 0, stderr: '' });
    expect(
      shown.stdout
        .trim()
        .split('\n')
        .map((line) => Object.keys(JSON.parse(line) as object)[0]),
    ).toEqual(['skill', 'right', 'format']);
    const list = JSON.parse(fenvo(['practice', '--list']).stdout) as { skill: string; group: string }[];
    expect(list).toHaveLength(46);
    expect(list[0]).toEqual({ skill: 'attenuate', group: 'range', text: 'Attenuate a voltage', needsSound: false });
    const one = ['practice', '--skill', 'attenuate', '--level', '1', '--seed', '3'];
    const exercise = JSON.parse(fenvo(one).stdout) as {
      ask: { answer: string; at: string };
      patch: { modules: { kind: string; params?: { amount?: number; lowVolts?: number; highVolts?: number } }[] };
    };
    expect(exercise).not.toHaveProperty('truth');
    const [slow, dim] = exercise.patch.modules;
    const [low, high] = [slow!.params?.lowVolts ?? -5, slow!.params?.highVolts ?? 5].map(
      (v) => v * dim!.params!.amount!,
    );
    const mark = (answer: string) => fenvo([...one, '--answer', answer]);
    expect(JSON.parse(mark(JSON.stringify({ low, high })).stdout)).toMatchObject({ right: true, score: 1, slip: null });
    expect(JSON.parse(mark('{"low":-30,"high":30}').stdout)).toMatchObject({ right: false, score: 0 });
    const fault = ['practice', '--skill', 'find-fault', '--level', '2', '--seed', '5'];
    expect(JSON.parse(fenvo([...fault, '--read', 'trim.out']).stdout)).toMatchObject({ format: 'fenvo.readings' });
    for (const [bad, place] of [
      [['practice'], '--list'],
      [['practice', '--skill', 'juggling'], '--skill'],
      [['practice', '--skill', 'attenuate', '--level', '6'], '--level'],
      [['practice', '--skill', 'attenuate', '--seed', '-1'], '--seed'],
      [[...one, '--read', 'dim.out'], '--read'],
      [[...fault, '--read', 'trim.gone'], '--read'],
      [[...one, '--answer', '{"value":3}'], 'low'],
      [[...one, '--answer', '{'], '--answer'],
      [['practice', '--skill', 'note', '--answer', '{"order":[0,0,1]}'], 'order'],
      [['practice', '--skill', 'set-one', '--answer', '{"knobs":[{"at":"swell.phase","value":0}]}'], 'knobs[0].at'],
    ] as const) {
      const refused = fenvo(bad);
      expect(refused.status).toBe(2);
      expect(refused.stderr).toContain(place);
    }
  }, 60_000);

  it('converts a patch to a graph and to tables, and back', () => {
    const at = (name: string): string => path.join(folder, name);
    const patchIn = (file: string): unknown => JSON.parse(readFileSync(file, 'utf8'));
    const steps = ['fog.dot', 'fog.zip', 'fog.gv', 'fog.fenvo.json'].map(at);
    const [shell = ''] = examplesOf('docs/formats.md', 'sh');
    expect(shell).toContain(`convert docs/examples/offset-into-filter.dot offset.fenvo.json`);
    const begun = 'docs/examples/offset-into-filter.dot';
    for (const [i, to] of steps.entries()) {
      const done = fenvo(['convert', steps[i - 1] ?? begun, to]);
      expect(done).toMatchObject({ status: 0, stderr: '' });
      expect(JSON.parse(done.stdout)).toMatchObject({ ok: true, name: 'Offset into filter', modules: 3 });
    }
    expect(patchIn(at('fog.fenvo.json'))).toMatchObject({
      name: 'Offset into filter',
      settings: { duration: 4 },
      cables: [
        { from: 'swell.out', to: 'trim.in' },
        { from: 'trim.out', to: 'soft.cutoff' },
      ],
    });
    for (const bad of [
      ['convert', fog],
      ['convert', fog, at('fog.png')],
      ['convert', 'README.md', at('x.dot')],
    ])
      expect(fenvo(bad)).toMatchObject({ status: 2 });
  }, 60_000);

  it('checks walkthroughs, and says what their steps point at', () => {
    const [shell = ''] = examplesOf('docs/walkthroughs.md', 'sh');
    const shown = spawnSync('bash', ['-ec', shell.replaceAll('npm run -s fenvo --', 'node scripts/fenvo.mjs')], {
      encoding: 'utf8',
    });
    expect(shown).toMatchObject({ status: 0, stderr: '' });
    const figure = { at: 'soft.cutoff', figure: 'low', unit: 'V' };
    expect(JSON.parse(shown.stdout)).toEqual({
      ok: true,
      title: 'Half as far',
      steps: 2,
      figures: [
        { step: 0, of: 'look', ...figure, value: -5 },
        { step: 1, of: 'look', ...figure, value: -2.5 },
        { step: 1, of: 'question', ...figure, value: -2.5 },
      ],
    });
    const file = path.join(folder, 'walk.json');
    const example = JSON.parse(examplesOf('docs/walkthroughs.md', 'json')[0] ?? '') as { steps: object[] };
    const refused = (steps: readonly object[], ...args: string[]) => {
      writeFileSync(file, JSON.stringify({ ...example, steps }));
      return fenvo(['walkthrough', ...(args.length > 0 ? args : ['check', file])]);
    };
    for (const [steps, place] of [
      [[{ text: 'Turn it.', set: [{ at: 'trim.amount', value: 7 }] }], 'steps[0].set[0].value'],
      [[{ text: 'Look.', look: { at: 'trim.out', figure: 'readingLow' } }], 'steps[0].look'],
    ] as const)
      expect(refused(steps)).toMatchObject({ status: 2, stderr: expect.stringContaining(place) as string });
    expect(refused([], 'play', file)).toMatchObject({ status: 2 });
    expect(refused([], 'check')).toMatchObject({ status: 2 });
  }, 60_000);
});
