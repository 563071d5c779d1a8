'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { showRange, showVoltRange } from '@/core';
import type { Finding, GraphModule } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';
import { shareOf } from './strip/frames';
import type { Predicted } from './usePrediction';

/** `1 error`, `2 notes`; nothing where there is nothing to say. */
export function findingsText(findings: readonly Finding[]): { text: string; colour: string } | null {
  for (const [severity, colour] of [
    ['error', ink.error],
    ['warning', ink.warning],
    ['note', ink.softInk],
  ] as const) {
    const count = findings.filter((f) => f.severity === severity).length;
    if (count > 0) return { text: `${count} ${severity}${count === 1 ? '' : 's'}`, colour };
  }
  return null;
}

export function Heading({ children }: { children: string }) {
  return (
    <Box component="h2" sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk, m: 0, px: 1.75, pt: 2, pb: 1 }}>
      {children}
    </Box>
  );
}

interface Props {
  readonly predicted: Predicted;
  readonly shown: string | null;
  readonly onShow: (socket: string) => void;
  readonly onSelect: (id: string) => void;
}

/** The destinations with their figures, then the sources. */
export function EndsList({ predicted, shown, onShow, onSelect }: Props) {
  const { graph, ends, bounds } = predicted;
  const sources = graph.modules.filter((m) => m.kind.room === 'source');
  return (
    <>
      <Heading>Ends</Heading>
      {ends.map((socket) => (
        <EndRow
          key={socket}
          socket={socket}
          predicted={predicted}
          chosen={socket === shown}
          onShow={() => onShow(socket)}
        />
      ))}
      {ends.length === 0 && <Box sx={{ px: 1.75, color: ink.softInk }}>No destination is reached yet.</Box>}
      <Heading>Sources</Heading>
      {sources.map((m) => (
        <ButtonBase
          key={m.id}
          onClick={() => onSelect(m.id)}
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
          <span>{m.label}</span>
          <Box
            component="span"
            sx={{ fontFamily: fonts.numbers, color: ink.softInk, fontSize: 13, textAlign: 'right' }}
          >
            {showVoltRange(...(bounds.get(m.id)?.outputs[0] ?? [0, 0]))}
          </Box>
        </ButtonBase>
      ))}
    </>
  );
}

function EndRow({
  socket,
  predicted,
  chosen,
  onShow,
}: {
  socket: string;
  predicted: Predicted;
  chosen: boolean;
  onShow: () => void;
}) {
  const [id = '', name = ''] = socket.split('.');
  const m = predicted.graph.modules.find((x) => x.id === id) as GraphModule;
  const reading = predicted.prediction.readings.find((r) => r.at === socket);
  const findings = predicted.prediction.findings.filter((f) => f.at.startsWith(`${id}.`));
  const said = findingsText(findings);
  const text = reading ? showRange(reading.low, reading.high, reading.unit) : '';
  return (
    <ButtonBase
      onClick={onShow}
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
        <Box component="span" sx={{ fontWeight: 700 }}>{`${m.label}, ${name}`}</Box>
        {said && (
          <Box component="span" sx={{ color: said.colour, fontSize: 13, whiteSpace: 'nowrap' }}>
            {said.text}
          </Box>
        )}
      </Box>
      <Box sx={{ fontFamily: fonts.numbers }} data-reading={socket}>
        {text}
      </Box>
      <RangeBar m={m} socket={socket} predicted={predicted} />
    </ButtonBase>
  );
}

function RangeBar({ m, socket, predicted }: { m: GraphModule; socket: string; predicted: Predicted }) {
  const name = socket.split('.')[1] ?? '';
  const spec = m.kind.ends?.find((e) => e.sockets.includes(name)) ?? null;
  const reading = predicted.prediction.readings.find((r) => r.at === socket);
  if (!spec || !reading) return null;
  const share = (drive: number): number => shareOf(spec, m.params, drive);
  const [low, high] = reading.driveVolts;
  const window = spec.window(m.params);
  return (
    <Box
      component="svg"
      viewBox="0 0 208 10"
      preserveAspectRatio="none"
      aria-hidden="true"
      sx={{ display: 'block', width: '100%', height: 10, mt: 0.5 }}
    >
      <rect x="0" y="3.5" width="208" height="3" fill={ink.line} />
      <rect
        x={208 * share(low)}
        y="2"
        width={Math.max(3, 208 * (share(high) - share(low)))}
        height="6"
        fill={ink.seen}
      />
      {low < window[0] - 1e-9 && <rect x="0" y="1" width="6" height="8" fill={ink.error} />}
      {high > window[1] + 1e-9 && <rect x="202" y="1" width="6" height="8" fill={ink.error} />}
    </Box>
  );
}
