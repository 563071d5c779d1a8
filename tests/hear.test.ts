import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { parseMidi } from 'midi-file';
import { afterAll, describe, expect, it } from 'vitest';
import { buildGraph, parsePatch, printPatch, simulateGraph, usualEars } from '@/core';
import type { Patch } from '@/core';
import { readTuning } from '@/core/formats/midiTuning';
import { storePatch } from './support/desk';
import { downloaded } from './support/downloads';
import { openPages } from './support/pages';

const { at } = openPages();
// The play bar stays open from editor to editor, as for a person: the next file begins without it.
afterAll(() => at.page.close());
const CEILING = 10 ** (-1 / 20);

const read = (document: object): Patch => {
  const result = parsePatch({ format: 'fenvo.patch', version: 1, ...document });
  if (!result.ok) throw new Error(JSON.stringify(result.errors));
  return result.value;
};
const tremolo = read({
  name: 'Tremolo',
  modules: [
    { id: 'slow', kind: 'lfo', label: 'Slow', params: { rateHz: 4 } },
    { id: 'tone', kind: 'oscillator', label: 'Tone', params: { baseHz: 220 } },
    { id: 'soft', kind: 'filter', label: 'Soft', params: { cutoffHz: 900 } },
    { id: 'amp', kind: 'vca', label: 'Amp', params: { bias: 2.5, cvAmount: 0.4 } },
  ],
  cables: [
    { from: 'slow.out', to: 'amp.cv' },
    { from: 'tone.saw', to: 'soft.in' },
    { from: 'soft.lowpass', to: 'amp.in' },
  ],
});

interface Tapped {
  readonly left: number[];
  readonly volts: number[][];
  readonly sampleRate: number;
}

/** The samples that the sound thread itself gives, by the messages of the page. */
function tapped(page: Page, patch: Patch, messages: readonly object[], samples: number, sockets: readonly string[]) {
  const ears = usualEars(buildGraph(patch))!;
  const play = { do: 'play', patch, ears, level: 0, traces: [] };
  return page.evaluate(
    async (before, after, count, of): Promise<Tapped> => {
      const context = new AudioContext();
      await context.audioWorklet.addModule('/live.worklet.js');
      const node = new AudioWorkletNode(context, 'fenvo-live', { numberOfInputs: 0, outputChannelCount: [2] });
      const done = new Promise<Tapped>((resolve, reject) => {
        node.port.onmessage = ({ data }) => {
          if (data.is === 'failed') reject(new Error(data.message));
          if (data.is !== 'tapped') return;
          const volts = data.volts.map((v: Float64Array) => [...v]);
          resolve({ left: [...data.left], volts, sampleRate: context.sampleRate });
        };
      });
      node.port.postMessage({ do: 'tap', samples: count, sockets: of });
      node.port.postMessage(before);
      for (const message of after) node.port.postMessage(message);
      node.connect(context.destination);
      await context.resume();
      return done.finally(() => context.close());
    },
    play,
    messages,
    samples,
    sockets,
  );
}

const peakOf = (samples: readonly number[]): number => samples.reduce((m, v) => Math.max(m, Math.abs(v)), 0);

/** Until it plays; where it does not, what the bar and the messages say. */
async function playing(page: Page): Promise<void> {
  await page.waitForSelector('[data-live=playing]').catch(async (error: unknown) => {
    const told = await page.$$eval('[data-live], [role=alert]', (all) =>
      all.map((e) => `${e.getAttribute('data-live') ?? ''} ${e.textContent}`),
    );
    const focus = await page.evaluate(() => document.activeElement?.outerHTML.slice(0, 200));
    throw new Error(`it does not play: ${JSON.stringify(told)}; the focus is on ${focus}`, { cause: error });
  });
}

describe('the sound thread', () => {
  it('gives the samples of the simulation, and nothing over its ceiling', async () => {
    const { page, desk } = at;
    await desk.patches();
    const sockets = ['slow.out', 'soft.lowpass', 'amp.out'];
    const samples = 30_000;
    const { left, volts, sampleRate } = await tapped(page, tremolo, [], samples, sockets);
    const graph = buildGraph({
      ...tremolo,
      settings: { ...tremolo.settings, duration: samples / sampleRate, sampleRate: 'auto' },
    });
    const { traces } = simulateGraph({ ...graph, sampleRate }, { traces: sockets });
    sockets.forEach((socket, i) => {
      const expected = traces.get(socket)!;
      const apart = volts[i]!.reduce((m, v, k) => Math.max(m, Math.abs(v - (expected[k] ?? v))), 0);
      expect(apart, socket).toBeLessThanOrEqual(1e-9);
    });
    // It begins in silence, and is heard at the level that was asked for: a volt is a tenth.
    expect(peakOf(left.slice(0, 200))).toBeLessThan(0.01);
    expect(peakOf(left.slice(-8000))).toBeGreaterThan(0.1);
    expect(peakOf(left)).toBeLessThanOrEqual(CEILING + 1e-6);
  });

  it('limits what is far too loud, and goes on through an edit', async () => {
    const { page, desk } = at;
    await desk.patches();
    const loud = [
      { do: 'edit', number: 1, played: false, ears: { left: 'tone.saw', right: 'tone.saw', gain: 50 }, edits: [] },
    ];
    const { left } = await tapped(page, tremolo, loud, 48_000, []);
    expect(peakOf(left)).toBeLessThanOrEqual(CEILING + 1e-6);
    expect(peakOf(left)).toBeGreaterThan(0.5);
  });
});

const figure = (page: Page, id: string) =>
  page.waitForSelector(`[data-figure=${id}]`).then((e) => e!.evaluate((x) => x.textContent ?? ''));

describe('the play bar', () => {
  it('cares for ears first, plays, follows the knobs, compares, and space stops it at once', async () => {
    const { page, desk } = at;
    await desk.openItself(await storePatch(at.url, printPatch(tremolo)));
    await page.click('[aria-label="Play"]');
    await page.waitForSelector('[data-care]');
    expect(await page.$('[data-live]')).toBeNull();
    await desk.button('I’ve turned it down');
    await playing(page);
    expect(await figure(page, 'dropouts')).toMatch(/Dropouts \d+/);
    await page.waitForFunction(() => /-?\d/.test(document.querySelector('[data-figure=peak]')?.textContent ?? ''));
    // The strip shows where each voltage is now.
    await page.waitForFunction(() => {
      const dot = document.querySelector('[data-live="slow.out"] circle');
      return dot?.getAttribute('cy') !== null && dot !== null;
    });
    await desk.stage('slow');
    await page.keyboard.press('x');
    await desk.type('rateHz', '8');
    await desk.select('Compare with', 'before');
    await page.waitForSelector('[data-match]');
    await page.waitForFunction(() => !document.querySelector('[data-match]')?.textContent?.includes('measuring'), {
      timeout: 20_000,
    });
    await page.keyboard.press('Escape');
    expect(await page.$('[data-beyond]')).toBeNull();
    // A file is of the side that is heard; a knob turns the patch in the editor, and brings it back.
    await page.click('[aria-label="A/B"] [value=there]');
    await desk.button('Export audio');
    await page.waitForSelector('::-p-xpath(//*[@role="dialog"]//p[contains(., "This exports the other side")])');
    await page.keyboard.press('Escape');
    await page.waitForSelector('[role=dialog]', { hidden: true });
    await desk.stage('slow');
    await desk.type('rateHz', '3');
    await page.waitForSelector('[aria-label="A/B"] [value=here][aria-pressed=true]');
    await page.waitForSelector('::-p-xpath(//*[contains(text(), "Switched back to Current")])');
    // From the start, by key: the time that it has played begins anew.
    const seconds = (least: number, most: number) =>
      page.waitForFunction(
        (lo, hi) => {
          const [, m, s] = /(\d+):(\d+)/.exec(document.querySelector('[data-figure=time]')?.textContent ?? '') ?? [];
          const now = 60 * Number(m) + Number(s);
          return now >= lo && now <= hi;
        },
        {},
        least,
        most,
      );
    await seconds(3, Infinity);
    await page.focus('[data-live] button');
    await desk.keys('Shift+KeyP');
    await seconds(0, 1);
    await seconds(2, Infinity);
    await page.focus('[data-live] button');
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=idle]');
    expect(await page.$('[data-figure=peak]')).toBeNull();
  });

  it('offers a test voice where Fixed voltage alone ends, and says what it does', async () => {
    const { page, desk } = at;
    const alone = read({
      modules: [
        { id: 'slow', kind: 'lfo' },
        { id: 'tone', kind: 'filter', label: 'Tone' },
      ],
      cables: [{ from: 'slow.out', to: 'tone.cutoff' }],
    });
    await desk.keep({ cared: true, guide: 'off' });
    await desk.openItself(await storePatch(at.url, printPatch(alone)));
    // Space is the key of a stage that one came to by keyboard, and plays after a click on it.
    await page.$eval('[data-frame=tone]', (e) => (e as SVGGElement).focus());
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-stage=tone]');
    expect(await page.$('[data-live]:not([data-live=idle])')).toBeNull();
    await page.click('[data-frame=slow]');
    await page.waitForSelector('[data-stage=slow]');
    await page.keyboard.press('Space');
    await playing(page);
    expect(await page.$('[data-stage=slow]')).not.toBeNull();
    const says = await page.waitForSelector('[data-voice]');
    expect(await says!.evaluate((e) => e.textContent)).toContain('two tones through Tone');
    // The voice is nobody's stage.
    expect((await desk.kept()).modules).toHaveLength(2);
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=idle]');
  });

  it('falls silent when the page is left, and says so when the sound thread dies', async () => {
    const { page, desk } = await at.ownPage();
    await page.evaluateOnNewDocument(() => {
      localStorage.setItem('fenvo.settings', '{"cared":true,"guide":"off"}');
      const Original = AudioContext;
      const made: AudioContext[] = [];
      const nodes: AudioWorkletNode[] = [];
      Object.assign(window, { made, nodes });
      window.AudioContext = class extends Original {
        constructor(options?: AudioContextOptions) {
          super(options);
          made.push(this);
        }
      };
      const Node = AudioWorkletNode;
      window.AudioWorkletNode = class extends Node {
        constructor(context: BaseAudioContext, name: string, options?: AudioWorkletNodeOptions) {
          super(context, name, options);
          nodes.push(this);
        }
      };
    });
    await desk.openItself(await storePatch(at.url, printPatch(tremolo)));
    const states = () => page.evaluate(() => (window as unknown as { made: AudioContext[] }).made.map((c) => c.state));
    await page.keyboard.press('Space');
    await playing(page);
    await page.evaluate(() =>
      (window as unknown as { nodes: AudioWorkletNode[] }).nodes[0]!.dispatchEvent(new Event('processorerror')),
    );
    await page.waitForSelector('::-p-xpath(//*[@role="alert"][contains(., "Audio stopped")])');
    await page.waitForSelector('[data-live=failed]');
    expect(await states()).toEqual(['closed']);
    await page.keyboard.press('Space');
    await playing(page);
    await page.click('header a[href="/"]');
    await page.waitForSelector('[data-patch]');
    await expect.poll(states).toEqual(['closed', 'closed']);
    // The next patch is silent until somebody asks.
    await page.click('[data-patch="fog-bank-breathing"] a');
    await page.waitForSelector('[data-frame=trim]');
    await desk.simulated();
    await page.waitForSelector('[data-live=idle]');
    expect(await states()).toEqual(['closed', 'closed']);
  });

  it('stopped while the device starts, it stays silent and lets go of it', async () => {
    const { page, desk } = await at.ownPage();
    await page.evaluateOnNewDocument(() => {
      localStorage.setItem('fenvo.settings', '{"cared":true,"guide":"off"}');
      const { addModule } = AudioWorklet.prototype;
      const kept = window as unknown as { begun: boolean; device: AudioContext | null; goOn: () => void };
      Object.assign(kept, { begun: false, device: null });
      const open = new Promise<void>((resolve) => (kept.goOn = resolve));
      AudioWorklet.prototype.addModule = async function (...args) {
        kept.begun = true;
        await open;
        return addModule.apply(this, args);
      };
      const Original = AudioContext;
      window.AudioContext = class extends Original {
        constructor(options?: AudioContextOptions) {
          super(options);
          kept.device = this;
        }
      };
    });
    await desk.openItself(await storePatch(at.url, printPatch(tremolo)));
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=starting]');
    await page.waitForFunction(() => (window as unknown as { begun: boolean }).begun);
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=stopping], [data-live=idle]');
    // The device is there only now.
    await page.evaluate(() => (window as unknown as { goOn: () => void }).goOn());
    await page.waitForFunction(() => (window as unknown as { device: AudioContext }).device.state === 'closed');
    await page.waitForSelector('[data-live=idle]');
    // And plays when it is asked again.
    await page.keyboard.press('Space');
    await playing(page);
  });
});

describe('a patch that takes more than there is', () => {
  it('says so, and plays on with only what is heard', async () => {
    const { page, desk } = await at.ownPage();
    // One oscillator that is heard, and a long chain that nobody hears, on a device that asks for four times as much.
    const unheard = Array.from({ length: 200 }, (_, i) => `f${i}`);
    const much = read({
      settings: { duration: 0.1 },
      modules: [
        { id: 'tone', kind: 'oscillator', label: 'Tone' },
        { id: 'out', kind: 'lineOut', label: 'Out' },
        ...unheard.map((id) => ({ id, kind: 'lowPassGate' })),
      ],
      cables: [
        { from: 'tone.saw', to: 'out.left' },
        ...unheard.map((id, i) => ({ from: i === 0 ? 'tone.saw' : `f${i - 1}.out`, to: `${id}.in` })),
      ],
    });
    await page.evaluateOnNewDocument(() => {
      localStorage.setItem('fenvo.settings', '{"cared":true,"guide":"off"}');
      const Original = AudioContext;
      window.AudioContext = class extends Original {
        constructor(options?: AudioContextOptions) {
          super({ sampleRate: 192_000, ...options });
        }
      };
    });
    await desk.openItself(await storePatch(at.url, printPatch(much)));
    await page.keyboard.press('Space');
    await playing(page);
    await page.waitForSelector('[data-heavy=true]', { timeout: 60_000 });
    // Gaps are counted, never hidden; the load alone may have said it before the first one.
    await page.waitForFunction(
      () => Number(/\d+/.exec(document.querySelector('[data-figure=dropouts]')?.textContent ?? '0')?.[0] ?? 0) > 0,
    );
    await desk.button('Audible modules only');
    await page.waitForSelector('[data-heavy=false]');
    await page.waitForFunction(
      () => Number(/\d+/.exec(document.querySelector('[data-figure=load]')?.textContent ?? '100')) < 50,
    );
    await page.waitForFunction(() => document.querySelector('[data-figure=peak]')?.textContent.includes('dB'));
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=idle]');
  });
});

describe('hands', () => {
  it('play faders, learn a controller, and a take becomes hands in one step', async () => {
    const { page, desk } = at;
    const fader = read({
      ...printPatch(tremolo),
      modules: [...tremolo.modules, { id: 'tide', kind: 'constant', label: 'Tide' }],
      cables: [...tremolo.cables, { from: 'tide.out', to: 'soft.cutoff' }],
    });
    await desk.keep({ cared: true, guide: 'off' });
    await desk.openItself(await storePatch(at.url, printPatch(fader)));
    await page.keyboard.press('Space');
    await playing(page);
    await desk.button('Controls');
    await page.waitForSelector('[data-fader="tide.volts"]');
    await desk.button('Virtual controller');
    await desk.button('MIDI learn');
    await desk.button('Record');
    const control = (await page.waitForSelector('[aria-label="Simulated control 7"]'))!;
    await control.focus();
    // It takes over once it comes to where the fader stands, in the middle.
    for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowRight');
    await page.waitForSelector('::-p-xpath(//*[@data-fader="tide.volts"]//*[@role="status"][contains(., "50%")])');
    expect((await desk.kept()).modules.find((m) => m.id === 'tide')!.params?.volts ?? 0).toBe(0);
    for (let i = 0; i < 68; i++) await page.keyboard.press('ArrowRight');
    expect(await page.$('[data-fader="tide.volts"] [role=status]')).toBeNull();
    await page.waitForSelector('::-p-xpath(//*[@data-fader="tide.volts"]//button[contains(., "CC 7")])');
    await desk.button('Stop recording');
    await page.waitForSelector('[data-take="1"]');
    await desk.button('Keep as automation');
    const { hands, controls } = await desk.kept();
    expect(hands.map((h) => h.at)).toEqual(['tide.volts']);
    // What was learned stays with the patch.
    expect(controls).toEqual([{ number: 7, at: 'tide.volts' }]);
    expect(hands[0]!.points.length).toBeGreaterThan(1);
    expect(hands[0]!.points.at(-1)!.value).toBeCloseTo(-5 + (80 / 127) * 10, 1);
    expect(await page.$('[data-beyond]')).toBeNull();
    // The keys play what they are sent to.
    await page.click('::-p-xpath(//section[@aria-label="Controls"]//button[normalize-space(.)="Keyboard"])');
    await desk.select('The keys’ pitch goes to', 'tide.volts');
    await page.focus('[aria-label=Keyboard]');
    await page.keyboard.press('m');
    await page.waitForFunction(() =>
      document.querySelector('[data-fader="tide.volts"]')?.textContent?.includes('\u22120.08'),
    );
    await page.keyboard.press('Escape');
    // The note that was played, as a file.
    const save = '::-p-xpath(//section[@aria-label="Controls"]//button[contains(., "Save 1 note as MIDI")])';
    await page.waitForSelector(save);
    const file = await downloaded(page, 'Tremolo.mid', () => page.locator(save).click());
    const { tracks } = parseMidi(file);
    expect(tracks.flat().flatMap((e) => (e.type === 'noteOn' ? [e.noteNumber] : []))).toEqual([59]);
    expect(tracks.flat().filter((e) => e.type === 'noteOff')).toHaveLength(1);
    // A pad for two knobs at once, and a gate for as long as it is held.
    await desk.button('XY pad');
    const pad = (await (await page.waitForSelector('[data-pad]'))!.boundingBox())!;
    await page.mouse.click(pad.x + 0.75 * pad.width, pad.y + 0.5 * pad.height);
    await page.waitForFunction(() => document.querySelector('[data-fader="tide.volts"]')?.textContent?.includes('2.5'));
    const gate = (await (await page.waitForSelector('[data-gate="tide.volts"]'))!.boundingBox())!;
    const reads = (text: string) =>
      page.waitForFunction(
        (t) => document.querySelector('[data-fader="tide.volts"]')?.textContent?.includes(t),
        {},
        text,
      );
    await page.mouse.move(gate.x + 10, gate.y + 10);
    await page.mouse.down();
    await reads('5.00');
    await page.mouse.up();
    await reads('0.00');
    // The hand is a lane on its stage: off again, and back by undo.
    await desk.button('Controls');
    await desk.end('soft.cutoff');
    await desk.stage('tide');
    await page.waitForSelector('[data-lane="tide.volts"]');
    // A knob under a hand says so, and when it is turned what can be done.
    await page.waitForSelector('::-p-xpath(//*[@data-knob="volts"][contains(., "automated")])');
    expect(await page.$('[data-hand-notice]')).toBeNull();
    await desk.type('volts', '1');
    await page.waitForSelector('[data-hand-notice="tide.volts"]');
    await desk.button('Play over it');
    await page.waitForSelector('::-p-xpath(//*[@data-hand-notice][contains(., "until you stop")])');
    await page.click('[aria-label^="Remove automation"]');
    await page.waitForFunction(() => !document.querySelector('[data-lane]'));
    await desk.button('Undo');
    await page.waitForSelector('[data-lane="tide.volts"]');
  });
  it('play the tuning of a scale, a mapping or a MIDI dump, which goes out and comes in again', async () => {
    const { page, desk } = at;
    const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-tuning-'));
    const put = (name: string, of: string | Uint8Array): string => {
      const file = path.join(folder, name);
      writeFileSync(file, of);
      return file;
    };
    const cents = [100, 200, 300, 386.3, 500, 600, 700, 800, 900, 1000, 1080, 1200];
    const scale = put('low.scl', ['Low B', '12', ...cents.map((c) => c.toFixed(1))].join('\n'));
    const mapped = [12, 0, 127, 60, 69, 440, 12, 0, 'x', 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].join('\n');
    const load = async (file: string): Promise<void> => {
      const input = await page.waitForSelector('[aria-label="Keyboard tuning"] input[type=file]');
      await (input as unknown as { uploadFile(file: string): Promise<void> }).uploadFile(file);
    };
    await desk.keep({ cared: true, guide: 'off' });
    const tide = { id: 'tide', kind: 'constant', label: 'Tide' };
    const tuned = { ...printPatch(tremolo), modules: [...tremolo.modules, tide] };
    await desk.openItself(await storePatch(at.url, tuned));
    await page.keyboard.press('Space');
    await playing(page);
    await desk.button('Controls');
    if (!(await page.$('[aria-label=Keyboard]')))
      await page.click('::-p-xpath(//section[@aria-label="Controls"]//button[normalize-space(.)="Keyboard"])');
    await page.waitForSelector('[data-tuning="Equal temperament"]');
    await load(scale);
    await page.waitForSelector('[data-tuning="Low B"]');
    await page.waitForSelector('[aria-label="Key B3 −20 ct"]');
    await desk.select('The keys’ pitch goes to', 'tide.volts');
    await page.focus('[aria-label=Keyboard]');
    await page.keyboard.press('m');
    await page.waitForFunction(() =>
      document.querySelector('[data-fader="tide.volts"]')?.textContent?.includes('\u22120.10'),
    );
    // Its mapping: the key that plays nothing cannot be pressed, nor does its letter.
    await load(put('gap.kbm', mapped));
    await page.waitForSelector('[aria-label="Key plays nothing"][disabled]');
    await page.keyboard.press('s');
    await page.waitForSelector('::-p-xpath(//button[contains(., "Save 1 note as MIDI")])');
    const dump = await downloaded(page, 'Low B.syx', () => desk.button('Save tuning'));
    const read = readTuning(dump);
    if (!read.ok) throw new Error(read.errors);
    expect(read.value.name).toBe('Low B');
    expect([60, 61].map((key) => read.value.notes[key])).toEqual([60, null]);
    expect(read.value.notes[59]).toBeCloseTo(58.8, 3);
    await desk.button('Equal temperament');
    await page.waitForSelector('[aria-label="Key B3"]');
    await load(put('again.syx', dump));
    await page.waitForSelector('[aria-label="Key B3 −20 ct"]');
    // Half of one changes nothing, and says so.
    await load(put('half.syx', dump.subarray(0, 100)));
    await page.waitForSelector('::-p-text(A tuning message in it is cut short.)');
    await page.waitForSelector('[data-tuning="Low B"]');
    await page.keyboard.press('Escape');
  });
});

describe('recipes', () => {
  it('open as patches of one’s own, that can be heard', async () => {
    const { page, desk } = at;
    await desk.keep({ cared: true, guide: 'off' });
    await desk.patches();
    await page.locator('[data-door="From a recipe"]').click();
    await page.waitForSelector('[data-recipe=tremolo]');
    await page.type('[aria-label="Search recipes"]', 'opposition');
    await page.waitForFunction(() => document.querySelectorAll('[data-recipe]').length === 1);
    await page.click('[data-recipe=opposite-filters] button');
    await page.waitForSelector('[data-reading="one.cutoff"], [data-frame]');
    await desk.simulated();
    expect((await desk.kept()).name).toBe('Two filters in opposition from one depth knob');
    await page.keyboard.press('Space');
    await playing(page);
    await desk.button('Export audio');
    await page.waitForSelector('#render-title');
    // Of the dialog: a panel behind it has one too.
    await page.locator('[role=dialog] ::-p-xpath(.//button[normalize-space()="Close"])').click();
    await page.waitForSelector('#render-title', { hidden: true });
    await page.keyboard.press('Space');
    await page.waitForSelector('[data-live=idle]');
  });
});

describe('one fader for many ends', () => {
  /** A table that is begun for the tremolo. */
  async function newTable(): Promise<void> {
    const { page, desk } = at;
    await desk.keep({ cared: true, guide: 'off' });
    await desk.openItself(await storePatch(at.url, printPatch(tremolo)));
    await desk.tab('patch');
    await desk.section('macros');
    await desk.button('New macro');
    await page.waitForSelector('#macro-title');
    await page.type('[role=dialog] [aria-label="Name"]', 'Storm');
  }

  it('is laid out as a table, said row by row what cannot be, and changed later as the table', async () => {
    const { page, desk } = at;
    await newTable();
    await desk.select('Add destination', 'soft.cutoff');
    await desk.select('Add destination', 'tone.pitch');
    const figure = async (label: string, text: string) => {
      await desk.fill(`[aria-label="${label}"]`, text);
      await page.keyboard.press('Enter');
    };
    await figure('Soft cutoff CV, from', '225');
    await figure('Soft cutoff CV, to', '90000');
    // The first Escape takes back what is typed, and leaves the dialog.
    const far = '[aria-label="Soft cutoff CV, to"]';
    await desk.fill(far, 'far');
    await desk.keys('Escape');
    expect(await desk.field(far)).toEqual({ text: '90000', fault: '' });
    await desk.button('Create stages');
    await page.waitForSelector('[data-macro-row="soft.cutoff"] [role=alert]');
    await figure('Soft cutoff CV, to', '3600');
    await desk.select('Tone 1 V/oct, curve', 'switch');
    await figure('Tone 1 V/oct, starts at', '4');
    await desk.button('Create stages');
    await page.waitForSelector('#macro-title', { hidden: true });
    const made = await desk.kept();
    expect(made.modules.map((m) => m.kind)).toEqual(expect.arrayContaining(['constant', 'offset', 'comparator']));
    await page.click('[data-macro] button');
    await page.waitForSelector('[data-macro-row="soft.cutoff"]');
    const to = await page.$eval('[aria-label="Soft cutoff CV, to"]', (e) => (e as HTMLInputElement).value);
    expect(Number(to)).toBeCloseTo(3600, 0);
    await page.click('[aria-label="Remove Tone 1 V/oct"]');
    await desk.button('Create stages');
    await page.waitForSelector('#macro-title', { hidden: true });
    expect((await desk.kept()).modules.some((m) => m.kind === 'comparator')).toBe(false);
  });

  it('asks before it takes the place of what an end gets, and keeps its ends under new names', async () => {
    const { page, desk } = at;
    await newTable();
    await desk.select('Add destination', 'amp.cv');
    await desk.button('Create stages');
    const row = '[data-macro-row="amp.cv"]';
    await page.waitForFunction(
      (s) => document.querySelector(`${s} [role=alert]`)?.textContent?.includes('replace'),
      {},
      row,
    );
    await desk.select('Amp CV, already connected to Slow out', 'mix');
    await desk.button('Create stages');
    await page.waitForSelector('#macro-title', { hidden: true });
    const made = await desk.kept();
    const mixer = made.modules.find((m) => m.kind === 'mixer')!;
    expect(made.cables).toEqual(expect.arrayContaining([{ from: 'slow.out', to: `${mixer.id}.in1` }]));
    expect(made.cables).toEqual(expect.arrayContaining([{ from: `${mixer.id}.out`, to: 'amp.cv' }]));
    await desk.end('amp.cv');
    await desk.stage('amp');
    await desk.fill('[aria-label="Name of the stage"]', 'Swell');
    await desk.keys('Enter');
    expect((await desk.kept()).modules.find((m) => m.id === 'amp')?.label).toBe('Swell');
    const id = desk.id();
    await desk.patches();
    await desk.openItself(id);
    await desk.tab('patch');
    await desk.section('macros');
    await page.click('[data-macro] button');
    await page.waitForSelector(row);
    await desk.button('Cancel');
  });
});
