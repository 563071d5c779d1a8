'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import dynamic from 'next/dynamic';
import { blank, printPatch } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { tell, tellFault } from '@/ui/parts/messages';
import { SchemeButton } from '@/ui/parts/SchemeButton';
import { api } from '@/ui/parts/api';
import type { Document, ListedPatch } from '@/wire/patches';
import { ink } from '@/ui/theme/tokens';
import { ImportButton } from './ImportButton';
import { PatchRow } from './PatchRow';

const emptyPatch = (): Document => printPatch({ ...blank, name: 'New patch' });

const DeletedPatches = dynamic(() => import('./DeletedPatches').then((m) => m.DeletedPatches), { ssr: false });
const GoalDialog = dynamic(() => import('./GoalDialog').then((m) => m.GoalDialog), { ssr: false });

/** How often missing pictures are asked for, milliseconds. */
const PICTURES_EVERY = 1500;

const matches = (patch: ListedPatch, words: string): boolean => {
  const text =
    `${patch.name} ${patch.tags.join(' ')} ${patch.summary?.ends.map((e) => e.label).join(' ') ?? ''}`.toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
};

/** All patches. */
export function ShelfScreen() {
  const { data: patches, error } = useQuery({
    queryKey: ['patches'],
    queryFn: () => api.list(),
    staleTime: 0,
    // Pictures are made after a save: asked for again until all are there.
    refetchInterval: ({ state }) => (state.data?.some((p) => !p.summary && !p.fault) ? PICTURES_EVERY : false),
  });
  const [deleted, setDeleted] = useState(false);
  const [words, setWords] = useState('');
  const [asking, setAsking] = useState(false);
  const queries = useQueryClient();
  const router = useRouter();
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['patches'] });
  const create = (patch: Document): Promise<void> =>
    api
      .create(patch)
      .then((made) => router.push(`/patches/${made.id}`))
      .catch(tellFault);
  const remove = async (patch: ListedPatch): Promise<void> => {
    try {
      await api.remove(patch.id);
      await refresh();
      tell(`“${patch.name}” was deleted.`, {
        label: 'Undo',
        run: () => void api.restore(patch.id).then(refresh).catch(tellFault),
      });
    } catch (e) {
      tellFault(e);
    }
  };
  const shown = (patches ?? []).filter((p) => matches(p, words));
  return (
    <Box component="main" sx={{ maxWidth: 1120, mx: 'auto', px: 2, pb: 6 }}>
      <Box
        component="header"
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          alignItems: 'center',
          gap: 1.5,
          py: 1.5,
          borderBottom: `1px solid ${ink.line}`,
        }}
      >
        <Box sx={{ fontSize: 18, fontWeight: 700 }}>Fenvo</Box>
        <Box component="h1" sx={{ fontSize: 15, fontWeight: 400, m: 0 }}>
          Shelf
        </Box>
        <Box sx={{ flex: 1 }} />
        <Box
          component="input"
          type="search"
          aria-label="Search patches"
          placeholder="Search"
          value={words}
          onChange={(e) => setWords(e.target.value)}
          sx={{ ...fieldStyle, maxWidth: 200, padding: '5px 8px' }}
        />
        <ImportButton onImported={(patch) => void create(patch)} />
        <Button onClick={() => setDeleted(true)}>Deleted</Button>
        <Button onClick={() => setAsking(true)}>From a goal</Button>
        <Button color="primary" onClick={() => void create(emptyPatch())}>
          New patch
        </Button>
        <SchemeButton />
      </Box>
      {error && <p role="alert">{`${error.message} Nothing was changed; reload to try again.`}</p>}
      {patches?.length === 0 && (
        <Box sx={{ py: 6 }}>
          <h2>No patch yet</h2>
          <p>
            Say what shall move, between which values and by what, and begin with a chain that works. Or begin with an
            empty desk, or import a .fenvo.json file.
          </p>
          <Box sx={{ display: 'flex', gap: 1 }}>
            <Button color="primary" onClick={() => setAsking(true)}>
              From a goal
            </Button>
            <Button onClick={() => void create(emptyPatch())}>New patch</Button>
          </Box>
        </Box>
      )}
      {deleted && <DeletedPatches onClose={() => setDeleted(false)} onChanged={refresh} />}
      {asking && (
        <GoalDialog
          onClose={() => setAsking(false)}
          onDone={(patch) => {
            setAsking(false);
            void create(printPatch(patch));
          }}
        />
      )}
      {patches && patches.length > 0 && shown.length === 0 && <p>No patch matches “{words}”.</p>}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {shown.map((patch) => (
          <PatchRow
            key={patch.id}
            patch={patch}
            onChanged={refresh}
            onFault={tellFault}
            onRemove={() => void remove(patch)}
          />
        ))}
      </Box>
    </Box>
  );
}
