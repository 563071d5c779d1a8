'use client';
import Box from '@mui/material/Box';
import dynamic from 'next/dynamic';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { moveStage, placeName } from '@/core';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { Aside } from './Aside';
import { Commands } from '../commands/Commands';
import { DeskHeader } from './DeskHeader';
import { EmptyDesk } from './EmptyDesk';
import { EndsList } from '../ends/EndsList';
import type { Scene } from '@/ui/session/scene';
import { Scope } from '../scope/Scope';
import { MainStrip } from '../strip/MainStrip';
import type { Ghost } from '../strip/MainStrip';
import { Trail } from '../strip/Trail';
import { listedEnds } from '../commands/tasks';
import type { Task } from '../commands/tasks';
import { turns, useCalm } from '@/ui/session/useCalm';
import { usePrediction } from '@/ui/session/usePrediction';
import { usePins, useTraces } from '../scope/pins';
import { shownSocket } from '../strip/views';

// Opened on demand, so that the desk itself is there sooner.
const CompareView = dynamic(() => import('../versions/CompareView').then((m) => m.CompareView), { ssr: false });
const Running = dynamic(() => import('./Running').then((m) => m.Running), { ssr: false });
const Guide = dynamic(() => import('./Guide').then((m) => m.Guide), { ssr: false });
const ImportDialog = dynamic(() => import('../import/ImportDialog').then((m) => m.ImportDialog), { ssr: false });
/** Fetched as soon as the pointer comes near the strip. */
const stagePanel = () => import('../stage/StagePanel');

export function DeskBody({ desk, others }: { desk: DeskStore; others: boolean }) {
  const patch = useStore(desk, (s) => s.patch);
  const selected = useStore(desk, (s) => s.selected);
  const group = useStore(desk, (s) => s.group);
  const trail = useStore(desk, (s) => s.trail);
  const { edit, select, selectAlso, showEnd, showJoining, back } = desk.getState();
  const [scene, setScene] = useState<Scene>({ show: 'desk' });
  const [task, setTask] = useState<Task | null>(null);
  const [ghost, setGhost] = useState<Ghost | null>(null);
  const [spectra, setSpectra] = useState('');
  const predicted = usePrediction(patch, shownSocket(trail, patch), { spectra });
  const calm = useCalm(predicted, turns);
  const shown = shownSocket(trail, patch) ?? predicted.ends[0] ?? null;
  const listed = listedEnds(predicted.graph, predicted.ends, trail.length > 1 ? null : shown).join(' ');
  const ends = useMemo(() => listed.split(' ').filter(Boolean), [listed]);
  const end = trail.length > 1 ? (trail[0] ?? null) : shown;
  useEffect(() => {
    document.title = `${patch.name} · Fenvo`;
  }, [patch.name]);

  const begin = useCallback((next: Task | null) => {
    setGhost(null);
    setTask(next);
  }, []);
  const pins = usePins(predicted);
  const traces = useTraces(predicted, pins);
  const close = useCallback(() => setScene({ show: 'desk' }), []);

  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: '100vh', height: { md: '100vh' } }}>
      <DeskHeader desk={desk} others={others} setScene={setScene} />
      <Box sx={{ flex: 1, minHeight: 0, display: { xs: 'block', md: 'flex' } }}>
        <EndsList predicted={predicted} ends={ends} shown={end} onShow={showEnd} onSelect={select} begin={begin} />
        <Box
          component="main"
          onPointerEnter={() => void stagePanel()}
          sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}
        >
          {scene.show === 'compare' ? (
            <CompareView desk={desk} predicted={predicted} other={scene} end={shown} onClose={close} />
          ) : (
            <>
              {trail.length > 1 && <Trail trail={trail} patch={patch} onBack={back} />}
              <MainStrip
                predicted={predicted}
                ghost={ghost}
                end={shown}
                chosen={selected === null ? [] : [selected, ...group]}
                onChoose={(id, more) => (more ? selectAlso(id) : select(id))}
                onOpenJoining={(s) => showJoining(shown, s)}
                onInsert={(socket) => begin({ do: 'insert', socket })}
                onFeed={(socket) => begin({ do: 'feed', socket })}
                onMove={(id, before) => edit(`move ${placeName(patch.modules, id)}`, moveStage(patch, id, before))}
                empty={<EmptyDesk edit={edit} begin={begin} />}
              />
              {predicted.progress !== null && <Running progress={predicted.progress} onCancel={predicted.cancel} />}
              {predicted.failure && (
                <Box role="alert" sx={{ px: 2, color: ink.error }}>
                  {predicted.failure}
                </Box>
              )}
              <Scope
                name={patch.name}
                pins={pins}
                traces={traces}
                full={predicted.full}
                duration={patch.settings.duration}
                onSpectra={setSpectra}
              />
            </>
          )}
        </Box>
        <Aside
          desk={desk}
          // What is chosen from is the patch as it is.
          predicted={task ? predicted : calm}
          scene={scene}
          setScene={setScene}
          onClose={close}
          task={task}
          begin={begin}
          setGhost={setGhost}
        />
      </Box>
      <Commands
        desk={desk}
        predicted={calm}
        ends={ends}
        end={end}
        socket={shown}
        scene={scene}
        setScene={setScene}
        onClose={close}
        begin={begin}
      />
      <Guide predicted={calm} begin={begin} />
      {scene.show === 'import' && <ImportDialog patch={patch} edit={edit} onDone={select} onClose={close} />}
    </Box>
  );
}
