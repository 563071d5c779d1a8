'use client';
import { partsOf } from '@/core';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import Button from '@mui/material/Button';
import { idOf, showVoltRange } from '@/core';
import type { GraphModule } from '@/core';
import { worstText } from '@/ui/parts/counted';
import { headingStyle } from '@/ui/parts/fieldStyle';
import { readingMore, readingText } from '@/ui/parts/readingText';
import { fonts, ink } from '@/ui/theme/tokens';
import { glossary } from '@/ui/parts/glossary';
import { shareOf } from '../strip/frames';
import type { Task } from '../commands/tasks';
import type { Predicted } from '@/ui/session/usePrediction';

const Heading = memo(function Heading({ children }: { children: string }) {
  return (
    <Box component="h2" sx={{ ...headingStyle, px: 1.75, pt: 2, pb: 1 }}>
      {children}
    </Box>
  );
});

const navStyle = {
  width: { md: 236 },
  flexShrink: 0,
  borderRight: { md: `1px solid ${ink.line}` },
  overflowY: 'auto',
  pb: 2,
  contain: { md: 'strict' },
} as const;

interface Props {
  readonly predicted: Predicted;
  /** The sockets to list. */
  readonly ends: readonly string[];
  readonly shown: string | null;
  readonly onShow: (socket: string) => void;
  readonly onSelect: (id: string) => void;
  readonly begin: (task: Task | null) => void;
}

/** The destinations with their figures, then the sources, then what lies beside every path. */
export const EndsList = memo(function EndsList({ predicted, ends, shown, onShow, onSelect, begin }: Props) {
  const { graph, bounds } = predicted;
  const sources = graph.modules.filter((m) => m.kind.room === 'source');
  const loose = looseModules(predicted, ends);
  return (
    <Box component="nav" aria-label="Ends and sources" sx={navStyle}>
      <Heading>Ends</Heading>
      {ends.map((socket) => (
        <EndRow key={socket} {...rowOf(socket, predicted)} chosen={socket === shown} onShow={onShow} />
      ))}
      {ends.length === 0 && <Box sx={{ px: 1.75, color: ink.softInk }}>No destination yet.</Box>}
      <EndActions end={(predicted.strip?.frames.length ?? 0) > 1 ? shown : null} begin={begin} />
      <Heading>Sources</Heading>
      {sources.map((m) => (
        <SourceRow
          key={m.id}
          id={m.id}
          label={m.label}
          range={showVoltRange(...(bounds.get(m.id)?.outputs[0] ?? [0, 0]))}
          onSelect={onSelect}
        />
      ))}
      {loose.length > 0 && (
        <>
          <Heading>Beside every path</Heading>
          {loose.map(({ id, label, why }) => (
            <SourceRow key={id} id={id} label={label} range={why} onSelect={onSelect} />
          ))}
        </>
      )}
      <ModuleAction begin={begin} />
    </Box>
  );
});

const EndActions = memo(function EndActions({ end, begin }: { end: string | null } & Pick<Props, 'begin'>) {
  const copy = (mirrored: boolean): void => begin({ do: 'copy', from: end ?? '', mirrored });
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, px: 1.75, pt: 1 }}>
      <Button onClick={() => begin({ do: 'end' })}>Add an end</Button>
      {end !== null && (
        <>
          <Button onClick={() => copy(false)} title="Copy this chain to another end">
            Copy chain
          </Button>
          <Button onClick={() => copy(true)} title={glossary.mirrored}>
            Mirrored
          </Button>
        </>
      )}
    </Box>
  );
});

const ModuleAction = memo(function ModuleAction({ begin }: Pick<Props, 'begin'>) {
  return (
    <Box sx={{ px: 1.75, pt: 1.5 }}>
      <Button onClick={() => begin({ do: 'module' })}>Add a module</Button>
    </Box>
  );
});

/** Stages that are bypassed, reach nothing, or get nothing: each with which of it. */
function looseModules({ graph }: Predicted, ends: readonly string[]): { id: string; label: string; why: string }[] {
  const bypassed = new Set(graph.patch.bypassed.map((b) => b.module));
  const used = new Set(graph.patch.cables.map((c) => idOf(c.from)));
  const normals = new Set(graph.patch.normals.flatMap((n) => ('from' in n ? [idOf(n.from)] : [])));
  const isEnd = new Set(ends.map(idOf));
  return graph.modules.flatMap((m) => {
    const base = { id: m.id, label: m.label };
    if (bypassed.has(m.id)) return [{ ...base, why: 'bypassed' }];
    if (isEnd.has(m.id)) return [];
    const reaches = m.outputs.length === 0 || used.has(m.id) || normals.has(m.id);
    if (!reaches) return [{ ...base, why: 'reaches nothing' }];
    const gets = m.kind.room === 'source' || m.inputs.some((s) => s.connected);
    return gets ? [] : [{ ...base, why: 'gets nothing' }];
  });
}

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
  readonly lost: 'none' | 'low' | 'high' | 'both';
  readonly chosen: boolean;
  readonly onShow: (socket: string) => void;
  /** What else is to be said of the reading, in lines. */
  readonly more: string;
}

function rowOf(socket: string, predicted: Predicted): Omit<RowProps, 'chosen' | 'onShow'> {
  const { id, name } = partsOf(socket);
  const m = predicted.graph.modules.find((x) => x.id === id) as GraphModule;
  const reading = predicted.prediction.readings.find((r) => r.at === socket);
  const counts = { error: 0, warning: 0, note: 0 };
  for (const f of predicted.prediction.findings) if (f.at.startsWith(`${id}.`)) counts[f.severity]++;
  const said = worstText(counts);
  const spec = m.kind.ends?.find((e) => e.sockets.includes(name)) ?? null;
  const [from, to] = reading?.driveVolts ?? [0, 0];
  const [least, most] = spec?.window(m.params) ?? [-Infinity, Infinity];
  const [below, above] = [from < least - 1e-9, to > most + 1e-9];
  return {
    socket,
    label: `${m.label}, ${name}`,
    text: reading ? readingText(reading) : 'nothing is plugged in',
    more: reading ? readingMore(reading).join('\n') : '',
    said: said?.text ?? '',
    colour: said?.colour ?? '',
    low: spec?.window(m.params) && reading ? shareOf(spec, m.params, from) : null,
    high: spec?.window(m.params) && reading ? shareOf(spec, m.params, to) : null,
    lost: below && above ? 'both' : below ? 'low' : above ? 'high' : 'none',
  };
}

const EndRow = memo(function EndRow({
  socket,
  label,
  text,
  more,
  said,
  colour,
  low,
  high,
  lost,
  chosen,
  onShow,
}: RowProps) {
  return (
    <ButtonBase
      onClick={() => onShow(socket)}
      aria-pressed={chosen}
      data-end={socket}
      sx={{
        display: 'block',
        width: '100%',
        px: 1.5,
        py: 1,
        textAlign: 'left',
        borderLeft: `3px solid ${chosen ? ink.wanted : 'transparent'}`,
        background: chosen ? ink.raised : 'none',
        font: 'inherit',
      }}
    >
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
        <Box component="span" sx={{ fontWeight: 700 }}>
          {label}
        </Box>
        {said && (
          <Box component="span" sx={{ color: colour, fontSize: 13, whiteSpace: 'nowrap' }}>
            {said}
          </Box>
        )}
      </Box>
      <Box sx={{ fontFamily: fonts.numbers }} data-reading={socket}>
        {text}
      </Box>
      {more && <Box sx={{ fontSize: 12, color: ink.softInk, whiteSpace: 'pre' }}>{more}</Box>}
      {low !== null && high !== null && <RangeBar low={low} high={high} lost={lost} />}
    </ButtonBase>
  );
});

function RangeBar({ low, high, lost }: { low: number; high: number; lost: RowProps['lost'] }) {
  return (
    <Box
      component="svg"
      viewBox="0 0 208 10"
      preserveAspectRatio="none"
      aria-hidden="true"
      sx={{ display: 'block', width: '100%', height: 10, mt: 0.5 }}
    >
      <rect x="0" y="3.5" width="208" height="3" fill={ink.line} />
      <rect x={208 * low} y="2" width={Math.max(3, 208 * (high - low))} height="6" fill={ink.seen} />
      {(lost === 'low' || lost === 'both') && <rect x="0" y="1" width="6" height="8" fill={ink.error} />}
      {(lost === 'high' || lost === 'both') && <rect x="202" y="1" width="6" height="8" fill={ink.error} />}
    </Box>
  );
}

const SourceRow = memo(function SourceRow({
  id,
  label,
  range,
  onSelect,
}: {
  id: string;
  label: string;
  range: string;
  onSelect: (id: string) => void;
}) {
  return (
    <ButtonBase
      onClick={() => onSelect(id)}
      sx={{
        display: 'flex',
        width: '100%',
        justifyContent: 'space-between',
        gap: 1,
        px: 1.75,
        py: 0.5,
        textAlign: 'left',
        font: 'inherit',
      }}
    >
      <Box component="span" title={label} sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {label}
      </Box>
      <Box component="span" sx={{ fontFamily: fonts.numbers, color: ink.softInk, fontSize: 12, whiteSpace: 'nowrap' }}>
        {range}
      </Box>
    </ButtonBase>
  );
});
