'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { counted } from '@/ui/parts/counted';
import { libraryApi } from '@/ui/parts/libraryApi';
import { tell, tellFault } from '@/ui/parts/messages';
import type { Damage } from '@/wire/library';

/** What is counted of the rows that could not be read; of the others it is enough to know that there are some. */
const NAMED: readonly (readonly [table: string, one: string, many?: string])[] = [
  ['patches', 'patch', 'patches'],
  ['revisions', 'earlier version'],
  ['racks', 'rack'],
  ['assets', 'recording'],
  ['sessions', 'bench session'],
  ['readings', 'reading'],
  ['files', 'photograph or recording of a session', 'photographs or recordings of sessions'],
];

/** What could not be read, in words. */
function lostText({ lost, revived }: Damage): string {
  const named = NAMED.flatMap(([table, ...words]) => (lost[table] ? [counted(lost[table], ...words)] : []));
  const others = Object.keys(lost).some((table) => !NAMED.some(([name]) => name === table));
  const all = [...named, ...(others ? ['some other entries'] : [])];
  if (all.length === 0) return 'All entries could be read.';
  const back = revived > 0 ? ` ${counted(revived, 'patch', 'patches')} came back as an earlier version.` : '';
  return `Not readable: ${all.join(', ')}.${back}`;
}

/** Says that the library's file is damaged, and the ways on. */
export function DamagedNotice() {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: ['library'], queryFn: libraryApi.state });
  if (!data?.damage) return null;
  const goOn = (): void =>
    void libraryApi
      .goOn()
      .then(({ aside }) => tell(`The library can be written again. The damaged file is kept as ${aside}.`))
      .then(() => queries.invalidateQueries())
      .catch(tellFault);
  return (
    <Alert severity="error" data-damaged sx={{ mt: 2 }}>
      <Box>{`The library file is damaged and open read-only. ${lostText(data.damage)}`}</Box>
      <Box>Restore a backup in Preferences, or continue with what could be read; the damaged file is kept.</Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 1 }}>
        <Button onClick={() => void libraryApi.backUp().catch(tellFault)}>Export what could be read</Button>
        <Button onClick={goOn}>Continue with it</Button>
      </Box>
    </Alert>
  );
}
