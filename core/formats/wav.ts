import { WaveFile } from 'wavefile';

/** A sample of 1.0 in a file is this many volts. */
export const WAV_FULL_VOLTS = 10;

/** Samples of all channels, one after the other at each moment, full scale as 1, as a file of 32-bit floats has them. */
function interleaved(traces: readonly ArrayLike<number>[], length: number): Uint8Array {
  const view = new DataView(new ArrayBuffer(4 * length * traces.length));
  traces.forEach((trace, channel) => {
    for (let i = 0; i < length; i++) {
      view.setFloat32(4 * (i * traces.length + channel), (trace[i] as number) / WAV_FULL_VOLTS, true);
    }
  });
  return new Uint8Array(view.buffer);
}

/** Traces of one length as a 32-bit float WAV, one channel a probe, volts divided by 10. */
export function tracesToWav(traces: readonly ArrayLike<number>[], sampleRate: number): Uint8Array {
  const length = traces[0]?.length ?? 0;
  const file = new WaveFile();
  file.fromScratch(traces.length, sampleRate, '32f', traces.length === 1 ? [] : traces.map(() => []));
  // The package would pack them bit by bit: 1.2 s for 400 000 samples instead of 16 ms.
  const samples = interleaved(traces, length);
  Object.assign(file.data, { samples, chunkSize: samples.length });
  Object.assign(file.fact, { dwSampleLength: length });
  file.setTag('ICMT', `1.0 is ${WAV_FULL_VOLTS} V`);
  return file.toBuffer();
}
