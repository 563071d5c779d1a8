'use client';
import Box from '@mui/material/Box';
import { kindNamed, socketAt, socketLabel, socketsOfMode } from '@/core';
import type { Channel, RackModule } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import { CommitField } from '@/ui/parts/CommitField';
import { putChannel } from './channel';
import type { ChannelProps } from './channel';

type Normal = Channel['normals'][number];

/** What a channel's panel says beside a socket. */
function labelled(c: Channel, socket: string): string {
  const kind = kindNamed(c.modes[0].kind);
  return kind ? socketLabel(kind, socket) : socket;
}

/** The sockets of the module's other channels, each with what it is called. */
const others = (m: RackModule, c: Channel): (readonly [string, string])[] =>
  m.channels
    .filter((x) => x.id !== c.id)
    .flatMap((x) => {
      const { inputs, outputs } = socketsOfMode(x.modes[0]);
      return [...inputs, ...outputs].map(
        (s) => [socketAt(x.id, s), `Channel ${x.label ?? x.id}, ${labelled(x, s)}`] as const,
      );
    });

/** What each input of a channel carries while nothing is plugged in, and how it loads what is. */
export function NormalFields(props: ChannelProps) {
  const { module: m, channel: c } = props;
  const { inputs, outputs } = socketsOfMode(c.modes[0]);
  const put = (to: string, normal: Normal | null): string | null =>
    putChannel(props, (x) => ({
      ...x,
      normals: [...x.normals.filter((n) => n.to !== to), ...(normal ? [normal] : [])],
    }));
  const ohms = (side: 'inputOhms' | 'outputOhms', socket: string) => (
    <CommitField
      label={`Impedance of ${labelled(c, socket)}, channel ${c.label ?? c.id}`}
      placeholder="Ω"
      value={c[side][socket] === undefined ? '' : String(c[side][socket])}
      width={84}
      onPut={(text) =>
        putChannel(props, (x) => {
          const { [socket]: _gone, ...rest } = x[side];
          return { ...x, [side]: text === '' ? rest : { ...rest, [socket]: Number(text) } };
        })
      }
    />
  );
  const sources = others(m, c);
  return (
    <>
      {inputs.map((to) => {
        const normal = c.normals.find((n) => n.to === to);
        const value = !normal ? '' : 'volts' in normal ? 'volts' : normal.from;
        return (
          <Box key={to} data-normal-of={to} sx={{ display: 'flex', gap: 0.75, py: 0.25, alignItems: 'flex-start' }}>
            <Box sx={{ flex: 1, minWidth: 0, pt: 0.75 }}>{labelled(c, to)}</Box>
            <SelectField
              label={`Normal of ${labelled(c, to)}, channel ${c.label ?? c.id}`}
              value={value}
              options={[['', 'No normal'] as const, ['volts', 'Fixed voltage'] as const, ...sources]}
              onChange={(next) =>
                void put(to, next === '' ? null : next === 'volts' ? { to, volts: 5 } : { to, from: next })
              }
              sx={{ width: 128 }}
            />
            {normal && 'volts' in normal && (
              <CommitField
                label={`Normal voltage of ${labelled(c, to)}`}
                value={String(normal.volts)}
                width={64}
                onPut={(text) => put(to, { to, volts: Number(text) })}
              />
            )}
            {ohms('inputOhms', to)}
          </Box>
        );
      })}
      {outputs.map((from) => (
        <Box key={from} sx={{ display: 'flex', gap: 0.75, py: 0.25, alignItems: 'flex-start' }}>
          <Box sx={{ flex: 1, pt: 0.75 }}>{`${labelled(c, from)}, output`}</Box>
          {ohms('outputOhms', from)}
        </Box>
      ))}
      {outputs.length > 0 && (
        <Box sx={{ display: 'flex', gap: 0.75, py: 0.25, alignItems: 'flex-start' }}>
          <Box sx={{ flex: 1, pt: 0.75 }}>Noise of each output, µV RMS</Box>
          <CommitField
            label={`Output noise of channel ${c.label ?? c.id}`}
            placeholder="µV"
            value={c.noiseMicrovolts === undefined ? '' : String(c.noiseMicrovolts)}
            width={84}
            onPut={(text) =>
              putChannel(props, ({ noiseMicrovolts: _old, ...x }) =>
                text === '' ? x : { ...x, noiseMicrovolts: Number(text) },
              )
            }
          />
        </Box>
      )}
    </>
  );
}
