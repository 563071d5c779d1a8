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
import { useChosenRack } from '@/ui/parts/chosenRack';
import { useHydrated } from '@/ui/parts/useHydrated';
import type { Document, FoundPatches, ListedPatch, PatchesAbout } from '@/wire/patches';
import { ListHead } from './ListHead';
import { Welcome } from './Welcome';
import { PatchesHead } from './PatchesHead';
import { PatchesTable } from './PatchesTable';
import { usePatchList } from './usePatchList';
import { useSelection } from './useSelection';
import { askedOf, everything } from './wanted';

const BackupReminder = later(() => import('./BackupReminder').then((m) => m.BackupReminder));
const DamagedNotice = later(() => import('./DamagedNotice').then((m) => m.DamagedNotice));
const DeletedPatches = later(() => import('./DeletedPatches').then((m) => m.DeletedPatches));
const RecipesDialog = later(() => import('./RecipesDialog').then((m) => m.RecipesDialog));
const SelectionBar = later(() => import('./SelectionBar').then((m) => m.SelectionBar));
const GoalDialog = later(() => import('./GoalDialog').then((m) => m.GoalDialog));

/** One with the rails and the tempo that are preferred. */
function emptyPatch(): Document {
  const { railVolts, bpm } = settings.getState();
  return printPatch({ ...blank, name: 'New patch', settings: { ...blank.settings, railVolts, bpm } });
}

/** The patch that the tour is given on. */
const TOUR_PATCH = 'fog-bank-breathing';

/** How many patches are sent at once. */
const AT_ONCE = 8;

async function createAll(documents: readonly Document[]): Promise<void> {
  for (let i = 0; i < documents.length; i += AT_ONCE)
    await Promise.all(documents.slice(i, i + AT_ONCE).map((d) => api.create(d)));
}

/** What the patches list does with patches as they are stored. */
function usePatchActions() {
  const queries = useQueryClient();
  const router = useRouter();
  const refresh = useCallback(async (): Promise<void> => {
    // What is on its way was asked before: an answer to a first question would stand, and not be asked for anew.
    await queries.cancelQueries({ queryKey: ['patches'] });
    await queries.invalidateQueries({ queryKey: ['patches'] });
  }, [queries]);
  const create = (patch: Document): void =>
    void api
      .create(patch)
      .then((made) => router.push(`/patches/${made.id}`))
      .catch(tellFault);
  const bringIn = (documents: readonly Document[]): void => {
    const [only] = documents;
    if (only && documents.length === 1) create(only);
    else void createAll(documents).then(refresh).catch(tellFault);
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
  const takeTour = (): void => {
    setSetting('guide', 'on');
    void api
      .get(TOUR_PATCH)
      .then(({ deletedAt }) => deletedAt === null)
      .catch(() => false)
      .then(async (there) => {
        if (there) return router.push(`/patches/${TOUR_PATCH}`);
        // Read only where it is taken: this is the first screen.
        const { tour } = await import('@/core/practice/walkthroughs/tour');
        create(tour.document.patch as Document);
      })
      .catch(tellFault);
  };
  return { refresh, create, bringIn, remove, takeTour };
}

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

interface Props {
  /** What the page comes with: the first rows, and what is known of all. */
  readonly first: { readonly found: FoundPatches; readonly about: PatchesAbout } | null;
}

type Task = 'deleted' | 'goal' | 'recipes';

/** All patches, and the ways to a new one. */
export function PatchesScreen({ first }: Props) {
  const [open, setOpen] = useState<Task | null>(null);
  const actions = usePatchActions();
  const { refresh, create, bringIn } = actions;
  const { data: about, error } = useQuery({
    queryKey: ['patches', 'about'],
    queryFn: api.about,
    staleTime: 0,
    placeholderData: (before) => before ?? first?.about,
  });
  const hydrated = useHydrated();
  const welcome = useStore(settings, (state) => state.welcome);
  return (
    <>
      <SkipLinks links={[['#patches', 'Skip to your patches']]} />
      <PatchesHead onImported={bringIn} onDeleted={() => setOpen('deleted')} />
      <Box component="main" sx={{ maxWidth: 1112, mx: 'auto', px: 2, pb: 6 }}>
        <DamagedNotice />
        <BackupReminder />
        <Welcome
          brief={hydrated && !welcome && (about?.count ?? 0) > 0}
          onGoal={() => setOpen('goal')}
          onRecipes={() => setOpen('recipes')}
          onNew={() => create(emptyPatch())}
          onTour={about ? actions.takeTour : null}
        />
        {error && <Alert severity="error">{`${error.message} Nothing was changed. Reload to try again.`}</Alert>}
        {about ? <Found about={about} first={first?.found ?? null} {...actions} /> : !error && <Coming />}
        {open === 'deleted' && <DeletedPatches onClose={() => setOpen(null)} onChanged={refresh} />}
        {open === 'recipes' && <RecipesDialog onClose={() => setOpen(null)} onOpen={create} />}
        {open === 'goal' && (
          <GoalDialog onClose={() => setOpen(null)} onDone={(patch) => (setOpen(null), create(printPatch(patch)))} />
        )}
      </Box>
    </>
  );
}

interface FoundProps extends Pick<ReturnType<typeof usePatchActions>, 'refresh' | 'remove'> {
  readonly about: PatchesAbout;
  readonly first: FoundPatches | null;
}

/** What is looked for, what is found, and what is done with several of it. */
function Found({ about, first, refresh, remove }: FoundProps) {
  const [wanted, setWanted] = useState(everything);
  const { id: rack } = useChosenRack();
  const asked = useMemo(() => askedOf(wanted, rack, new Date()), [wanted, rack]);
  const list = usePatchList(asked, first);
  const { chosen, choose, chooseThese } = useSelection();
  const chooseAll = (all: boolean): void =>
    void (all ? api.ids(asked) : Promise.resolve([])).then(chooseThese).catch(tellFault);
  return (
    <>
      <ListHead about={about} wanted={wanted} onWanted={setWanted} found={list.total} pending={list.pending} />
      {list.error && <Alert severity="error">{`${list.error.message} Reload to try again.`}</Alert>}
      {about.count === 0 && (
        <Box sx={{ color: ink.softInk, mt: 1 }}>
          No patches yet. Choose one of the three ways above, or import a .fenvo.json file or a zip of patches and their
          recordings.
        </Box>
      )}
      {chosen.size > 0 && (
        <SelectionBar chosen={[...chosen]} offered={about.tags} onChanged={refresh} onDone={() => chooseThese([])} />
      )}
      {about.count > 0 && list.total === 0 && list.pending === 0 && <p>No matching patches.</p>}
      {list.total !== null && list.total > 0 && (
        <PatchesTable
          {...{ list, chosen }}
          order={wanted}
          onOrder={(order) => setWanted({ ...wanted, ...order })}
          onChoose={choose}
          onChooseAll={chooseAll}
          onChanged={refresh}
          onRemove={remove}
        />
      )}
    </>
  );
}
