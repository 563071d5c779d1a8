import { WaveFile } from 'wavefile';

/** A sample of 1.0 in a file is this many volts. */
export const WAV_FULL_VOLTS = 10;

/** Traces as a 32-bit float WAV, one channel a probe, volts divided by 10. */
export function tracesToWav(traces: readonly ArrayLike<number>[], sampleRate: number): Uint8Array {
  const channels = traces.map((trace) => Float64Array.from(trace, (v) => v / WAV_FULL_VOLTS));
  const file = new WaveFile();
  file.fromScratch(
    channels.length,
    sampleRate,
    '32f',
    channels.length === 1 ? (channels[0] as Float64Array) : channels,
  );
  file.setTag('ICMT', `1.0 is ${WAV_FULL_VOLTS} V`);
  return file.toBuffer();
}
