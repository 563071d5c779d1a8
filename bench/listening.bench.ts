import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Capturing } from '../tests/support/capturing';
import { Application } from '../tests/support/setup';
import { row } from './figures';

/**
 * The live input draws a sine over its prediction: samples lost on the way, breaks in what was heard, and frames; beside it
 * the same input heard by a page that draws nothing, since a browser without a sound device keeps time poorly by itself.
 * FENVO_SECONDS tells how long each; 60, if left out.
 */
const SECONDS = Number(process.env.FENVO_SECONDS ?? 60);
/** Turns a second; whole ones go into the file, so that it goes on without a seam. */
const HZ = 50;
const LEVEL = 0.5;

/** All samples that the page is handed, in its `heard`, and how many it was told are lost. */
const TAPPED = `
  window.heard = []; window.lost = 0;
  const Node = AudioWorkletNode;
  window.AudioWorkletNode = class extends Node {
    constructor(...given) {
      super(...given);
      this.port.addEventListener('message', ({ data }) => { window.heard.push(data.samples.slice()); window.lost = data.lost; });
    }
  };
`;

/** How often what was heard leaves the one sine that it can be: x(n + 1) = 2 cos w · x(n) − x(n − 1). */
function breaksIn(samples: readonly number[], sampleRate: number): number {
  const twice = 2 * Math.cos((2 * Math.PI * HZ) / sampleRate);
  const seam = (k: number): boolean =>
    Math.abs((samples[k + 1] as number) - twice * (samples[k] as number) + (samples[k - 1] as number)) > 0.002;
  let breaks = 0;
  for (let k = 1; k + 1 < samples.length; k++)
    if (seam(k)) {
      breaks++;
      k += 2;
    }
  return breaks;
}

/** What is heard from now on, and the frames beside it. */
async function tell(where: string): Promise<void> {
  const { heard, lost, sampleRate, gaps } = await live.page.evaluate(async (ms) => {
    const tapped = window as unknown as { heard: Float32Array[]; lost: number };
    tapped.heard = [];
    const before = tapped.lost;
    const times = await new Promise<number[]>((resolve) => {
      const found: number[] = [];
      const began = performance.now();
      let last = began;
      const tick = (now: number): void => {
        found.push(now - last);
        last = now;
        if (now - began < ms) requestAnimationFrame(tick);
        else resolve(found.slice(1));
      };
      requestAnimationFrame(tick);
    });
    return {
      heard: tapped.heard.flatMap((p) => Array.from(p)),
      lost: tapped.lost - before,
      sampleRate: new AudioContext().sampleRate,
      gaps: times,
    };
  }, 1000 * SECONDS);
  console.log(`${where}: ${(heard.length / sampleRate).toFixed(1)} of ${SECONDS} s heard at ${sampleRate} a second`);
  console.log(`  ${lost} samples lost, ${breaksIn(heard, sampleRate)} breaks in the sine`);
  console.log(`  time between frames, ms: ${row(gaps)}; ${(gaps.length / SECONDS).toFixed(1)} a second (60)`);
}

const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-listening-'));
const application = await Application.open();
const answer = await fetch(`${application.url}/api/bench/sessions`, {
  method: 'POST',
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify({ patch: 'fog-bank-breathing', rack: 'pier-rack' }),
});
const { id } = (await answer.json()) as { id: string };
const live = await Capturing.open(
  application.url,
  path.join(folder, 'sine.wav'),
  (t) => LEVEL * Math.sin(2 * Math.PI * HZ * t),
);
await live.page.evaluateOnNewDocument(TAPPED);
await live.listenTo(id);
await live.scaled();
await live.press('Set scale by peak-to-peak');
await tell('with the scope');

await live.page.goto(`${application.url}/bench`);
await live.page.evaluate(async () => {
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
  });
  const context = new AudioContext();
  await context.audioWorklet.addModule('/capture.worklet.js');
  const node = new AudioWorkletNode(context, 'fenvo-capture', { numberOfOutputs: 0 });
  node.port.start();
  context.createMediaStreamSource(stream).connect(node);
});
await tell('a page that draws nothing');
await live.close();
await application.close();
rmSync(folder, { recursive: true, force: true });
