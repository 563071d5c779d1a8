'use client';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { memo, useCallback, useMemo } from 'react';
import { connect, nameOf, socketPlace } from '@/core';
import type { GraphModule, Patch } from '@/core';
import { tell } from '@/ui/parts/messages';
import type { EditDesk } from '@/ui/session/edit';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Task } from '../commands/tasks';
import { MOST_TRACES } from '../scope/view';
import { InputRow, OutputRow } from './SocketRows';
import { inputLines, outputLines, outputsOf, outputsText } from './sockets';

interface Props {
  readonly module: GraphModule;
  readonly patch: Patch;
  readonly predicted: Predicted;
  readonly edit: EditDesk;
  readonly begin: (task: Task | null) => void;
}

const Heads = memo(function Heads() {
  return (
    <TableHead>
      <TableRow>
        <TableCell sx={{ width: '19%' }}>Socket</TableCell>
        <TableCell sx={{ width: '33%', whiteSpace: 'nowrap' }}>Connected to</TableCell>
        <TableCell sx={{ width: '40%', textAlign: 'right', pr: 0.5 }}>V</TableCell>
        <TableCell sx={{ width: '8%', pr: 0, textAlign: 'right' }}>Pin</TableCell>
      </TableRow>
    </TableHead>
  );
});

/** The sockets: what each input gets (to be moved here), and what each output gives; each can be pinned to the scope. */
export function SocketTable({ module, patch, predicted, edit, begin }: Props) {
  const bounds = predicted.bounds.get(module.id);
  const text = outputsText(predicted.graph.modules);
  const outputs = useMemo(() => outputsOf(text), [text]);
  const pins = useMemo(() => new Set(patch.probes.map((p) => p.at)), [patch.probes]);
  const full = patch.probes.length >= MOST_TRACES;
  const { label, kind } = module;
  const placeOf = useCallback((socket: string) => socketPlace({ label, kind }, nameOf(socket)), [label, kind]);
  const pin = useCallback(
    (socket: string) => {
      if (full && !pins.has(socket)) return tell(`The scope shows up to ${MOST_TRACES} signals. Unpin one first.`);
      edit(`${pins.has(socket) ? 'Unpin' : 'Pin'} ${placeOf(socket)}`, [
        { do: 'pin', at: socket, pinned: !pins.has(socket) },
      ]);
    },
    [edit, full, pins, placeOf],
  );
  const feed = useCallback((socket: string) => begin({ do: 'feed', socket }), [begin]);
  const plug = useCallback(
    (to: string, from: string | null) =>
      edit(`${from === null ? 'Unplug' : 'Connect'} ${placeOf(to)}`, [connect(to, from)]),
    [edit, placeOf],
  );
  if (module.inputs.length + module.outputs.length === 0) return null;
  return (
    <Table aria-label="Sockets" sx={{ tableLayout: 'fixed', mt: 1 }}>
      <Heads />
      <TableBody>
        {inputLines(module, predicted.graph, bounds).map((line) => (
          <InputRow
            key={line.socket}
            {...line}
            outputs={outputs}
            pinned={pins.has(line.socket)}
            onPin={pin}
            onPlug={plug}
            onFeed={feed}
          />
        ))}
        {outputLines(module, predicted.graph, bounds, (s) => predicted.prediction.outputs[s]?.settled).map((line) => (
          <OutputRow key={line.socket} {...line} pinned={pins.has(line.socket)} onPin={pin} />
        ))}
      </TableBody>
    </Table>
  );
}
