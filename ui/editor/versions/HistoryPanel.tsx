'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useStore } from 'zustand';
import type { Edit, Patch } from '@/core';
import { dateTime } from '@/ui/parts/dates';
import { counted } from '@/ui/parts/counted';
import { tellFault } from '@/ui/parts/messages';
import { api } from '@/ui/parts/api';
import type { DeskStore } from '@/ui/session/desk';
import { patchOf } from '@/ui/session/useAutosave';
import { ink } from '@/ui/theme/tokens';
import type { Scene } from '@/ui/session/scene';
import { PanelHead } from './PanelHead';

interface Props {
  readonly desk: DeskStore;
  readonly onClose: () => void;
  readonly onCompare: (scene: Scene) => void;
}

/** An older version in the place of what the editor holds; its variants and pins stay as they are now. */
const putBackEdits = (old: Patch): Edit[] => [
  { do: 'state', state: old },
  { do: 'put', put: { name: old.name, notes: old.notes } },
  ...old.bypassed.map((b): Edit => ({ do: 'bypass', ...b })),
];

/** How many changes are named; the rest are counted. */
const NAMED = 3;

/** What was changed in a version, the last first. */
function Changed({ names }: { readonly names: readonly string[] }) {
  const last = [...names].reverse();
  const more = last.length - NAMED;
  if (last.length === 0) return null;
  return (
    <Box data-changes title={last.join('\n')} sx={{ fontSize: 13, color: ink.softInk }}>
      {`${last.slice(0, NAMED).join('; ')}${more > 0 ? ` and ${counted(more, 'other change')}` : ''}`}
    </Box>
  );
}

/** The saved versions: to look at, and to put back as one more edit. */
export function HistoryPanel({ desk, onClose, onCompare }: Props) {
  const id = useStore(desk, (s) => s.id);
  const revision = useStore(desk, (s) => s.revision);
  const { edit } = desk.getState();
  const { data, error, refetch } = useQuery({ queryKey: ['history', id, revision], queryFn: () => api.history(id) });
  const fetched = async (version: number) => patchOf(await api.revision(id, version));
  const keep = (version: number, why: 'named' | 'restored') => api.keepVersion(id, version, why).then(() => refetch());
  const name = (version: number): string => `version ${version}`;
  return (
    <Box component="section" aria-label="History">
      <PanelHead title="History" onClose={onClose} />
      <Box sx={{ color: ink.softInk, mb: 1 }}>
        Every save is kept for a day, then the last of each hour for a week, then the last of each day. Versions you
        restore or keep are never removed. Restoring can be undone.
      </Box>
      {error && <Box role="alert" sx={{ color: ink.error }}>{`${error.message} The open patch is unchanged.`}</Box>}
      {!data && !error && <Box role="status">Reading the versions…</Box>}
      {data?.map((v) => (
        <Box key={v.revision} data-version={v.revision} sx={{ borderTop: `1px solid ${ink.line}`, py: 0.75 }}>
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'baseline' }}>
            <Box sx={{ fontWeight: 700, flex: 1 }}>
              {v.revision === revision ? 'Current version' : `Version ${v.revision}`}
            </Box>
            <Box sx={{ fontSize: 13, color: ink.softInk }}>{dateTime(v.savedAt)}</Box>
          </Box>
          <Changed names={v.changes} />
          {v.revision !== revision && (
            <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
              <Button
                onClick={() =>
                  void fetched(v.revision)
                    .then((patch) => onCompare({ show: 'compare', name: name(v.revision), patch }))
                    .catch(tellFault)
                }
              >
                Compare
              </Button>
              <Button
                onClick={() =>
                  void fetched(v.revision)
                    .then((old) => {
                      keep(v.revision, 'restored').catch(tellFault);
                      edit(`Restore ${name(v.revision)}`, putBackEdits(old));
                    })
                    .catch(tellFault)
                }
              >
                Restore
              </Button>
              {v.keptFor === null ? (
                <Button onClick={() => void keep(v.revision, 'named').catch(tellFault)}>Keep permanently</Button>
              ) : (
                <Box sx={{ alignSelf: 'center', fontSize: 13, color: ink.softInk }}>kept permanently</Box>
              )}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
