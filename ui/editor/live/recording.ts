import type { StoreApi } from 'zustand';
import type { Patch } from '@/core';
import type { LiveReport } from '@/wire/live';
import { tellAuditioned } from './audition';
import type { LiveState } from './liveState';
import { Recorder } from './recorder';
import type { Sound } from './sound';

interface Playing {
  /** What sounds now. */
  sound(): Sound | null;
  /** Seconds of play by the page's clock. */
  seconds(): number;
  /** The tempo of what is heard. */
  bpm(): number;
  /** What is heard has changed. */
  follow(): void;
  play(): void;
}

/** What hands turn while a patch plays, recorded: begun, ended, and what waits then to be kept. */
export class Recording {
  private readonly recorder = new Recorder();
  /** It begins with play. */
  private isWanted = false;

  constructor(
    private readonly store: StoreApi<LiveState>,
    private readonly playing: Playing,
  ) {}

  get runs(): boolean {
    return this.recorder.runs;
  }

  /** Knobs that were turned in it: each is in the hand's own power. */
  get moved(): ReadonlySet<string> {
    return this.recorder.moved;
  }

  note(before: Patch, after: Patch, edit: number, t: number): void {
    this.recorder.note(before, after, edit, t);
  }

  /** Begins to record what is turned, or ends it: what was recorded waits to be kept. */
  record(on: boolean): void {
    const sound = this.playing.sound();
    if (on && sound) {
      // A take runs on past the end of a loop.
      sound.setLoop(null);
      const { countIn } = this.store.getState();
      const ticks = this.recorder.begin(this.playing.seconds(), this.playing.bpm(), countIn);
      if (ticks.length > 0) sound.count(ticks);
      this.store.setState({ recording: true, counting: ticks.length > 0, take: null });
      return;
    }
    this.end();
    this.playing.follow();
    if (sound) tellAuditioned(sound, this.runs);
    this.takeOut(!sound);
  }

  private end(): void {
    this.recorder.end(this.playing.seconds());
    this.store.setState({ recording: false, counting: false });
  }

  /** What was recorded, once all of it was heard. @param now at once: no more will be heard. */
  private takeOut(now: boolean): void {
    if (!this.recorder.isEnded || (this.recorder.waits && !now)) return;
    this.store.setState({ take: this.recorder.taken() });
  }

  /** Records from now on; plays first, where it does not. */
  recordNow(): void {
    if (this.store.getState().recording) return;
    if (this.playing.sound()) {
      this.record(true);
      return;
    }
    this.isWanted = true;
    this.playing.play();
  }

  /** It plays from now on. */
  plays(): void {
    if (!this.isWanted) return;
    this.isWanted = false;
    this.record(true);
  }

  /** Nothing sounds, and nothing is about to. */
  silent(): void {
    this.isWanted = false;
    this.end();
    this.takeOut(true);
  }

  /** What the sound thread tells: when moves were heard. */
  heard({ begun, number, samples, sampleRate }: LiveReport): void {
    if (this.store.getState().counting && !this.recorder.counts(samples / sampleRate))
      this.store.setState({ counting: false });
    for (const [edit, sample] of begun) this.recorder.heard(edit, (sample - 1) / sampleRate);
    this.takeOut(number >= (this.playing.sound()?.edits ?? 0));
  }

  setCountIn(countIn: number): void {
    this.store.setState({ countIn });
  }

  /** The take was kept, or is not wanted. */
  drop(): void {
    this.store.setState({ take: null });
  }
}
