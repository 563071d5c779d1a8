/**
 * Traces as CSV: `time_s`, then one column of volts a probe, dot decimals.
 *
 * @yields chunks of text, so that a long window need not fit in one string.
 */
export function* tracesToCsv(traces: ReadonlyMap<string, ArrayLike<number>>, sampleRate: number): Generator<string> {
  const columns = [...traces.values()];
  yield `time_s,${[...traces.keys()].join(',')}\n`;
  const length = columns[0]?.length ?? 0;
  for (let from = 0; from < length; from += 4096) {
    let chunk = '';
    for (let k = from; k < Math.min(length, from + 4096); k++) {
      chunk += `${k / sampleRate}`;
      for (const column of columns) chunk += `,${column[k]}`;
      chunk += '\n';
    }
    yield chunk;
  }
}
