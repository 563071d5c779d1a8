import { Midi } from '@tonejs/midi';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { predict } from '@/core';
import { unpackBundle } from '@/core/formats/bundle';
import { readWavTraces } from '@/core/formats/wavFile';
import { fetchPatch, readingOf, storePatch } from './support/desk';
import { downloaded } from './support/downloads';
import { drawn } from './support/drawn';
import { openPages } from './support/pages';

/** The editor's tools, each used as it is meant to be. */
const { at } = openPages();

const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-files-'));
const upload = async (file: string, content: Uint8Array | string): Promise<void> => {
  const name = path.join(folder, file);
  writeFileSync(name, content);
  const input = (await at.page.waitForSelector('[data-bring]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(name);
};

describe('looking before choosing', () => {
  it('shows a stage in the strip before it is chosen, and leaves no trace when it is not', async () => {
    const { desk, page } = at;
    await desk.open('two-lamps-opposite-ways');
    const before = await desk.frames();
    await page.click('[aria-label="Insert a stage before Left lamp"]');
    await page.waitForSelector('[data-chooser] input:focus');
    await page.keyboard.type('rectif');
    await page.waitForSelector('[data-frame=rectifier][data-proposed=true]');
    expect(await desk.edges('rectifier')).toEqual(['+2.50', '0.00']);
    await desk.keys('Escape');
    await page.waitForSelector('[data-frame=rectifier]', { hidden: true });
    expect(await desk.frames()).toEqual(before);
    expect(await page.$('::-p-xpath(//button[starts-with(., "Undo")])')).toBeNull();
  });

  it('previews a cure, and dismisses a finding with a reason that can be taken back', async () => {
    const { desk, page } = at;
    await desk.open('lamp-sweep-shut');
    await desk.issues();
    await page.waitForSelector('[data-finding=vca-shut] ::-p-xpath(.//button[text()="Preview"])');
    await page.click('::-p-xpath(//*[@data-finding="vca-shut"]//button[text()="Explain"])');
    expect(await page.$eval('[data-finding=vca-shut]', (e) => e.textContent)).toContain(
      'responds to positive voltage only',
    );
    // A cure is found after its finding: what stands there already must not move under the pointer.
    const buttons = await page.$$eval('[data-finding=vca-shut] button', (all) => all.map((e) => e.textContent));
    expect(buttons).toEqual(['Show', 'Explain', 'Dismiss', expect.stringMatching(/^Set CV amount to 50/), 'Preview']);
    const before = await desk.edges('beam');
    await desk.button('Preview');
    await page.waitForSelector('[data-frame=beam][data-proposed=true]');
    expect(await desk.edges('beam')).toEqual(['+5.00', '0.00']);
    await desk.button('Stop preview');
    await page.waitForSelector('[data-proposed=true]', { hidden: true });
    expect(await desk.edges('beam')).toEqual(before);
    await desk.button('Dismiss');
    await page.keyboard.type('The gaps are the lamp turning away');
    await desk.keys('Enter');
    await page.waitForSelector('[data-finding=vca-shut]', { hidden: true });
    expect((await desk.kept()).dismissed).toEqual([
      { code: 'vca-shut', at: 'beam.cv', reason: 'The gaps are the lamp turning away' },
    ]);
    await desk.issues();
    await desk.section('dismissed');
    await desk.button('Restore');
    await page.waitForSelector('[data-finding=vca-shut]');
    await desk.saved();
  });
});

describe('stages as a whole', () => {
  it('drags one to another place', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await desk.insert('Fog tone', 'inverter');
    await page.waitForSelector('[data-stage=inverter]');
    const grip = (await (await page.$('[data-grip=inverter]'))!.boundingBox())!;
    const gap = (await (await page.$('[aria-label="Insert a stage before Trim"]'))!.boundingBox())!;
    await page.mouse.move(grip.x + 9, grip.y + 10);
    await page.mouse.down();
    await page.mouse.move(grip.x - 20, grip.y + 30, { steps: 4 });
    await page.mouse.move(gap.x + 12, gap.y - 40, { steps: 8 });
    await page.waitForSelector('[data-over="trim.in"]');
    await page.mouse.up();
    await page.waitForFunction(
      () => [...document.querySelectorAll('[data-frame]')][1]?.getAttribute('data-frame') === 'inverter',
    );
    await desk.button('Undo: Move');
    await desk.button('Undo: Insert');
    await desk.saved();
  });

  it('bypasses and removes several at once, as one edit', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    const before = await desk.frames();
    await page.click('[data-frame=trim]');
    await page.keyboard.down('Shift');
    await page.click('[data-frame=join]');
    await page.keyboard.up('Shift');
    await page.waitForSelector('[aria-label="Selected stages"]');
    // Side by side they move together.
    await desk.insert('Fog tone', 'inverter');
    await page.click('[data-frame=trim]');
    await page.keyboard.down('Shift');
    await page.click('[data-frame=join]');
    await page.keyboard.up('Shift');
    await desk.keys('Alt+ArrowRight');
    await page.waitForFunction(
      () =>
        [...document.querySelectorAll('[data-frame]')].map((e) => e.getAttribute('data-frame')).join() ===
        'swell,inverter,trim,join,tone',
    );
    await desk.button('Undo: Move 2 stages');
    await desk.button('Undo: Insert');
    await page.waitForSelector('[data-frame=inverter]', { hidden: true });
    await page.click('[aria-label="Selected stages"] button');
    await page.waitForFunction(() => document.querySelectorAll('[data-frame]').length === 2);
    expect((await desk.kept()).bypassed.map((b) => b.module)).toEqual(['trim', 'join']);
    await desk.button('Undo: Bypass 2 stages');
    await page.waitForFunction((n) => document.querySelectorAll('[data-frame]').length === n, {}, before.length);
    await desk.saved();
  });

  it('copies a chain to another end, mirrored', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await desk.menu('Copy path', 'To another destination, mirrored');
    await desk.choose('new filter.cutoff');
    await page.waitForSelector('[data-end="filter.cutoff"][aria-pressed=true]');
    const patch = await desk.kept();
    const { readings } = predict(patch, { simulation: false });
    const drive = (socket: string) => readings.find((r) => r.at === socket)!.driveVolts;
    drive('tone.cutoff').forEach((v, i) => expect(drive('filter.cutoff')[i]).toBeCloseTo(v, 9));
    await desk.button('Undo: Copy path');
    await desk.saved();
  });

  it('sets a normal, and an unplugged input gets it', async () => {
    const { desk, page } = at;
    await desk.open('two-lamps-opposite-ways');
    await page.click('[data-end="left.cutoff"]');
    await desk.stage('left');
    await desk.section('hardware');
    const [socket, name] = ['left.cutoff2', 'Left lamp cutoff CV 2'];
    await desk.select(`Normal of ${name}`, 'volts');
    await desk.fill(`[aria-label="Normal voltage of ${name}"]`, '1.5');
    await desk.keys('Enter');
    const patch = await desk.kept();
    expect(patch.normals).toContainEqual({ to: socket, volts: 1.5 });
    await desk.readingIs('left.cutoff', readingOf(patch, 'left.cutoff'));
    await desk.button('Undo: Set normal of Left lamp cutoff CV 2');
    await desk.button('Undo: Set normal of Left lamp cutoff CV 2');
    await desk.saved();
  });
});

describe('variants and versions', () => {
  it('keeps one, compares it on one ruler, and takes a single difference over', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await desk.keepVariant('dark');
    await desk.stage('trim');
    await desk.type('amount', '0.2');
    await desk.type('volts', '1V');
    await desk.button('Variants');
    await desk.button('Compare');
    await page.waitForSelector('[aria-label="Compared with dark"]');
    const differences = () =>
      page.$$eval('[data-difference]', (all) => all.map((e) => e.getAttribute('data-difference')));
    expect(await differences()).toEqual(['Trim gain', 'Trim offset']);
    expect(await page.$eval('[data-compared="tone.cutoff"] th', (e) => e.textContent)).toBe('Fog tone cutoff CV');
    const sides = await page.$$eval('[data-compared="tone.cutoff"] td', (all) => all.map((e) => e.textContent));
    const now = await desk.kept();
    expect(sides[0]).toBe(readingOf(now, 'tone.cutoff'));
    expect(sides[1]).toBe(readingOf({ ...now, ...now.variants[0] }, 'tone.cutoff'));
    await page.click('[aria-label="Apply Trim offset"]');
    await page.waitForFunction(() => document.querySelectorAll('[data-difference]').length === 1);
    expect(await differences()).toEqual(['Trim gain']);
    const after = await desk.kept();
    expect(after.modules.find((m) => m.id === 'trim')?.params).toMatchObject({ amount: 0.2, volts: 2 });
    await desk.button('Load dark');
    await page.waitForFunction(() => document.querySelectorAll('[data-difference]').length === 0);
    await desk.button('Stop comparing');
    await page.waitForSelector('[data-scope]');
    await desk.saved();
  });

  it('shows earlier versions, and puts one back as an edit that can be undone', async () => {
    const { desk, page } = at;
    await desk.open('morse-key-slewed');
    const original = await desk.stored();
    await desk.stage('round');
    await desk.type('rise', '0.77');
    await desk.saved();
    await desk.button('History');
    await page.waitForSelector('[data-version="1"]');
    const put = await page.waitForSelector('::-p-xpath(//*[@data-version="1"]//button[text()="Restore"])');
    await put!.click();
    await page.waitForSelector('[aria-label="Undo: Restore version 1"]');
    await desk.saved();
    const first = (await (await fetch(`${at.url}/api/patches/morse-key-slewed/history/1`)).json()) as {
      patch: { modules: unknown };
    };
    expect((await desk.stored()).modules).toEqual(first.patch.modules);
    await desk.button('Undo: Restore');
    await desk.saved();
    const { revision } = await fetchPatch(at.url, desk.id());
    expect(revision).toBeGreaterThanOrEqual(4);
    expect(original.modules.length).toBe((await desk.stored()).modules.length);
  });
});

describe('the scope', () => {
  it('shows volts, an end’s own unit, decibels, levels, one over the other, and a spectrum', async () => {
    const { desk, page } = at;
    await desk.open('lamp-sweep-cured');
    await desk.stage('beam');
    await page.click('[aria-label="Pin beam.cv to the scope"]');
    await page.waitForFunction(
      () => document.querySelectorAll('[aria-label=Measures] tbody tr:nth-child(2) td').length === 3,
    );
    const unit = () => page.$eval('[data-scope-unit]', (e) => e.textContent);
    expect(await unit()).toBe('V');
    await desk.select('Shown in', 'figure');
    await page.waitForFunction(() => document.querySelector('[data-scope-unit]')?.textContent === 'dB');
    await desk.select('Shown in', 'volts');

    await desk.select('Trigger', 'turn.out rising');
    await page.waitForSelector('[aria-label="Edge after"]');
    await page.click('[aria-label="Edge after"]');
    await desk.select('Trigger', '');

    await page.click('[data-way=levels]');
    await page.waitForSelector('[data-levels="5"] [data-level="turn.out"]');
    await desk.select('Range', '1');
    const over = await page.$eval('[data-level="turn.out"] td:last-child', (e) =>
      Number.parseFloat(e.textContent ?? ''),
    );
    expect(over).toBeGreaterThan(50);
    await page.click('[data-way=xy]');
    await page.waitForSelector('[data-xy] path');
    await page.click('[data-way=spectrum]');
    await page.waitForSelector('[data-spectrum=ready]');
    await page.click('[data-way=traces]');
    await desk.button('Undo: Pin Beam CV');
    await desk.saved();
  });

  it('points at one moment in the strip and in the scope', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await page.waitForFunction(() => document.querySelectorAll('[data-scope] path').length > 0);
    const frame = (await (await page.$('[data-frame=swell] rect'))!.boundingBox())!;
    await page.mouse.move(frame.x + frame.width / 2, frame.y + frame.height / 2);
    await page.waitForSelector('[data-moment]');
    const [strip, scope] = await page.evaluate(() => [
      document.querySelector('[data-moment]')?.getAttribute('data-moment'),
      document.querySelector('[data-scope-moment]')?.getAttribute('data-scope-moment'),
    ]);
    expect(strip).toBe(scope);
    expect(Number(strip)).toBeCloseTo(4, 0);
    expect(await page.$$eval('[data-moment-volts]', (all) => all.length)).toBe(4);
  });

  it('puts each frame’s figure beside its trace, its numbers and its handles, as wide as the face makes it', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await page.waitForSelector('[data-handle=low]');
    const frame = (await (await page.$('[data-frame=swell] rect'))!.boundingBox())!;
    for (const share of [0.2, 0.5, 0.6, 0.9]) {
      await page.mouse.move(frame.x + share * frame.width, frame.y + frame.height / 2);
      await page.waitForSelector('[data-moment]');
      const over = await page.evaluate(() => {
        const reach = (e: Element): DOMRect => e.getBoundingClientRect();
        const meets = (a: DOMRect, b: DOMRect): boolean =>
          Math.min(a.right, b.right) - Math.max(a.left, b.left) > 1 &&
          Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 3;
        const others = [...document.querySelectorAll('[data-bound], [data-handle]')];
        return [...document.querySelectorAll('[data-moment-volts]')].flatMap((figure) => {
          const own = document.querySelector(`[data-frame="${figure.getAttribute('data-moment-volts')}"] rect`)!;
          const out = reach(figure).left < reach(own).left - 3 || reach(figure).right > reach(own).right + 3;
          const on = others.filter((o) => meets(reach(figure), reach(o))).map((o) => o.outerHTML.slice(0, 60));
          return [...(out ? [`${figure.textContent} leaves its frame`] : []), ...on];
        });
      });
      expect({ share, over }).toEqual({ share, over: [] });
    }
  });

  it('saves traces as CSV and WAV, and the picture as SVG and PNG', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await page.waitForSelector('[aria-label=Measures] td');
    const saved = (as: string): Promise<Buffer> =>
      downloaded(page, `Fog bank breathing.${as}`, () => desk.menu('Export traces', as.toUpperCase()));
    const csv = (await saved('csv')).toString().split('\n');
    expect(csv[0]).toBe('time_s,swell.out,join.out');
    const wave = readWavTraces(await saved('wav'));
    expect(wave.ok && wave.value.columns.map((c) => c.values[100]! * 10)).toEqual(
      csv[101]!
        .split(',')
        .slice(1)
        .map((v) => expect.closeTo(Number(v), 4)),
    );
    expect((await saved('svg')).toString()).toMatch(/^<svg.*stroke="rgb/s);
    expect((await saved('png')).subarray(1, 4).toString()).toBe('PNG');
  });
});

describe('hands', () => {
  /** A new patch whose filter a gesture moves, with the gesture's own dialog open. */
  const openGesture = async (): Promise<void> => {
    const { desk } = at;
    await desk.fresh();
    await desk.addEnd('filter.cutoff');
    await desk.feed('gesture');
    await desk.button('Draw or record');
  };
  const usedGesture = async (): Promise<readonly { readonly t: number; readonly volts: number }[]> => {
    await at.desk.button('Apply');
    const gesture = (await at.desk.kept()).modules.find((m) => m.id === 'gesture');
    return gesture?.params?.points as { t: number; volts: number }[];
  };

  it('draws a gesture on its time line', async () => {
    const { page } = at;
    await openGesture();
    const box = (await (await page.waitForSelector('[data-gesture]'))!.boundingBox())!;
    await page.mouse.move(box.x + box.width * 0.1, box.y + box.height * 0.8);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.2, { steps: 12 });
    await page.mouse.move(box.x + box.width * 0.9, box.y + box.height * 0.8, { steps: 12 });
    await page.mouse.up();
    const points = await usedGesture();
    expect(points.length).toBeGreaterThanOrEqual(3);
    expect(points.length).toBeLessThan(12);
    const top = points.reduce((a, b) => (b.volts > a.volts ? b : a));
    expect(top.volts).toBeGreaterThan(3.5);
    expect(top.t).toBeGreaterThan(3);
    expect(top.t).toBeLessThan(5);
  });

  it('adds, moves and removes its points by keys alone', async () => {
    const { desk, page } = at;
    await openGesture();
    const point = (n: number) => `[data-gesture] [aria-label="Point ${n}"]`;
    await page.waitForSelector(point(1));
    const count = () => page.$$eval('[data-gesture] [role=slider]', (all) => all.length);
    const before = await count();
    // An SVG element: the driver's own focus knows HTML alone.
    const focus = (n: number) => page.$eval(point(n), (e) => (e as SVGElement).focus());
    await focus(1);
    await desk.keys('Enter');
    await page.waitForSelector(point(before + 1));
    await focus(2);
    await desk.keys('ArrowUp', 'ArrowUp', 'ArrowRight');
    const points = await usedGesture();
    expect(points).toHaveLength(before + 1);
    expect(points[1]!.volts).toBeGreaterThan(0);
  });

  it('records a hand from the keyboard in real time', async () => {
    const { desk, page } = at;
    await openGesture();
    await page.waitForSelector('[data-hand]');
    await desk.button('Record');
    await page.focus('[data-hand]');
    await page.keyboard.down('ArrowUp');
    // Held until it is nearly up, as a person would.
    await page.waitForFunction(() => {
      const hand = document.querySelector('[data-hand]');
      return Number(hand?.getAttribute('aria-valuenow')) > 4.5;
    });
    await page.keyboard.up('ArrowUp');
    await desk.button('Stop');
    const points = await usedGesture();
    expect(Math.max(...points.map((p) => p.volts))).toBeGreaterThan(4);
    expect(points.at(-1)!.t).toBeGreaterThan(0);
  });

  it('records a finger', async () => {
    const { desk, page } = at;
    await openGesture();
    const box = (await (await page.waitForSelector('[data-hand]'))!.boundingBox())!;
    await desk.button('Record');
    const [x, top] = [box.x + box.width / 2, box.y + 4];
    await page.touchscreen.touchStart(x, box.y + box.height - 4);
    for (let i = 1; i <= 10; i++) {
      await page.touchscreen.touchMove(x, box.y + box.height - 4 - ((box.height - 8) * i) / 10);
      await drawn(page);
    }
    await page.touchscreen.touchMove(x, top);
    await page.touchscreen.touchEnd();
    await desk.button('Stop');
    const points = await usedGesture();
    expect(Math.min(...points.map((p) => p.volts))).toBeLessThan(0.5);
    expect(Math.max(...points.map((p) => p.volts))).toBeGreaterThan(4.5);
  });

  it('imports a MIDI file as a clocked sequencer', async () => {
    const { desk, page } = at;
    const midi = new Midi();
    midi.header.setTempo(90);
    const track = midi.addTrack();
    track.name = 'Bell';
    [60, 67, 72, 55].forEach((note, i) => track.addNote({ midi: note, time: (i * 60) / 90, duration: 0.3 }));
    await desk.open('fog-bank-breathing');
    await desk.button('Import');
    await upload('bell.mid', midi.toArray());
    await desk.button('Import as sequencer');
    await page.waitForSelector('[data-stage=sequence]');
    const patch = await desk.kept();
    const steps = patch.modules.find((m) => m.id === 'sequence')?.params?.steps as readonly { volts: number }[];
    expect(steps.map((s) => Math.round(s.volts * 12))).toEqual([0, 7, 12, -5]);
    expect(patch.modules.find((m) => m.id === 'clock')?.params).toMatchObject({ bpm: 90, beats: 1 });
    await desk.button('Undo: Import');
    await desk.saved();
  });

  it('brings in a CSV table as a recording, whose volts arrive', async () => {
    const { desk, page } = at;
    await desk.fresh();
    await desk.addEnd('filter.cutoff');
    await desk.button('Import');
    const rows = Array.from({ length: 801 }, (_, k) => `${k / 100},${k % 200 < 100 ? 0.25 : 0.5}`);
    await upload('lamp.csv', `time,lamp\n${rows.join('\n')}\n`);
    await page.waitForSelector('::-p-xpath(//*[contains(., "at 100 Hz")])');
    await desk.fill('[aria-label="Volts per unit"]', '8');
    await desk.button('Use as a recording');
    await page.waitForSelector('[data-stage=recording]');
    await page.click('[data-end="filter.cutoff"]');
    await desk.feed('recording.out');
    await page.click('[data-frame=recording]');
    await page.waitForSelector('::-p-xpath(//*[@data-fact][contains(., "+2.00 to +4.00")])');
    await desk.saved();
  });

  it('brings a Scala scale with its keyboard mapping into a quantizer, and out again', async () => {
    const { desk, page } = at;
    await desk.fresh();
    await desk.button('Import');
    await upload('white.kbm', '12\n0\n127\n62\n69\n432.0\n5\n');
    await page.waitForSelector('::-p-xpath(//*[@role="alert"][contains(., "Open the .scl file first")])');
    await upload('just.scl', '! just\nFive just notes\n5\n9/8\n5/4\n3/2\n5/3\n2/1\n');
    await page.waitForSelector('::-p-xpath(//*[contains(text(), "Five just notes: 5 notes an octave, on C.")])');
    await upload('linear.kbm', '0\n0\n127\n60\n65\n523.2511306\n5\n');
    await page.waitForSelector('::-p-xpath(//*[contains(., "Its tuning is standard.")])');
    await desk.button('Apply');
    await page.waitForFunction(() => !document.querySelector('[role=dialog]'));
    const [made] = (await desk.kept()).modules;
    expect(made).toMatchObject({ kind: 'quantizer', label: 'just' });
    expect((made!.params as { scale: number[] }).scale.map((s) => Math.round(100 * s))).toEqual([
      0, 204, 386, 702, 884,
    ]);
    const file = await downloaded(page, 'scale.scl', () => desk.button('Export as .scl'));
    expect(file.toString()).toMatch(/^! scale\.scl\n!\nscale\n 5\n!\n 203\.91000\n/);
  });

  it('says what is wrong with a file, and changes nothing', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await desk.button('Import');
    await upload('broken.mid', 'not a file');
    await page.waitForSelector(
      '::-p-xpath(//*[@role="alert"][contains(., "broken.mid: It is no Standard MIDI File")])',
    );
    await upload('broken.csv', 't,v\n0,1\n1,much\n');
    await page.waitForSelector('::-p-xpath(//*[@role="alert"][contains(., "Line 3, v: “much” is not a number.")])');
  });
});

describe('the first hour', () => {
  it('goes from a target to a patch that meets it', async () => {
    const { desk, page } = at;
    await desk.patches();
    await page.locator('[data-door="From a target"]').click();
    const [low, high] = [
      await page.waitForSelector('[aria-label=Min]'),
      await page.waitForSelector('[aria-label=Max]'),
    ];
    await desk.fill(low!, '200 Hz');
    await desk.fill(high!, '3.2 kHz');
    await page.waitForSelector('[data-goal=true]');
    await desk.button('Open in editor');
    await page.waitForSelector('[data-frame=end]');
    await desk.readingIs('end.cutoff', '200\u00a0Hz to 3.20\u00a0kHz');
    expect((await desk.kept()).targets).toEqual([
      { basis: 'arrives', at: 'end.cutoff', quantity: 'frequency', low: 200, high: 3200 },
    ]);
  });

  it('takes a goal as so many octaves about a middle', async () => {
    const { desk, page } = at;
    await desk.patches();
    await page.locator('[data-door="From a target"]').click();
    await desk.select('Target type', 'span');
    for (const [label, text] of [
      ['Width', '4'],
      ['Centre', '400 Hz'],
    ] as const) {
      await desk.fill(`[aria-label=${label}]`, text);
    }
    await page.waitForFunction(() => document.querySelector('[data-goal=true]')?.textContent?.includes('1.60'));
    await desk.button('Open in editor');
    await page.waitForSelector('[data-end="end.cutoff"] [data-wanted=true]');
    await desk.readingIs('end.cutoff', '100\u00a0Hz to 1.60\u00a0kHz');
    expect((await desk.kept()).targets).toEqual([
      { basis: 'arrives', at: 'end.cutoff', want: 'span', quantity: 'frequency', span: 4, centre: 400 },
    ]);
  });

  it('guides through a first patch, and can be skipped', async () => {
    const { desk, page } = at;
    await desk.patches();
    await desk.keep({ guide: 'new' });
    await page.reload({ waitUntil: 'domcontentloaded' });
    await desk.button('Take the tour');
    const step = (n: number) => page.waitForSelector(`[data-tour="${n}"]`);
    const next = () => page.click('::-p-xpath(//*[@data-tour]//button[text()="Next"])');
    await step(1);
    // It speaks of the patch at hand.
    expect(await page.$eval('[data-tour] [role=status]', (e) => e.textContent)).toMatch(
      /what arrives there. Here it is .*Hz/,
    );
    await next();
    await step(2);
    await desk.button('Show the target');
    await page.waitForSelector('[data-panel=destination]');
    await next();
    await step(3);
    await next();
    await step(4);
    await desk.button('Show the issues');
    await page.waitForSelector('[data-panel=issues]');
    await page.waitForSelector('::-p-xpath(//*[@data-tour]//*[text()="Issues: done."])');
    await next();
    await step(5);
    await page.waitForSelector('[data-tour] a[href$="/sheet"]');
    await desk.button('Skip the tour');
    await page.waitForSelector('[data-tour]', { hidden: true });
    await page.reload({ waitUntil: 'domcontentloaded' });
    await page.waitForSelector('[data-frame]');
    expect(await page.$('[data-tour]')).toBeNull();
  });

  it('shows keys and words, and single keys can be switched off', async () => {
    const { desk, page } = at;
    await desk.open('fog-bank-breathing');
    await desk.keys('Shift+Slash');
    await page.waitForSelector('::-p-xpath(//dt[text()="attenuverter"])');
    await page.click('[role=dialog] input[type=checkbox]');
    await desk.keys('Escape');
    await page.waitForSelector('[role=dialog]', { hidden: true });
    await desk.keys('v');
    expect(await page.$('section[aria-label=Variants]')).toBeNull();
    await desk.menu('Help', 'Shortcuts and glossary');
    await page.click('[role=dialog] input[type=checkbox]');
    await desk.keys('Escape');
    await page.waitForSelector('[role=dialog]', { hidden: true });
    await desk.keys('v');
    await page.waitForSelector('section[aria-label=Variants]');
  });
});

describe('a patch in forms of others', () => {
  it.each([
    ['Export as a graph (DOT)', 'Tide.dot'],
    ['Export as tables (CSV)', 'Tide tables.zip'],
  ])('%s: goes out, and comes back with its modules and cables', async (item, name) => {
    const { page } = at;
    const { patch: tide } = await fetchPatch(at.url, 'tide-gauge-to-three-ends');
    const id = await storePatch(at.url, { ...tide, name: 'Tide' });
    await page.goto(at.url);
    await page.waitForSelector(`[data-patch="${id}"]`);
    await page.click('[aria-label="Actions for Tide"]');
    const entry = `::-p-xpath(//li[contains(., "${item}")])`;
    const file = path.join(folder, name);
    const bytes = await downloaded(page, name, async () => (await page.waitForSelector(entry))!.click());
    writeFileSync(file, bytes);
    const input = (await page.waitForSelector('[aria-label="Patch file"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(file);
    await page.waitForFunction(() => location.pathname.startsWith('/patches/'));
    const { patch: again } = await fetchPatch(at.url, page.url().split('/').at(-1) ?? '');
    expect(again.name).toBe('Tide');
    expect(again.cables).toEqual(tide.cables);
    const bare = (modules: readonly object[]) =>
      modules.map(
        ({ id: module, kind, label, params }: { id?: string; kind?: string; label?: string; params?: object }) => ({
          module,
          kind,
          label,
          params,
        }),
      );
    expect(bare(again.modules)).toEqual(bare(tide.modules));
  });
});

describe('a patch with its recordings', () => {
  it('goes out as one zip, and comes back whole', async () => {
    const { page } = at;
    const volts = Float32Array.from({ length: 4000 }, (_, i) => 3 * Math.sin(i / 30));
    const put = await fetch(`${at.url}/api/assets?name=hull&sampleRate=8000`, { method: 'POST', body: volts });
    const { id: assetId } = (await put.json()) as { id: string };
    const patch = {
      format: 'fenvo.patch',
      version: 1,
      name: 'Hull tape',
      modules: [{ id: 'tape', kind: 'recording', params: { assetId } }],
    };
    const headers = { 'Content-Type': 'application/json' };
    const made = await fetch(`${at.url}/api/patches`, { method: 'POST', headers, body: JSON.stringify({ patch }) });
    const { id } = (await made.json()) as { id: string };
    await page.goto(at.url);
    await page.waitForSelector(`[data-patch="${id}"]`);
    await page.click('[aria-label="Actions for Hull tape"]');
    const item = '::-p-xpath(//li[contains(., "Export with recordings")])';
    const bytes = await downloaded(page, 'Hull tape.fenvo.zip', async () =>
      (await page.waitForSelector(item))!.click(),
    );
    const file = path.join(folder, 'Hull tape.fenvo.zip');
    writeFileSync(file, bytes);
    const bundle = unpackBundle(bytes);
    expect(bundle.ok && bundle.value.recordings).toEqual([{ id: assetId, name: 'hull', sampleRate: 8000, volts }]);
    const input = (await page.waitForSelector('[aria-label="Patch file"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(file);
    await page.waitForFunction(() => location.pathname.startsWith('/patches/'));
    const again = page.url().split('/').at(-1) ?? '';
    expect(again).not.toBe(id);
    const { patch: stored } = await fetchPatch(at.url, again);
    expect(stored.modules).toEqual(patch.modules);
  });
});
