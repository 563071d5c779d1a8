'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Link from '@mui/material/Link';
import { useQuery } from '@tanstack/react-query';
import { api } from '@/ui/parts/api';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { counted } from '@/ui/parts/counted';
import { SafeLink } from '@/ui/parts/SafeLink';
import { ink } from '@/ui/theme/tokens';
import type { RackCheck } from '@/wire/patches';

/** How often checks that are still being made are asked for, milliseconds. */
const CHECKING = 1000;
/** How many patches are named. */
const MOST = 50;
/** How many missing modules are named. */
const WANTED = 6;

const patches = (n: number): string => counted(n, 'patch', 'patches');

/** The kinds that patches want most: by how many patches. */
function mostWanted({ short }: RackCheck): string {
  const counts = new Map<string, number>();
  for (const name of short.flatMap((p) => [...new Set(p.missing.map((m) => m.kind))]))
    counts.set(name, (counts.get(name) ?? 0) + 1);
  const sorted = [...counts].sort(([a, n], [b, m]) => m - n || a.localeCompare(b));
  return sorted
    .slice(0, WANTED)
    .map(([name, n]) => `${name} (${patches(n)})`)
    .join(', ');
}

/** Which of several patches can be patched with the chosen rack, and what is missing for the others. */
export function RackCheckDialog({ ids, onClose }: { readonly ids: readonly string[]; readonly onClose: () => void }) {
  const { id: rack, name } = useChosenRack();
  const { data, error } = useQuery({
    queryKey: ['rack check', rack, ids],
    queryFn: () => api.check(ids, rack),
    staleTime: 0,
    refetchInterval: ({ state }) => ((state.data?.pending ?? 0) > 0 ? CHECKING : false),
  });
  return (
    <Dialog open onClose={onClose} aria-labelledby="rack-check-title" maxWidth="sm" fullWidth>
      <DialogTitle id="rack-check-title">{`${patches(ids.length)} on ${name}`}</DialogTitle>
      <DialogContent>
        {error && <Alert severity="error">{error.message}</Alert>}
        {data && (
          <Box role="status" data-fitting={data.fitting} data-pending={data.pending}>
            <Box>{`${patches(data.fitting)} can be patched on ${name}.`}</Box>
            {data.pending > 0 && <Box sx={{ color: ink.softInk }}>{`Checking ${patches(data.pending)}…`}</Box>}
            {data.short.length > 0 && (
              <>
                <Box sx={{ mt: 1 }}>{`Missing for ${patches(data.short.length)}: ${mostWanted(data)}`}</Box>
                <Box component="ul" sx={{ pl: 2.5 }}>
                  {data.short.slice(0, MOST).map((p) => (
                    <Box component="li" key={p.id} data-short={p.id}>
                      <Link component={SafeLink} href={`/patches/${p.id}`}>
                        {p.name}
                      </Link>
                      {`: ${p.missing.map((m) => m.name).join(', ')}`}
                    </Box>
                  ))}
                </Box>
                {data.short.length > MOST && <Box>{`and ${data.short.length - MOST} more`}</Box>}
              </>
            )}
          </Box>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}
