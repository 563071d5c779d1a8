import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import { idOf, partsOf, readingFor, socketPlace } from '@/core';
import type { GraphModule } from '@/core';
import { worstText } from '@/ui/parts/counted';
import { furtherText, noiseText, readingMore, readingText } from '@/ui/parts/readingText';
import type { Units } from '@/ui/parts/readingText';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';
import { isBracket, isOwn, shareOf, wantedDrives } from '../strip/frames';
import { standing } from '../targets/words';

/** What a row shows, as plain values, so that only rows whose figures changed are drawn again. */
interface RowProps {
  readonly socket: string;
  readonly label: string;
  readonly text: string;
  readonly said: string;
  readonly colour: string;
  /** Shares 0..1 of the destination's window; null without one. */
  readonly low: number | null;
  readonly high: number | null;
  /** Where the target's ends stand in the window: shares, by a space. */
  readonly ticks: string;
  readonly lost: 'none' | 'low' | 'high' | 'both';
  /** How what is wanted there stands, in words; empty where nothing is. */
  readonly wanted: string;
  readonly met: boolean;
  readonly chosen: boolean;
  readonly onShow: (socket: string) => void;
  /** What else is to be said of the reading, in lines. */
  readonly more: string;
}

export function rowOf(socket: string, predicted: Predicted, units: Units): Omit<RowProps, 'chosen' | 'onShow'> {
  const { id, name } = partsOf(socket);
  const m = predicted.graph.modules.find((x) => x.id === id) as GraphModule;
  const { readings } = predicted.prediction;
  const reading = readings.find((r) => r.at === socket);
  const counts = { error: 0, warning: 0, note: 0 };
  for (const f of predicted.prediction.findings) if (idOf(f.at) === id && f.at !== id) counts[f.severity]++;
  const said = worstText(counts);
  const spec = m.kind.ends?.find((e) => e.sockets.includes(name)) ?? null;
  const wanted = predicted.missed.filter((x) => x.target.at === socket);
  const worst = wanted.find((x) => !x.met) ?? wanted[0];
  const [from, to] = reading?.arrivesVolts ?? [0, 0];
  const [least, most] = spec?.window(m.params) ?? [-Infinity, Infinity];
  const [below, above] = [from < least - 1e-9, to > most + 1e-9];
  const bracket =
    worst && isBracket(worst.target) && isOwn(worst.target, spec, m.params)
      ? wantedDrives(worst.target, spec, m.params)
      : [];
  const ticks = bracket.flatMap((drive) => (drive === null ? [] : [shareOf(spec, m.params, drive)]));
  return {
    socket,
    label: socketPlace(m, name),
    text: reading ? readingText(reading, units) : 'Not connected',
    more: [
      ...furtherText(readings, socket, units),
      ...noiseText(predicted.full?.prediction.noise?.[socket]),
      ...(reading ? readingMore(reading, units) : []),
    ].join('\n'),
    wanted: worst ? standing(worst, readingFor(readings, worst.target)) : '',
    met: worst?.met ?? true,
    said: said?.text ?? '',
    colour: said?.colour ?? '',
    low: spec?.window(m.params) && reading ? shareOf(spec, m.params, from) : null,
    high: spec?.window(m.params) && reading ? shareOf(spec, m.params, to) : null,
    ticks: ticks.map((share) => share.toFixed(3)).join(' '),
    lost: below && above ? 'both' : below ? 'low' : above ? 'high' : 'none',
  };
}

const row = {
  display: 'block',
  width: '100%',
  px: 1.5,
  py: 1,
  textAlign: 'left',
  borderLeft: `3px solid ${ink.clear}`,
  font: 'inherit',
} as const;
const chosenRow = { ...row, borderLeft: `3px solid ${ink.wanted}`, background: ink.raised } as const;

// Fixed styles, so that nothing is worked out anew while a knob is turned.
const styles = {
  head: { display: 'flex', justifyContent: 'space-between', gap: 8 },
  label: { fontWeight: 700 },
  said: { fontSize: 13, whiteSpace: 'nowrap' },
  reading: { display: 'block', fontFamily: fonts.numbers },
  met: { display: 'block', fontSize: 13, color: ink.good },
  missed: { display: 'block', fontSize: 13, color: ink.error },
  more: { display: 'block', fontSize: 12, color: ink.softInk, whiteSpace: 'pre-line' },
  bar: { display: 'block', width: '100%', height: 10, marginTop: 4 },
} as const;

export const EndRow = memo(function EndRow({
  socket,
  label,
  text,
  more,
  said,
  colour,
  low,
  high,
  lost,
  ticks,
  wanted,
  met,
  chosen,
  onShow,
}: RowProps) {
  return (
    <ButtonBase onClick={() => onShow(socket)} aria-pressed={chosen} data-end={socket} sx={chosen ? chosenRow : row}>
      <span style={styles.head}>
        <span style={styles.label}>{label}</span>
        {said && <span style={{ ...styles.said, color: colour }}>{said}</span>}
      </span>
      <span style={styles.reading} data-reading={socket}>
        {text}
      </span>
      {wanted && (
        <span data-wanted={met} style={met ? styles.met : styles.missed}>
          {met ? 'Target met' : wanted}
        </span>
      )}
      {more && <span style={styles.more}>{more}</span>}
      {low !== null && high !== null && <RangeBar low={low} high={high} lost={lost} ticks={ticks} />}
    </ButtonBase>
  );
});

const tick = (share: number) => ({ x: Math.min(206, 208 * share), y: 0, width: 2, height: 10 });

interface RangeBarProps extends Pick<RowProps, 'lost' | 'ticks'> {
  readonly low: number;
  readonly high: number;
}

/** What arrives in the destination's window, against the ends of its target. */
function RangeBar({ low, high, lost, ticks }: RangeBarProps) {
  return (
    <svg viewBox="0 0 208 10" preserveAspectRatio="none" aria-hidden="true" style={styles.bar}>
      <rect x="0" y="3.5" width="208" height="3" fill={ink.line} />
      <rect x={208 * low} y="2" width={Math.max(3, 208 * (high - low))} height="6" fill={ink.seen} />
      {(lost === 'low' || lost === 'both') && <rect x="0" y="1" width="6" height="8" fill={ink.error} />}
      {(lost === 'high' || lost === 'both') && <rect x="202" y="1" width="6" height="8" fill={ink.error} />}
      {ticks.split(' ').map((share) => share && <rect key={share} {...tick(Number(share))} fill={ink.wanted} />)}
    </svg>
  );
}
