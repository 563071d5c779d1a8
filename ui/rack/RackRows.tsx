'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { Rack, RackModule } from '@/core';
import { ink } from '@/ui/theme/tokens';
import { rowsOf } from './edits';

interface Props {
  readonly rack: Rack;
  readonly chosen: string | null;
  readonly uses: ReadonlyMap<string, readonly string[]>;
  readonly onChoose: (id: string) => void;
}

const share = (hp: number, of: number): string => `${(100 * hp) / of}%`;

/** Which of a module's channels play something, as a text. */
function inUse(m: RackModule, uses: Props['uses']): string {
  const used = m.channels.filter((c) => uses.has(`${m.id}/${c.id}`)).length;
  return used === 0 ? 'free' : `${used} of ${m.channels.length} in use`;
}

/** The rows as they stand, to scale: what is where, and what is free. */
export function RackRows({ rack, chosen, uses, onChoose }: Props) {
  return (
    <Box role="group" aria-label="Rows" sx={{ mb: 2, display: { xs: 'none', md: 'block' } }}>
      {rowsOf(rack).map(({ row, hp, modules }) => (
        <Box key={row} sx={{ display: 'flex', alignItems: 'stretch', gap: 1, mb: 0.75 }}>
          <Box
            component="span"
            sx={{ width: 44, fontSize: 13, color: ink.softInk, alignSelf: 'center' }}
          >{`Row ${row}`}</Box>
          <Box sx={{ position: 'relative', flex: 1, height: 60, borderBottom: `1px solid ${ink.line}` }}>
            {modules.map((m) => (
              <ButtonBase
                key={m.id}
                data-rack-module={m.id}
                aria-pressed={m.id === chosen}
                aria-label={`${m.name}, ${inUse(m, uses)}`}
                title={`${m.name}, ${inUse(m, uses)}`}
                onClick={() => onChoose(m.id)}
                sx={{
                  position: 'absolute',
                  top: 0,
                  bottom: 4,
                  left: share(m.at ?? 0, hp),
                  width: `calc(${share(m.hp ?? 4, hp)} - 3px)`,
                  display: 'block',
                  textAlign: 'left',
                  overflow: 'hidden',
                  px: '3px',
                  fontSize: 11.5,
                  lineHeight: 1.2,
                  borderTop: `3px solid ${m.id === chosen ? ink.wanted : ink.trace}`,
                  background: ink.raised,
                }}
              >
                <Box
                  component="span"
                  sx={{
                    display: 'block',
                    overflowWrap: 'normal',
                    wordBreak: 'normal',
                    maxHeight: '2.4em',
                    overflow: 'hidden',
                  }}
                >
                  {m.name}
                </Box>
                <Marks module={m} uses={uses} />
              </ButtonBase>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** A mark for each channel: filled where it plays, open where it is free. */
function Marks({ module: m, uses }: { readonly module: RackModule; readonly uses: Props['uses'] }) {
  return (
    <Box component="span" aria-hidden sx={{ position: 'absolute', left: 4, bottom: 3, display: 'flex', gap: '3px' }}>
      {m.channels.map((c) => {
        const used = uses.has(`${m.id}/${c.id}`);
        return (
          <Box
            key={c.id}
            component="span"
            sx={{ width: 7, height: 7, border: `1px solid ${ink.trace}`, background: used ? ink.trace : 'none' }}
          />
        );
      })}
    </Box>
  );
}
