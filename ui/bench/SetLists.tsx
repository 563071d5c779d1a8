'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { counted } from '@/ui/parts/counted';
import { tell, tellFault } from '@/ui/parts/messages';
import { SafeLink } from '@/ui/parts/SafeLink';
import { ink } from '@/ui/theme/tokens';
import type { StoredSetList } from '@/wire/setLists';
import { setApi } from './setApi';
import { SetListEditor } from './SetListEditor';

/** Evenings: patches in an order, each with its notes and minutes. */
export function SetLists() {
  const queries = useQueryClient();
  const { data, error } = useQuery({ queryKey: ['set lists'], queryFn: () => setApi.list(), staleTime: 0 });
  const { id: rack } = useChosenRack();
  const [edited, setEdited] = useState<string | null>(null);
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['set lists'] });
  const create = (): void =>
    void setApi
      .create({ name: 'New set list', rack, items: [] })
      .then(async ({ id }) => {
        await refresh();
        setEdited(id);
      })
      .catch(tellFault);
  const remove = (list: StoredSetList): void =>
    void setApi
      .remove(list.id)
      .then(refresh)
      .then(() =>
        tell(`“${list.name}” deleted.`, {
          label: 'Undo',
          run: () => void setApi.restore(list.id).then(refresh).catch(tellFault),
        }),
      )
      .catch(tellFault);
  return (
    <Box sx={{ py: 1.5 }}>
      <Button color="primary" onClick={create}>
        New set list
      </Button>
      {error && <p role="alert">{error.message}</p>}
      {!data && !error && <Skeleton variant="rounded" sx={{ height: 120, mt: 1.5 }} />}
      {data?.length === 0 && (
        <p>A set list is a running order of patches, with the change sheets between them, printed as one document.</p>
      )}
      {(data ?? []).map((list) => (
        <Box key={list.id} data-set-list={list.id} sx={{ borderBottom: `1px solid ${ink.line}`, py: 1 }}>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1 }}>
            <Box sx={{ flex: 1, minWidth: 160 }}>
              <Box component={SafeLink} href={`/bench/sets/${list.id}`} sx={{ color: ink.ink, fontWeight: 700 }}>
                {list.name}
              </Box>
              <Box sx={{ color: ink.softInk, fontSize: 13 }}>
                {`${counted(list.items.length, 'patch', 'patches')}, ${list.items.reduce((sum, i) => sum + i.minutes, 0)} min`}
              </Box>
            </Box>
            <Button aria-pressed={edited === list.id} onClick={() => setEdited(edited === list.id ? null : list.id)}>
              Edit
            </Button>
            <Button onClick={() => remove(list)}>Delete</Button>
          </Box>
          {edited === list.id && <SetListEditor key={list.revision} list={list} onSaved={refresh} />}
        </Box>
      ))}
    </Box>
  );
}
