import { createStore } from 'zustand';
import { editsBetween } from '@/core';
import type { Patch } from '@/core';
import type { DeskStore } from '@/ui/session/desk';
import { tell } from '@/ui/parts/messages';
import { settings } from '@/ui/parts/settings';
import { hearing, isPlayed } from '@/ui/session/hearing';
import { meters } from '@/ui/session/meters';
import { Tabs } from '@/ui/session/otherTabs';
import type { LiveReport } from '@/wire/live';
import { audition, restNoMore } from '@/ui/session/audition';
import { asHeard, isWiredOtherwise, tellAuditioned } from './audition';
import { Heaviness } from './heavy';
import { watchBackground } from './background';
import { MeterHold } from './meterHold';
import { listenedTo } from './listened';
import type { Listened } from './listened';
import { isHeardOtherwise, matchFor, start, tracesOf } from './liveState';
import type { LiveState, Other } from './liveState';
import { Recording } from './recording';
import { Sound } from './sound';
import { isSilent, Transport } from './transport';
import type { PlayState } from './transport';
import { Watching } from './watching';

/** How often the figures in the bar change, in reports. */
const TEXT_EVERY = 8;

const NOTHING = 'Nothing to hear yet. Add an oscillator, or choose a connected destination.';

/** One editor's sound: what plays is what is in the editor, edit by edit. */
export class Live {
  readonly store = createStore<LiveState>(() => ({ ...start, level: settings.getState().startDb }));
  private readonly transport = new Transport<Sound>((state) => this.onPlayState(state));
  private sent: Listened | null = null;
  private end: string | null = null;
  private readonly watching = new Watching();
  private reports = 0;
  private heaviness = new Heaviness();
  private meter = new MeterHold();
  readonly recording = new Recording(this.store, {
    sound: () => this.sound,
    seconds: () => this.seconds(),
    bpm: () => this.shown().settings.bpm,
    follow: () => this.follow(),
    play: () => void this.play(),
  });
  /** Seconds of play at the last report, and when it came. */
  private clock = { at: 0, came: 0 };
  private told = 0;
  private dropouts = 0;
  /** The other tabs of this browser. */
  private tabs: Tabs | null = null;
  constructor(private readonly desk: DeskStore) {}

  /**
   * Follows the editor, until it is closed: then silent, and nothing of it left.
   *
   * @returns closes it.
   */
  open(): () => void {
    const left = this.desk.subscribe((now, before) => {
      if (now.patch === before.patch) return;
      if (this.store.getState().side === 'there' && isHeardOtherwise(before.patch, now.patch)) this.comeBack();
      this.recording.note(before.patch, now.patch, (this.sound?.edits ?? 0) + 1, this.seconds());
      this.follow();
    });
    const heard = audition.subscribe((now, before) => {
      if (isWiredOtherwise(now, before)) this.follow();
      if (this.sound) tellAuditioned(this.sound, this.recording.runs, before);
    });
    const hide = (): void => this.stop();
    window.addEventListener('pagehide', hide);
    const ended = watchBackground({
      plays: () => this.transport.phase === 'playing',
      stop: hide,
      dropouts: () => this.dropouts,
    });
    const tabs = new Tabs(hide);
    this.tabs = tabs;
    return () => {
      this.stop();
      left();
      heard();
      ended();
      tabs.close();
      window.removeEventListener('pagehide', hide);
    };
  }

  /** All other tabs of this browser fall silent. */
  hushOthers(): void {
    this.tabs?.hush();
  }

  private set(part: Partial<LiveState>): void {
    this.store.setState(part);
    if (part.phase) hearing.setState({ playing: part.phase === 'playing' });
  }

  private listened(): Listened | null {
    return asHeard(this.shown(), this.end, this.store.getState(), this.recording.moved);
  }

  /** The side that is heard. */
  private shown(): Patch {
    const { other, side } = this.store.getState();
    return side === 'there' && other ? other.patch : this.desk.getState().patch;
  }

  /** What a file of the sound holds: the side that is heard. */
  toFile(): { readonly patch: Patch; readonly heard: Listened | null } {
    const patch = this.shown();
    return { patch, heard: this.heardOf(patch) };
  }

  /** How a state of the patch would be heard now; null where nothing of it can be. */
  heardOf(patch: Patch): Listened | null {
    return listenedTo(patch, this.end, this.store.getState().choice);
  }

  async play(): Promise<void> {
    if (!isSilent(this.transport.phase)) return;
    if (!this.listened()) {
      this.recording.silent();
      this.set({ fault: NOTHING });
      return;
    }
    this.set({ fault: null, report: null, heavy: false, beyond: [] });
    const rate = this.store.getState().halfRate ? 24_000 : null;
    await this.transport.play(
      (listener) => Sound.open(rate, { ...listener, onReport: (report) => this.report(report), onNotice: tell }),
      (sound) => this.begin(sound),
    );
  }

  /** The device is there: what is in the editor by now is played on it. */
  private async begin(sound: Sound): Promise<void> {
    const traces = await tracesOf(this.desk.getState().patch);
    const listened = this.listened();
    if (this.transport.phase !== 'starting') return;
    if (!listened) throw new Error(NOTHING);
    this.sent = listened;
    this.watching.start(listened.patch);
    this.reports = 0;
    this.heaviness = new Heaviness();
    this.meter = new MeterHold();
    this.told = 0;
    this.clock = { at: 0, came: performance.now() };
    sound.play(listened.patch, listened.ears, this.store.getState().level, traces);
    sound.setMatch(matchFor(this.store.getState()));
    tellAuditioned(sound, this.recording.runs);
    this.set({ voice: listened.voice });
  }

  /** Playing stands elsewhere now. */
  private onPlayState(state: PlayState): void {
    if (isSilent(state.phase)) {
      this.recording.silent();
      this.sent = null;
      restNoMore();
      this.watching.stop();
      this.tabs?.silent();
      this.set({
        phase: state.phase,
        voice: null,
        ...(state.phase === 'failed' && { fault: state.fault }),
      });
      return;
    }
    this.set({ phase: state.phase });
    if (state.phase !== 'playing') return;
    this.watch();
    this.tabs?.plays(this.desk.getState().patch.name);
    this.recording.plays();
  }

  private get sound(): Sound | null {
    return this.transport.device;
  }

  stop(): void {
    this.transport.stop();
  }

  toggle(): void {
    if (isSilent(this.transport.phase)) void this.play();
    else this.stop();
  }

  /** Plays from t = 0, whichever side is heard. */
  restart(): void {
    if (isSilent(this.transport.phase)) void this.play();
    else this.anew({});
  }

  /** Seconds of play, now; never less than told before, though a late report sets the clock back. */
  seconds(): number {
    this.told = Math.max(this.told, this.clock.at + (performance.now() - this.clock.came) / 1000);
    return this.told;
  }

  /** What is in the editor is what is heard. */
  private follow(switchDb?: number): void {
    const { sound, sent } = this;
    if (!sound || !sent) return;
    const now = this.listened();
    if (!now) {
      this.stop();
      return;
    }
    this.sent = now;
    this.watching.follow(now.patch, sound.edits + 1);
    sound.edit(editsBetween(sent.patch, now.patch), now.ears, isPlayed(), switchDb);
    if (now.voice !== this.store.getState().voice) this.set({ voice: now.voice });
    if (now.patch.modules !== sent.patch.modules) this.watch();
  }

  private watch(): void {
    if (this.sent && this.sound) this.watching.begin(this.sent.patch, this.sound);
  }

  /** The end whose path is shown, and what is pinned. */
  look(end: string | null, pins: readonly string[]): void {
    const other = end !== this.end;
    this.end = end;
    this.watching.look(pins);
    if (!this.sound) return;
    if (other) this.follow();
    this.watch();
  }

  /** Forgets the held peak. */
  resetMeter(): void {
    this.meter.reset();
  }

  setLevel(level: number): void {
    this.set({ level });
    this.sound?.setLevel(level);
  }

  listenTo(choice: string): void {
    this.set({ choice });
    this.follow();
  }

  setHalfRate(halfRate: boolean): void {
    this.anew({ halfRate });
  }

  /** Plays only what the ears hang on, or all of the patch. */
  setAlone(alone: boolean): void {
    this.set({ alone });
    // A thread that has more to do than time hears of no edit.
    if (this.store.getState().heavy) this.anew({});
    else this.follow();
  }

  /** Sounds again from the start. */
  private anew(change: Partial<LiveState>): void {
    const plays = this.transport.phase === 'playing';
    if (plays) this.stop();
    this.set({ ...change, heavy: false });
    if (plays) void this.play();
  }

  compareWith(other: Other | null): void {
    this.set({ other, side: 'here' });
    this.follow();
    this.sound?.setMatch(matchFor(this.store.getState()));
  }

  /** Plays another state of the patch at once. */
  hear(other: { readonly name: string; readonly patch: Patch }): void {
    this.compareWith({ ...other, match: null });
    this.swap();
    if (isSilent(this.transport.phase)) void this.play();
  }

  matchedBy(match: Other['match']): void {
    const { other } = this.store.getState();
    if (!other) return;
    this.set({ other: { ...other, match } });
    this.sound?.setMatch(matchFor(this.store.getState()));
  }

  setMatched(matched: boolean): void {
    this.set({ matched });
    this.sound?.setMatch(matchFor(this.store.getState()));
  }

  /** Knobs turn the patch in the editor: that is what is heard from now on. */
  private comeBack(): void {
    this.set({ side: 'here' });
    this.follow(matchFor(this.store.getState()));
    tell('Switched back to Current: that is what you are editing.');
  }

  swap(): void {
    const { other, side } = this.store.getState();
    if (!other) return;
    this.set({ side: side === 'here' ? 'there' : 'here' });
    this.follow(matchFor(this.store.getState()));
  }

  private report(report: LiveReport): void {
    if (!this.sound) return;
    meters.add(report);
    const came = performance.now();
    const at = report.samples / report.sampleRate;
    // A loop has turned.
    if (at < this.clock.at) this.told = 0;
    this.clock = { at, came };
    this.reports++;
    this.dropouts = report.dropouts;
    this.recording.heard(report);
    this.meter.add(report, came);
    const heavy = this.heaviness.add(report.load, report.dropouts, came / 1000);
    if (heavy && !this.store.getState().heavy) this.set({ heavy });
    const beyond = this.watching.beyond(report, this.store.getState().beyond);
    if (beyond.length > 0) this.set({ beyond: [...this.store.getState().beyond, ...beyond] });
    if (this.reports % TEXT_EVERY === 0) this.set({ report, meter: this.meter.take(came) });
  }
}
