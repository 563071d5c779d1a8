'use client';
import Box from '@mui/material/Box';
import { scaleLinear } from 'd3-scale';
import { useMemo, useState } from 'react';
import { jointAt, readQuantity, showNumber, showVolts } from '@/core';
import { CommitField } from '@/ui/parts/CommitField';
import { SelectField } from '@/ui/parts/SelectField';
import { useSize } from '@/ui/parts/useSize';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Trace, Window } from './view';

/** More points than this say nothing more on a screen. */
const MOST = 6000;
const EDGE = { left: 44, bottom: 24, top: 10, right: 10 } as const;

/** All that a trace reaches, and a volt either way at least. */
function scaleFor(t: Trace | undefined, range: [number, number]) {
  const { min, max } = t?.probe.measures ?? { min: -1, max: 1 };
  return scaleLinear()
    .domain([Math.min(-1, min), Math.max(1, max)])
    .nice(5)
    .range(range);
}

/** One probe over another, in the part of the window that is in view. */
export function XyPlot({ traces, sampleRate, view }: { traces: readonly Trace[]; sampleRate: number; view: Window }) {
  const [across, setAcross] = useState(traces[0]?.socket ?? '');
  const [up, setUp] = useState(traces[1]?.socket ?? traces[0]?.socket ?? '');
  const [box, size] = useSize<HTMLDivElement>({ width: 400, height: 200 });
  const [a, b] = [across, up].map((s) => traces.find((t) => t.socket === s) ?? traces[0]);
  const side = Math.max(120, Math.min(size.width - EDGE.left - EDGE.right, size.height - EDGE.top - EDGE.bottom));
  const x = useMemo(() => scaleFor(a, [0, side]), [a, side]);
  const y = useMemo(() => scaleFor(b, [side, 0]), [b, side]);
  const path = useMemo(() => {
    if (!a || !b) return '';
    const [from, to] = [
      Math.floor(view.from * sampleRate),
      Math.min(a.probe.trace.length, Math.ceil(view.to * sampleRate)),
    ];
    const step = Math.max(1, Math.floor((to - from) / MOST));
    let d = '';
    for (let k = from; k < to; k += step) {
      d += `${d ? 'L' : 'M'}${x(a.probe.trace[k] as number).toFixed(1)},${y(b.probe.trace[k] as number).toFixed(1)}`;
    }
    return d;
  }, [a, b, view, sampleRate, x, y]);
  const options = traces.map((t) => [t.socket, t.label] as const);
  const choose = (label: string, value: string, set: (s: string) => void) => (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, fontSize: 13, mb: 1 }}>
      <Box sx={{ width: 48 }}>{label}</Box>
      <SelectField label={label} value={value} options={options} onChange={set} sx={{ maxWidth: 180 }} />
    </Box>
  );
  if (!a || !b) return null;
  return (
    <Box sx={{ flex: 1, minHeight: 190, display: 'flex', gap: 2 }}>
      <Box ref={box} sx={{ flex: 1, minWidth: 0 }}>
        <svg
          width={side + EDGE.left + EDGE.right}
          height={side + EDGE.top + EDGE.bottom}
          role="img"
          aria-label={`${b.label} over ${a.label}`}
          data-xy
        >
          <g transform={`translate(${EDGE.left},${EDGE.top})`} fontFamily={fonts.numbers} fontSize="12" fill={ink.ink}>
            {x.ticks(5).map((v) => (
              <g key={v}>
                <line x1={x(v)} x2={x(v)} y1="0" y2={side} stroke={v === 0 ? ink.softInk : ink.line} />
                <text x={x(v)} y={side + 16} textAnchor="middle">
                  {showNumber(v, 0, true)}
                </text>
              </g>
            ))}
            {y.ticks(5).map((v) => (
              <g key={v}>
                <line x1="0" x2={side} y1={y(v)} y2={y(v)} stroke={v === 0 ? ink.softInk : ink.line} />
                <text x="-8" y={y(v) + 4} textAnchor="end">
                  {showNumber(v, 0, true)}
                </text>
              </g>
            ))}
            <path d={path} fill="none" stroke={ink.trace} strokeWidth="1.2" />
          </g>
        </svg>
      </Box>
      <Box sx={{ pt: 1 }}>
        {choose('Across', a.socket, setAcross)}
        {choose('Up', b.socket, setUp)}
        <Joint a={a} b={b} sampleRate={sampleRate} />
      </Box>
    </Box>
  );
}

const PLACES = [
  ['lowest', 'at its lowest'],
  ['middle', 'in its middle'],
  ['highest', 'at its highest'],
  ['figure', 'at a voltage'],
] as const;

/** Crossings whose voltages are told. */
const MOST_TOLD = 6;

/** What the one trace is while the other is at a voltage. */
function Joint({ a, b, sampleRate }: { a: Trace; b: Trace; sampleRate: number }) {
  const [place, setPlace] = useState<(typeof PLACES)[number][0]>('middle');
  const [volts, setVolts] = useState(0);
  const found = useMemo(
    () => jointAt(a.probe.trace, b.probe.trace, place === 'figure' ? volts : place, sampleRate),
    [a, b, place, volts, sampleRate],
  );
  const told = [...new Set(found.map((c) => showVolts(c.other)))];
  const more = told.length > MOST_TOLD ? ` … (${told.length} voltages)` : '';
  const put = (text: string): string | null => {
    const read = readQuantity(text, 'V');
    if (read === null) return 'Type a voltage.';
    setVolts(read);
    return null;
  };
  return (
    <Box sx={{ mt: 1.5, fontSize: 13, maxWidth: 240 }} data-joint>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
        {`When ${a.label} is`}
        <SelectField label="Where across is" value={place} options={PLACES} onChange={setPlace} />
        {place === 'figure' && <CommitField label="Voltage across" value={showVolts(volts)} width={84} onPut={put} />}
      </Box>
      <Box sx={{ mt: 0.5 }}>
        {`${b.label} is at `}
        <Box component="span" sx={{ fontFamily: fonts.numbers }}>
          {told.length === 0 ? 'no voltage: it is never there' : `${told.slice(0, MOST_TOLD).join(', ')}${more}`}
        </Box>
      </Box>
    </Box>
  );
}
