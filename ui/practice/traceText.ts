import { showNumber } from '@/core';
import { counted } from '@/ui/parts/counted';

/** A turn smaller than this share of the whole span is none. */
const LEAST_TURN = 0.08;

/** How often a trace turns from up to down, turns too small to be seen left out. */
function peaksOf(trace: readonly number[], span: number): number {
  let [peaks, rises, extreme] = [0, false, trace[0] ?? 0];
  for (const v of trace) {
    const back = rises ? extreme - v : v - extreme;
    if (back <= 0) extreme = v;
    else if (back > LEAST_TURN * span) {
      if (rises) peaks++;
      rises = !rises;
      extreme = v;
    }
  }
  return peaks;
}

/** The longest that a trace moves by less than a fiftieth of its span, as a share of its length. */
function restOf(trace: readonly number[], span: number): number {
  let [longest, from] = [0, 0];
  trace.forEach((v, i) => {
    if (Math.abs(v - (trace[from] ?? v)) > span / 50) from = i;
    longest = Math.max(longest, i - from);
  });
  return longest / Math.max(1, trace.length - 1);
}

/** What is seen of a trace, for those who hear it: its range, both ends, its peaks, and how long it rests. */
export function traceText(trace: readonly number[]): string {
  if (trace.length === 0) return 'no trace';
  const [low, high] = [Math.min(...trace), Math.max(...trace)];
  const span = high - low;
  const volts = (v: number): string => showNumber(v, 1);
  if (span < 0.05) return `stands at ${volts(low)} volts`;
  const rest = restOf(trace, span);
  return [
    `${volts(low)} to ${volts(high)} volts`,
    `starts at ${volts(trace[0] ?? 0)}, ends at ${volts(trace.at(-1) ?? 0)}`,
    counted(peaksOf(trace, span), 'peak'),
    ...(rest > 0.05 ? [`still for up to ${Math.round(100 * rest)} percent of the time`] : []),
  ].join(', ');
}
