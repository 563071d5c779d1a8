'use client';
import Box from '@mui/material/Box';
import useMediaQuery from '@mui/material/useMediaQuery';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { later } from '@/ui/parts/later';
import { settings } from '@/ui/parts/settings';
import { hearing } from '@/ui/session/hearing';
import type { DeskStore } from '@/ui/session/desk';
import type { Scene } from '@/ui/session/scene';
import { isBeside } from '@/ui/session/scene';
import { inspector, openIssues, openTab } from '@/ui/session/inspector';
import { endPreviews, offerPreview } from '@/ui/session/previews';
import { createSolving, SolvingContext } from '@/ui/session/solving';
import { holdKeys } from '@/ui/session/typeahead';
import { useMeasured } from '@/ui/session/measured';
import { usePrediction } from '@/ui/session/usePrediction';
import type { Span } from '@/ui/session/usePrediction';
import { listedEnds } from '../commands/tasks';
import type { Task } from '../commands/tasks';
import { EndsList } from '../destinations/EndsList';
import type { Window } from '../scope/view';
import { shownSocket } from '../strip/views';
import { Beside } from './Beside';
import { DeskHeader } from './DeskHeader';
import { MainPane } from './MainPane';

// Opened on demand, so that the editor itself is there sooner.
const PlayBar = later(() => import('../live/PlayBar').then((m) => m.PlayBar));
const PhoneKnobs = later(() => import('../phone/PhoneKnobs').then((m) => m.PhoneKnobs));
const RackWatcher = later(() => import('../rack/RackWatcher').then((m) => m.RackWatcher));
const ImportDialog = later(() => import('../import/ImportDialog').then((m) => m.ImportDialog));
/** Fetched as soon as the pointer comes near. */
const stagePanel = () => import('../stage/StagePanel');

const bodyStyle = { flex: 1, minHeight: 0, display: 'flex', flexDirection: { xs: 'column', md: 'row' } } as const;

/** The ends as they are listed, and the one whose path is shown; of a joining path, the one that it leads to. */
function useEnds(predicted: ReturnType<typeof usePrediction>, trail: readonly string[]) {
  const shown = shownSocket(trail, predicted.graph.patch) ?? predicted.ends[0] ?? null;
  const listed = listedEnds(predicted.graph, predicted.ends, trail.length > 1 ? null : shown).join(' ');
  const ends = useMemo(() => listed.split(' ').filter(Boolean), [listed]);
  return { shown, ends, end: trail.length > 1 ? (trail[0] ?? null) : shown };
}

/** What is chosen decides which tab is open; a patch that changed is previewed no more. */
function useFollow(desk: DeskStore): void {
  useEffect(() => {
    inspector.setState({ tab: 'destination', issues: false, map: false, route: null });
    const follow = desk.subscribe((now, before) => {
      if (now.patch !== before.patch) endPreviews();
      if (now.selected !== before.selected) {
        if (now.selected !== null) openTab('stage');
        else if (inspector.getState().tab === 'stage') openTab('destination');
      } else if (now.trail !== before.trail && now.selected === null) openTab('destination');
    });
    return () => {
      follow();
      endPreviews();
    };
  }, [desk]);
}

/** Issues take the inspector's panel from whatever had it, and the other way round: the last one asked for is shown. */
function useOpenedIssues(onOpen: () => void): void {
  useEffect(() => inspector.subscribe((now, before) => now.issues && !before.issues && onOpen()), [onOpen]);
}

/** One open patch: its parts side by side, on a phone under each other. */
export function DeskBody({ desk, others }: { desk: DeskStore; others: boolean }) {
  const patch = useStore(desk, (s) => s.patch);
  const trail = useStore(desk, (s) => s.trail);
  const hears = useStore(hearing, (s) => s.open);
  const chosenRack = useStore(settings, (s) => s.rack);
  const { edit, select, showEnd } = desk.getState();
  const [scene, setScene] = useState<Scene>({ show: 'desk' });
  const [task, setTask] = useState<Task | null>(null);
  const [spectra, setSpectra] = useState('');
  const [span, setSpan] = useState<'whole' | 'period' | 'scope'>('whole');
  const [view, setView] = useState<Window | null>(null);
  const part: Span = span !== 'scope' ? span : view ? [view.from, view.to] : 'whole';
  const looked = useMeasured(patch);
  const predicted = usePrediction(looked, shownSocket(trail, patch), { spectra, span: part });
  const { shown, ends, end } = useEnds(predicted, trail);
  const narrow = useMediaQuery('(max-width:899.95px)');
  const [solving] = useState(() => createSolving(desk));
  useEffect(() => () => solving.getState().close(), [solving]);
  useFollow(desk);
  useEffect(() => {
    document.title = `${patch.name} · Fenvo`;
  }, [patch.name]);
  const begin = useCallback((next: Task | null) => {
    offerPreview(null);
    if (next) holdKeys();
    if (next) openIssues(false);
    setTask(next);
  }, []);
  const show = useCallback((next: Scene) => {
    if (isBeside(next)) openIssues(false);
    setScene(next);
  }, []);
  const close = useCallback(() => setScene({ show: 'desk' }), []);
  useOpenedIssues(
    useCallback(() => {
      begin(null);
      setScene((now) => (isBeside(now) ? { show: 'desk' } : now));
    }, [begin]),
  );
  return (
    <SolvingContext value={solving}>
      <Box
        data-sheet-of-paper
        sx={{ display: 'flex', flexDirection: 'column', minHeight: '100vh', height: { md: '100vh' } }}
      >
        <DeskHeader desk={desk} others={others} setScene={show} />
        {hears && <PlayBar desk={desk} predicted={predicted} end={shown} />}
        <Box data-sheet-of-paper sx={bodyStyle} onPointerEnter={() => void stagePanel()}>
          <EndsList predicted={predicted} ends={ends} shown={end} onShow={showEnd} onSelect={select} begin={begin} />
          <MainPane
            {...{ desk, predicted, scene, shown, begin, span, view }}
            onClose={close}
            onSpan={setSpan}
            onView={setView}
            onSpectra={setSpectra}
          />
          <Beside {...{ desk, predicted, scene, setScene: show, task, begin, shown, ends, end }} onClose={close} />
        </Box>
        {narrow && <PhoneKnobs desk={desk} predicted={predicted} shown={shown} />}
        {chosenRack !== '' && <RackWatcher key={chosenRack} desk={desk} />}
        {scene.show === 'import' && <ImportDialog patch={patch} edit={edit} onDone={select} onClose={close} />}
      </Box>
    </SolvingContext>
  );
}
