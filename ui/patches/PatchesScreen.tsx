'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Skeleton from '@mui/material/Skeleton';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { blank, printPatch } from '@/core';
import { api } from '@/ui/parts/api';
import { later } from '@/ui/parts/later';
import { setSetting, settings } from '@/ui/parts/settings';
import { SkipLinks } from '@/ui/parts/SkipLinks';
import { tell, tellFault } from '@/ui/parts/messages';
import { ink } from '@/ui/theme/tokens';
import { tagsOf } from '@/ui/parts/tagsOf';
import type { Document, ListedPatch } from '@/wire/patches';
import { SelectionBar } from './SelectionBar';
import { listPatches } from './order';
import type { Order, Wanted } from './order';
import { ListHead } from './ListHead';
import { Welcome } from './Welcome';
import { PatchesHead } from './PatchesHead';
import { PatchesTable } from './PatchesTable';
import { useSelection } from './useSelection';
import { useTonight } from './useTonight';

const BackupReminder = later(() => import('./BackupReminder').then((m) => m.BackupReminder));
const DeletedPatches = later(() => import('./DeletedPatches').then((m) => m.DeletedPatches));
const RecipesDialog = later(() => import('./RecipesDialog').then((m) => m.RecipesDialog));
const GoalDialog = later(() => import('./GoalDialog').then((m) => m.GoalDialog));

/** How often missing pictures are asked for, milliseconds. */
const PICTURES_EVERY = 1500;

/** One with the rails and the tempo that are preferred. */
function emptyPatch(): Document {
  const { railVolts, bpm } = settings.getState();
  return printPatch({ ...blank, name: 'New patch', settings: { ...blank.settings, railVolts, bpm } });
}

/** What the patches list does with patches as they are stored. */
function usePatchActions() {
  const queries = useQueryClient();
  const router = useRouter();
  const refresh = useCallback((): Promise<void> => queries.invalidateQueries({ queryKey: ['patches'] }), [queries]);
  const create = (patch: Document): void =>
    void api
      .create(patch)
      .then((made) => router.push(`/patches/${made.id}`))
      .catch(tellFault);
  const bringIn = (documents: readonly Document[]): void => {
    const [only] = documents;
    if (only && documents.length === 1) create(only);
    else
      void Promise.all(documents.map((d) => api.create(d)))
        .then(refresh)
        .catch(tellFault);
  };
  const remove = useCallback(
    (patch: ListedPatch): void => {
      const back = (): void => void api.restore(patch.id).then(refresh).catch(tellFault);
      void api
        .remove(patch.id)
        .then(refresh)
        .then(() => tell(`“${patch.name}” was deleted.`, { label: 'Undo', run: back }))
        .catch(tellFault);
    },
    [refresh],
  );
  return { refresh, create, bringIn, remove, router };
}

/** The patch that the tour is given on. */
const TOUR_PATCH = 'fog-bank-breathing';

/** Where the patches will stand. */
function Coming() {
  return (
    <Box role="status" aria-label="Loading your patches" sx={{ mt: 4 }}>
      {[0, 1, 2, 3].map((i) => (
        <Skeleton key={i} variant="rectangular" sx={{ height: 64, mb: 1 }} />
      ))}
    </Box>
  );
}

/** All patches, and the ways to a new one. */
export function PatchesScreen() {
  const { data: patches, error } = useQuery({
    queryKey: ['patches'],
    queryFn: () => api.list(),
    staleTime: 0,
    // Pictures are made after a save: asked for again until all are there.
    refetchInterval: ({ state }) => (state.data?.some((p) => !p.summary && !p.fault) ? PICTURES_EVERY : false),
  });
  const [open, setOpen] = useState<'deleted' | 'goal' | 'recipes' | null>(null);
  const [wanted, setWanted] = useState<Wanted>({ words: '', tags: [] });
  const [order, setOrder] = useState<Order>({ by: 'updatedAt', down: true });
  const { refresh, create, bringIn, remove, router } = usePatchActions();
  const tonight = useTonight(patches ?? []);
  const shown = useMemo(() => listPatches(patches ?? [], wanted, order), [patches, wanted, order]);
  const tags = useMemo(() => tagsOf(patches ?? []), [patches]);
  const { chosen, choose, chooseAll } = useSelection(shown);
  const welcome = useStore(settings, (state) => state.welcome);
  const held = (patches ?? []).filter((p) => chosen.has(p.id));
  const takeTour = (): void => {
    setSetting('guide', 'on');
    const shownIn = (patches ?? []).find((p) => p.id === TOUR_PATCH);
    if (shownIn) router.push(`/patches/${shownIn.id}`);
    // Read only where it is taken: this is the first screen.
    else
      void import('@/core/practice/walkthroughs/tour')
        .then(({ tour }) => create(tour.document.patch as Document))
        .catch(tellFault);
  };
  return (
    <>
      <SkipLinks links={[['#patches', 'Skip to your patches']]} />
      <PatchesHead onImported={bringIn} onDeleted={() => setOpen('deleted')} />
      <Box component="main" sx={{ maxWidth: 1112, mx: 'auto', px: 2, pb: 6 }}>
        <BackupReminder />
        <Welcome
          brief={!welcome && (patches?.length ?? 0) > 0}
          onGoal={() => setOpen('goal')}
          onRecipes={() => setOpen('recipes')}
          onNew={() => create(emptyPatch())}
          onTour={patches ? takeTour : null}
        />
        {patches ? (
          <ListHead patches={patches} wanted={wanted} onWanted={setWanted} tags={tags} />
        ) : (
          !error && <Coming />
        )}
        {error && <Alert severity="error">{`${error.message} Nothing was changed. Reload to try again.`}</Alert>}
        {patches?.length === 0 && (
          <Box sx={{ color: ink.softInk, mt: 1 }}>
            No patches yet. Choose one of the three ways above, or import a .fenvo.json file or a zip of patches and
            their recordings.
          </Box>
        )}
        {held.length > 0 && (
          <SelectionBar chosen={held} offered={tags} onChanged={refresh} onDone={() => chooseAll(false)} />
        )}
        {patches && patches.length > 0 && shown.length === 0 && <p>No matching patches.</p>}
        {shown.length > 0 && (
          <PatchesTable
            {...{ patches: shown, order, chosen, tonight }}
            onOrder={setOrder}
            onChoose={choose}
            onChooseAll={chooseAll}
            onChanged={refresh}
            onRemove={remove}
          />
        )}
        {open === 'deleted' && <DeletedPatches onClose={() => setOpen(null)} onChanged={refresh} />}
        {open === 'recipes' && <RecipesDialog onClose={() => setOpen(null)} onOpen={create} />}
        {open === 'goal' && (
          <GoalDialog onClose={() => setOpen(null)} onDone={(patch) => (setOpen(null), create(printPatch(patch)))} />
        )}
      </Box>
    </>
  );
}
