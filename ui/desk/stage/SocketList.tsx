'use client';
import PushPinIcon from '@mui/icons-material/PushPin';
import PushPinOutlinedIcon from '@mui/icons-material/PushPinOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { showVoltRange } from '@/core';
import type { GraphModule, Patch } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { fonts, ink } from '@/ui/theme/tokens';
import { connect, togglePin } from '../edits';
import type { Predicted } from '../usePrediction';
import type { Edit } from '../edit';

interface Props {
  readonly module: GraphModule;
  readonly patch: Patch;
  readonly predicted: Predicted;
  readonly edit: Edit;
}

/** The sockets: what each input gets (to be moved here), and what each output gives; each can be pinned to the scope. */
export function SocketList({ module, patch, predicted, edit }: Props) {
  const found = predicted.bounds.get(module.id);
  const outputs = predicted.graph.modules.flatMap((m) =>
    m.outputs.map((o) => ({ socket: o.socket, name: `${m.label}, ${o.name}` })),
  );
  const pins = new Set(patch.probes.map((p) => p.at));
  const pin = (socket: string): void =>
    edit(`${pins.has(socket) ? 'unpin' : 'pin'} ${socket}`, (p) => togglePin(p, socket));
  return (
    <Box component="section" aria-label="Sockets" sx={{ mt: 1.5, fontSize: 13 }}>
      {module.inputs.map((input, i) => {
        const from = patch.cables.find((c) => c.to === input.socket)?.from ?? '';
        const range = found?.inputs[i];
        return (
          <Box key={input.socket} sx={{ py: 0.25 }}>
            <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
              <Box component="span" sx={{ color: ink.softInk, minWidth: 52 }}>
                {input.spec.name}
              </Box>
              <Box
                component="select"
                aria-label={`${input.spec.name} gets`}
                sx={{ ...fieldStyle, flex: 1, minWidth: 0 }}
                value={from}
                onChange={(e) => {
                  const to = e.target.value || null;
                  edit(`cable to ${module.label} ${input.spec.name}`, (p) => connect(p, input.socket, to));
                }}
              >
                <option value="">
                  {input.driver.type === 'volts' && input.driver.volts !== 0
                    ? `nothing: normal ${input.driver.volts} V`
                    : 'nothing'}
                </option>
                {outputs.map((o) => (
                  <option key={o.socket} value={o.socket}>
                    {o.name}
                  </option>
                ))}
              </Box>
              <PinButton socket={input.socket} pinned={pins.has(input.socket)} onPin={pin} />
            </Box>
            {input.connected && range && (
              <Box sx={{ fontFamily: fonts.numbers, textAlign: 'right', pr: 3.5 }}>
                {showVoltRange(...range)}
                {input.driver.type === 'output' && input.driver.delayed ? ' · loop, one sample late' : ''}
              </Box>
            )}
          </Box>
        );
      })}
      {module.outputs.map((output, i) => (
        <Box key={output.socket} sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
          <Box component="span" sx={{ color: ink.softInk, minWidth: 52 }}>
            {output.name}
          </Box>
          <Box sx={{ flex: 1, textAlign: 'right', fontFamily: fonts.numbers }} data-output={output.socket}>
            {showVoltRange(...(found?.outputs[i] ?? [0, 0]))}
          </Box>
          <PinButton socket={output.socket} pinned={pins.has(output.socket)} onPin={pin} />
        </Box>
      ))}
    </Box>
  );
}

function PinButton({ socket, pinned, onPin }: { socket: string; pinned: boolean; onPin: (socket: string) => void }) {
  return (
    <IconButton
      aria-label={pinned ? `Unpin ${socket} from the scope` : `Pin ${socket} to the scope`}
      aria-pressed={pinned}
      onClick={() => onPin(socket)}
      sx={{ p: 0.25, color: pinned ? ink.wanted : ink.softInk }}
    >
      {pinned ? <PushPinIcon sx={{ fontSize: 16 }} /> : <PushPinOutlinedIcon sx={{ fontSize: 16 }} />}
    </IconButton>
  );
}
