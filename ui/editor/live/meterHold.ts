import type { Heard } from '@/core/live/listening';
import type { LiveReport } from '@/wire/live';

/** How long the RMS is taken over, and how long a peak is held, milliseconds. */
const RMS_SPAN = 300;
const HOLD = 2000;

/** What the meter shows: the greatest of each since the last look, and the RMS of the last 300 ms. */
export interface MeterShown extends Heard {
  /** The greatest sample of the last two seconds, or since it was reset. */
  readonly held: number;
}

type Told = Pick<LiveReport, 'peak' | 'rms' | 'reduction' | 'heldBack' | 'samples'>;

/** Keeps the greatest of each figure from one look to the next, so that no report is lost between them. */
export class MeterHold {
  private peak = 0;
  private reduction = 0;
  private heldBack = 0;
  private held = { value: 0, at: 0 };
  private samples = 0;
  private recent: { readonly at: number; readonly square: number; readonly count: number }[] = [];

  /** @param now milliseconds, from any start. */
  add(told: Told, now: number): void {
    this.peak = Math.max(this.peak, told.peak);
    this.reduction = Math.max(this.reduction, told.reduction);
    this.heldBack = Math.max(this.heldBack, told.heldBack);
    if (told.peak >= this.held.value || now - this.held.at > HOLD) this.held = { value: told.peak, at: now };
    const count = Math.max(1, told.samples - this.samples);
    this.samples = told.samples;
    this.recent = [...this.recent.filter((r) => now - r.at < RMS_SPAN), { at: now, square: told.rms ** 2, count }];
  }

  reset(): void {
    this.held = { value: 0, at: -Infinity };
  }

  /** What there is to show now; what is only of the time since the last look begins anew. */
  take(now: number): MeterShown {
    const count = this.recent.reduce((sum, r) => sum + r.count, 0);
    const squares = this.recent.reduce((sum, r) => sum + r.square * r.count, 0);
    if (now - this.held.at > HOLD) this.held = { value: this.peak, at: now };
    const { peak, reduction, heldBack } = this;
    this.peak = 0;
    this.reduction = 0;
    this.heldBack = 0;
    return { peak, reduction, heldBack, held: this.held.value, rms: Math.sqrt(squares / Math.max(1, count)) };
  }
}
