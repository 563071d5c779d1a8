/** The pitch of 0 V, and how far a voltage moves it: volts an octave. */
export const TONE_HZ = 440;
export const TONE_VOLTS = 4;
/** Further off it is no higher or lower, volts. */
const MOST = 16;
/** How loud it is beside a sound of 5 V, volts peak. */
const LOUD = 0.5;
/** How long it takes to come in and to go, seconds. */
const FADE = 0.02;

/** A soft sine whose pitch is a voltage: what moves slowly is heard beside the sound. */
export class Tone {
  private phase = 0;
  private gain = 0;
  private on = false;
  private volts = 0;

  constructor(private readonly sampleRate: number) {}

  /** Sounds, or fades out where it last was. */
  sound(on: boolean): void {
    this.on = on;
  }

  /** Adds it to both ears, volts. @param from the voltage that is heard; null while there is none. */
  add(from: Float64Array | null, left: Float64Array, right: Float64Array, begin: number, count: number): void {
    const step = 1 / (FADE * this.sampleRate);
    for (let i = 0; i < count; i++) {
      const wanted = this.on && from ? 1 : 0;
      this.gain = Math.min(1, Math.max(0, this.gain + (wanted ? step : -step)));
      if (this.gain === 0) continue;
      if (from) this.volts = Math.min(MOST, Math.max(-MOST, from[i] as number));
      this.phase = (this.phase + (TONE_HZ * 2 ** (this.volts / TONE_VOLTS)) / this.sampleRate) % 1;
      const v = LOUD * this.gain * Math.sin(2 * Math.PI * this.phase);
      left[begin + i] = (left[begin + i] as number) + v;
      right[begin + i] = (right[begin + i] as number) + v;
    }
  }
}
