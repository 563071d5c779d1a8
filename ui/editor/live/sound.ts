import type { Edit, Patch } from '@/core';
import { settings } from '@/ui/parts/settings';
import { watchDevice } from './deviceWatch';
import type { Device, DeviceListener } from './transport';
import type { FromLive, ListenTo, LiveReport, LiveTrace, ToLive } from '@/wire/live';

/** Where the sound thread's program lies; made when the application is built. */
const PROGRAM = '/live.worklet.js';

let opened = 0;
/** A device that has not begun by then will not, milliseconds. */
const PATIENCE = 6000;

/** @throws Error where a sound device does not answer. */
function inTime(begun: Promise<void>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('The audio device isn’t responding. Press Play again.')), PATIENCE);
  });
  return Promise.race([begun, late]).finally(() => clearTimeout(timer));
}

interface Listener extends DeviceListener {
  /** Something to know, with which sound goes on. */
  onNotice(text: string): void;
  onReport(report: LiveReport): void;
}

/** A context as browsers have it that let a page choose its device. */
interface Choosing {
  setSinkId?(device: string): Promise<void>;
}

/** Plays on the device that is preferred, where it is there; else on the system's, and says so. */
async function onDevice(context: AudioContext, listener: Listener): Promise<void> {
  const { device } = settings.getState();
  if (device === '') return;
  try {
    const choosing = context as Choosing;
    if (!choosing.setSinkId) throw new Error('it cannot be chosen here');
    await inTime(choosing.setSinkId(device));
  } catch {
    listener.onNotice('The preferred sound device isn’t available. Playing on the system’s.');
  }
}

/** The way to the sound device: one patch that plays, from a person's own act until it is stopped. */
export class Sound implements Device {
  private sent = 0;
  /** Differs for each that was opened. */
  readonly number = ++opened;
  private closed = false;
  private readonly unwatch: () => void;

  private constructor(
    private readonly context: AudioContext,
    private readonly node: AudioWorkletNode,
    private readonly listener: Listener,
    isOwnRate: boolean,
  ) {
    node.port.onmessage = ({ data }: MessageEvent<FromLive>) => this.take(data);
    node.addEventListener('processorerror', () => this.fail('The audio engine stopped.'));
    this.unwatch = watchDevice(context, isOwnRate, {
      onLost: (fault) => this.fail(fault),
      onNotice: (text) => listener.onNotice(text),
    });
  }

  /**
   * @param sampleRate of the device's own, or less where a patch is too heavy for it.
   * @throws Error where there is no sound here.
   */
  static async open(sampleRate: number | null, listener: Listener): Promise<Sound> {
    if (typeof AudioContext === 'undefined') throw new Error('This browser doesn’t support audio playback.');
    const context = new AudioContext({ latencyHint: 'interactive', ...(sampleRate !== null && { sampleRate }) });
    try {
      await context.audioWorklet.addModule(PROGRAM);
      const node = new AudioWorkletNode(context, 'fenvo-live', { numberOfInputs: 0, outputChannelCount: [2] });
      node.connect(context.destination);
      await onDevice(context, listener);
      await inTime(context.resume());
      return new Sound(context, node, listener, sampleRate === null);
    } catch (error) {
      await context.close();
      throw error;
    }
  }

  private take(message: FromLive): void {
    if (message.is === 'report') this.listener.onReport(message);
    else if (message.is === 'failed') this.fail(message.message);
    else if (message.is === 'stopped') this.close();
  }

  private fail(message: string): void {
    if (this.closed) return;
    this.listener.onLost(`Audio stopped: ${message} Your patch is safe. Press Play again.`);
    this.close();
  }

  private tell(message: ToLive): void {
    this.node.port.postMessage(message);
  }

  play(patch: Patch, ears: ListenTo, level: number, traces: readonly LiveTrace[]): void {
    this.tell({ do: 'play', patch, ears, level, traces });
  }

  get sampleRate(): number {
    return this.context.sampleRate;
  }

  /** How many edits were sent. */
  get edits(): number {
    return this.sent;
  }

  /**
   * @param played a hand plays: what jumps then is meant. @param switchDb the gain of the other side of a comparison,
   * where it is gone over to.
   */
  edit(edits: readonly Edit[], ears: ListenTo, played: boolean, switchDb?: number): void {
    this.tell({ do: 'edit', edits, ears, played, number: ++this.sent, ...(switchDb !== undefined && { switchDb }) });
  }

  setLevel(db: number): void {
    this.tell({ do: 'level', db });
  }

  setMatch(db: number): void {
    this.tell({ do: 'match', db });
  }

  setBalance(balance: number): void {
    this.tell({ do: 'balance', balance });
  }

  setTone(socket: string | null): void {
    this.tell({ do: 'tone', socket });
  }

  /** @param span seconds after t = 0; null to play on. */
  setLoop(span: readonly [from: number, to: number] | null): void {
    this.tell({ do: 'loop', span });
  }

  /** Ticks, at seconds after t = 0. */
  count(at: readonly number[]): void {
    this.tell({ do: 'count', at: at.map((t) => Math.round(t * this.sampleRate)) });
  }

  watch(sockets: readonly string[], traces: readonly string[]): void {
    this.tell({ do: 'watch', sockets, traces });
  }

  /** Falls silent within milliseconds, and lets go of the device. */
  stop(): void {
    this.tell({ do: 'stop' });
    // Where the thread is too busy to hear it, the device is let go of all the same.
    setTimeout(() => this.close(), 60);
  }

  private close(): void {
    if (this.closed) return;
    this.closed = true;
    this.unwatch();
    this.node.disconnect();
    void this.context.close();
    this.listener.onClosed();
  }
}
