'use client';
import { connect, socketAt } from '@/core';
import AddIcon from '@mui/icons-material/Add';
import PushPinIcon from '@mui/icons-material/PushPin';
import PushPinOutlinedIcon from '@mui/icons-material/PushPinOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Button from '@mui/material/Button';
import { memo, useCallback, useMemo, useState } from 'react';
import type { ReactNode } from 'react';
import { showVoltRange } from '@/core';
import type { GraphInput, GraphModule, Patch } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { glossary } from '@/ui/parts/glossary';
import { tell } from '@/ui/parts/messages';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';
import type { Predicted } from '@/ui/session/usePrediction';
import type { EditDesk } from '@/ui/session/edit';
import { MOST_TRACES } from '../scope/view';
import { NormalFields } from './NormalFields';
import type { Option } from './NormalFields';
import { OhmsField } from './OhmsField';

interface Props {
  readonly module: GraphModule;
  readonly patch: Patch;
  readonly predicted: Predicted;
  readonly edit: EditDesk;
  readonly begin: (task: Task | null) => void;
}

/** The outputs that a cable can come from; the same list while no module comes, goes or is renamed. */
function useOutputs(predicted: Predicted): readonly Option[] {
  const text = predicted.graph.modules
    .map((m) => `${m.id}\t${m.label}\t${m.outputs.map((o) => o.name).join(' ')}`)
    .join('\n');
  return useMemo(
    () =>
      text.split('\n').flatMap((line) => {
        const [id = '', label = '', names = ''] = line.split('\t');
        return names
          .split(' ')
          .filter(Boolean)
          .map((name) => ({ socket: socketAt(id, name), name: `${label}, ${name}` }));
      }),
    [text],
  );
}

interface InputProps {
  readonly socket: string;
  readonly name: string;
  readonly from: string;
  readonly empty: string;
  readonly range: string;
  readonly outputs: readonly Option[];
  readonly pinned: boolean;
  readonly onPin: (socket: string) => void;
  readonly onPlug: (socket: string, from: string | null) => void;
  /** Chooses what drives it, looking first. */
  readonly onFeed: (socket: string) => void;
  readonly children?: ReactNode;
}

const InputRow = memo(function InputRow({
  socket,
  name,
  from,
  empty,
  range,
  outputs,
  pinned,
  onPin,
  onPlug,
  onFeed,
  children,
}: InputProps) {
  return (
    <Box sx={{ py: 0.25 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
        <Box component="span" sx={{ color: ink.softInk, minWidth: 52 }}>
          {name}
        </Box>
        <Box
          component="select"
          aria-label={`${name} gets`}
          sx={{ ...fieldStyle, flex: 1, minWidth: 0 }}
          value={from}
          onChange={(e) => onPlug(socket, e.target.value || null)}
        >
          <option value="">{empty}</option>
          {outputs.map((o) => (
            <option key={o.socket} value={o.socket}>
              {o.name}
            </option>
          ))}
        </Box>
        {from === '' && (
          <IconButton aria-label={`Choose what drives ${name}`} onClick={() => onFeed(socket)} sx={{ p: 0.5 }}>
            <AddIcon sx={{ fontSize: 16 }} />
          </IconButton>
        )}
        <PinButton socket={socket} pinned={pinned} onPin={onPin} />
      </Box>
      {range && <Box sx={{ fontFamily: fonts.numbers, textAlign: 'right', pr: 3.5 }}>{range}</Box>}
      {children}
    </Box>
  );
});

/** What an input without a plug gets. */
function emptyText(input: GraphInput, patch: Patch): string {
  const { driver } = input;
  if (patch.cables.some((c) => c.to === input.socket)) return 'nothing';
  if (driver.type === 'output') {
    const normal = patch.normals.find((n) => n.to === input.socket);
    return normal && 'from' in normal ? `nothing: normal ${normal.from}` : 'nothing';
  }
  const broken = patch.normals.some((n) => n.to === input.socket && 'from' in n);
  if (broken) return 'nothing: its normal is broken';
  return driver.volts === 0 ? 'nothing' : `nothing: normal ${driver.volts} V`;
}

function inputRange(input: GraphInput, range: readonly [number, number] | undefined): string {
  if (!input.connected || !range) return '';
  const late = input.driver.type === 'output' && input.driver.delayed ? ' · loop, one sample late' : '';
  return `${showVoltRange(...range)}${late}`;
}

/** The sockets: what each input gets (to be moved here), and what each output gives; each can be pinned to the scope. */
export function SocketList({ module, patch, predicted, edit, begin }: Props) {
  const found = predicted.bounds.get(module.id);
  const outputs = useOutputs(predicted);
  const pins = useMemo(() => new Set(patch.probes.map((p) => p.at)), [patch.probes]);
  const [normals, setNormals] = useState(false);
  const full = patch.probes.length >= MOST_TRACES;
  const pin = useCallback(
    (socket: string) => {
      if (full && !pins.has(socket)) return tell(`The scope shows ${MOST_TRACES} traces: unpin one first.`);
      edit(`pin of ${socket}`, [{ do: 'pin', at: socket, pinned: !pins.has(socket) }]);
    },
    [edit, full, pins],
  );
  const feed = useCallback((socket: string) => begin({ do: 'feed', socket }), [begin]);
  const plug = useCallback((to: string, from: string | null) => edit(`cable to ${to}`, [connect(to, from)]), [edit]);
  return (
    <Box component="section" aria-label="Sockets" sx={{ mt: 1.5, fontSize: 13 }}>
      {module.inputs.length + module.outputs.length > 0 && (
        <Box sx={{ display: 'flex', justifyContent: 'flex-end' }}>
          <Button aria-pressed={normals} onClick={() => setNormals(!normals)} title={glossary.normal}>
            {normals ? 'Done with these' : 'Normals and ohms'}
          </Button>
        </Box>
      )}
      {module.inputs.map((input, i) => (
        <InputRow
          key={input.socket}
          socket={input.socket}
          name={input.spec.name}
          from={patch.cables.find((c) => c.to === input.socket)?.from ?? ''}
          empty={emptyText(input, patch)}
          range={inputRange(input, found?.inputs[i])}
          outputs={outputs}
          pinned={pins.has(input.socket)}
          onPin={pin}
          onPlug={plug}
          onFeed={feed}
        >
          {normals && (
            <>
              <NormalFields
                socket={input.socket}
                own={input.spec.normal}
                normal={patch.normals.find((n) => n.to === input.socket) ?? null}
                sockets={outputs}
                edit={edit}
              />
              <OhmsField module={module.id} side="inputOhms" name={input.spec.name} patch={patch} edit={edit} />
            </>
          )}
        </InputRow>
      ))}
      {module.outputs.map((output, i) => (
        <Box key={output.socket}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
            <Box component="span" sx={{ color: ink.softInk, minWidth: 52 }}>
              {output.name}
            </Box>
            <Box sx={{ flex: 1, textAlign: 'right', fontFamily: fonts.numbers }} data-output={output.socket}>
              {showVoltRange(...(found?.outputs[i] ?? [0, 0]))}
            </Box>
            <PinButton socket={output.socket} pinned={pins.has(output.socket)} onPin={pin} />
          </Box>
          <Settled range={predicted.prediction.outputs[output.socket]?.settled} />
          {normals && <OhmsField module={module.id} side="outputOhms" name={output.name} patch={patch} edit={edit} />}
        </Box>
      ))}
    </Box>
  );
}

/** Where a voltage ends up that began elsewhere. */
function Settled({ range }: { readonly range: readonly [number, number] | undefined }) {
  if (!range) return null;
  return (
    <Box sx={{ textAlign: 'right', pr: 3.5, fontSize: 12, color: ink.softInk }}>
      {`settles to ${showVoltRange(...range)}`}
    </Box>
  );
}

const PinButton = memo(function PinButton({
  socket,
  pinned,
  onPin,
}: {
  socket: string;
  pinned: boolean;
  onPin: (socket: string) => void;
}) {
  return (
    <IconButton
      aria-label={pinned ? `Unpin ${socket} from the scope` : `Pin ${socket} to the scope`}
      aria-pressed={pinned}
      onClick={() => onPin(socket)}
      sx={{ p: 0.5, color: pinned ? ink.wanted : ink.softInk }}
    >
      {pinned ? <PushPinIcon sx={{ fontSize: 16 }} /> : <PushPinOutlinedIcon sx={{ fontSize: 16 }} />}
    </IconButton>
  );
});
