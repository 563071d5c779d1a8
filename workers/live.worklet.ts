import { applyEdits, Meter, Player } from '../core';
import type { Patch } from '../core';
import { TRACE_PAIRS } from '../wire/live';
import type { FromLive, LiveReport, LiveTrace, ToLive } from '../wire/live';

/** What the browser gives on its sound thread. */
declare const sampleRate: number;
declare const currentTime: number;
declare function registerProcessor(name: string, processor: new () => unknown): void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

/** How often it reports, seconds. */
const REPORT = 1 / 60;
/** So late against the clock is a gap that can be heard, milliseconds. */
const LATE = 30;
/** Over how long the load is told, milliseconds. */
const LOAD_SPAN = 500;

/** How much of its time the patch takes, and how often sound came too late; by the wall clock, the only one there is. */
class Clock {
  private readonly began = Date.now();
  private spanBegan = this.began;
  private worked = 0;
  private ahead: number | null = null;
  load = 0;
  dropouts = 0;

  /** One block was worked out. */
  add(from: number, to: number): void {
    this.worked += to - from;
    const span = to - this.spanBegan;
    if (span >= LOAD_SPAN) {
      this.load = this.worked / span;
      this.worked = 0;
      this.spanBegan = to;
    }
    // The device's time against the wall's: it falls behind where a block came too late, and stays there.
    const ahead = currentTime * 1000 - (to - this.began);
    if (this.ahead === null || ahead > this.ahead) this.ahead = ahead;
    else if (this.ahead - ahead > LATE) {
      this.dropouts++;
      this.ahead = ahead;
    }
  }
}

interface Playing {
  readonly player: Player;
  patch: Patch;
  number: number;
}

interface Tap {
  readonly left: Float32Array;
  readonly right: Float32Array;
  readonly sockets: readonly string[];
  readonly volts: readonly Float64Array[];
  filled: number;
}

class LiveProcessor extends AudioWorkletProcessor {
  private playing: Playing | null = null;
  private clock = new Clock();
  private watched: readonly { readonly socket: string; readonly meter: Meter }[] = [];
  private traced: readonly { readonly socket: string; readonly meters: readonly Meter[] }[] = [];
  private tap: Tap | null = null;
  private since = 0;
  private stopping = 0;
  private begun: (readonly [number, number])[] = [];

  constructor() {
    super();
    this.port.onmessage = ({ data }: MessageEvent<ToLive>) => this.guarded(() => this.take(data));
  }

  /** What fails is told, and silence follows. */
  private guarded(work: () => void): void {
    try {
      work();
    } catch (error) {
      this.playing = null;
      this.tell({ is: 'failed', message: error instanceof Error ? error.message : String(error) });
    }
  }

  private tell(message: FromLive): void {
    this.port.postMessage(message);
  }

  private take(message: ToLive): void {
    const { playing } = this;
    switch (message.do) {
      case 'play':
        this.play(message);
        break;
      case 'edit':
        if (!playing) break;
        playing.patch = applyEdits(playing.patch, message.edits);
        playing.number = message.number;
        this.begun.push([message.number, playing.player.engine.samples]);
        if (message.switchDb === undefined) playing.player.edit(playing.patch, message.ears, message.played);
        else playing.player.switchTo(playing.patch, message.ears, message.switchDb);
        break;
      case 'level':
        playing?.player.listening.setLevel(message.db);
        break;
      case 'match':
        playing?.player.listening.setMatch(message.db);
        break;
      case 'balance':
        playing?.player.listening.setBalance(message.balance);
        break;
      case 'tone':
        playing?.player.setTone(message.socket);
        break;
      case 'loop':
        playing?.player.setLoop(message.span);
        break;
      case 'count':
        playing?.player.count(message.at);
        break;
      case 'watch':
        this.watched = message.sockets.map((socket) => ({ socket, meter: new Meter() }));
        this.traced = message.traces.map((socket) => ({
          socket,
          meters: Array.from({ length: TRACE_PAIRS }, () => new Meter()),
        }));
        break;
      case 'tap':
        this.tap = {
          left: new Float32Array(message.samples),
          right: new Float32Array(message.samples),
          sockets: message.sockets,
          volts: message.sockets.map(() => new Float64Array(message.samples)),
          filled: 0,
        };
        break;
      case 'stop':
        playing?.player.listening.stop();
        this.stopping = sampleRate * 0.02;
        break;
    }
  }

  private play({ patch, ears, level, traces }: Extract<ToLive, { do: 'play' }>): void {
    const byId = new Map<string, LiveTrace>(traces.map((t) => [t.id, t]));
    const player = new Player(patch, sampleRate, ears, (id) => byId.get(id) ?? null);
    player.listening.setLevel(level);
    player.listening.start();
    this.playing = { player, patch, number: 0 };
    this.clock = new Clock();
    this.stopping = 0;
    this.begun = [];
    this.since = 0;
  }

  process(_inputs: unknown, [output]: readonly Float32Array[][]): boolean {
    const [left, right = left] = output ?? [];
    if (!this.playing || !left || !right) return true;
    const { player } = this.playing;
    const began = Date.now();
    this.guarded(() => this.block(player, left, right));
    this.clock.add(began, Date.now());
    return true;
  }

  private block(player: Player, left: Float32Array, right: Float32Array): void {
    const { block } = player.engine;
    for (let from = 0; from < left.length; from += block) {
      const count = Math.min(block, left.length - from);
      player.next(left.subarray(from, from + count), right.subarray(from, from + count), count);
      this.see(player, left.subarray(from, from + count), right.subarray(from, from + count), count);
      this.since += count / sampleRate;
      if (this.since >= REPORT) this.report(player);
    }
    if (this.stopping > 0 && (this.stopping -= left.length) <= 0) {
      this.playing = null;
      this.tell({ is: 'stopped' });
    }
  }

  private see(player: Player, left: Float32Array, right: Float32Array, count: number): void {
    const { engine } = player;
    for (const { socket, meter } of this.watched) if (engine.has(socket)) meter.add(engine.buffer(socket), count);
    const part = Math.min(TRACE_PAIRS - 1, Math.floor((this.since / REPORT) * TRACE_PAIRS));
    for (const { socket, meters } of this.traced) {
      if (engine.has(socket)) meters[part]?.add(engine.buffer(socket), count);
    }
    const { tap } = this;
    if (!tap) return;
    const room = Math.min(count, tap.left.length - tap.filled);
    tap.left.set(left.subarray(0, room), tap.filled);
    tap.right.set(right.subarray(0, room), tap.filled);
    tap.sockets.forEach((s, i) => tap.volts[i]?.set(engine.buffer(s).subarray(0, room), tap.filled));
    tap.filled += room;
    if (tap.filled < tap.left.length) return;
    this.tell({ is: 'tapped', left: tap.left, right: tap.right, volts: tap.volts });
    this.tap = null;
  }

  private report(player: Player): void {
    this.since = 0;
    const watched = new Float32Array(this.watched.length * 3);
    this.watched.forEach(({ meter }, i) => meter.take(watched, 3 * i));
    const traced = new Float32Array(this.traced.length * TRACE_PAIRS * 2);
    const three = new Float32Array(3);
    this.traced.forEach(({ meters }, i) =>
      meters.forEach((meter, j) => {
        meter.take(three, 0);
        traced.set(three.subarray(1), 2 * (i * TRACE_PAIRS + j));
      }),
    );
    const report: LiveReport = {
      is: 'report',
      samples: player.engine.samples,
      sampleRate,
      load: this.clock.load,
      dropouts: this.clock.dropouts,
      number: this.playing?.number ?? 0,
      begun: this.begun,
      ...player.heard(),
      watched,
      traced,
    };
    this.begun = [];
    this.tell(report);
  }
}

registerProcessor('fenvo-live', LiveProcessor);
