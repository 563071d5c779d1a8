'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import dynamic from 'next/dynamic';
import { useCallback, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { applyEdits, buildGraph, endsOf, idOf, placeName } from '@/core';
import type { Finding } from '@/core';
import type { DeskStore } from '@/ui/state/desk';
import { headingStyle } from '@/ui/parts/fieldStyle';
import { ink } from '@/ui/theme/tokens';
import { DeskHeader } from './DeskHeader';
import { EmptyDesk } from './EmptyDesk';
import { EndsList } from './EndsList';
import { FindingsList } from './FindingsList';
import type { Scene } from './scene';
import { Scope } from './scope/Scope';
import { moveStage } from './stages';
import { MainStrip } from './MainStrip';
import type { Ghost } from './MainStrip';
import { Trail } from './strip/Trail';
import { listedEnds, planOf } from './tasks';
import type { Task } from './tasks';
import { useCommands } from './useCommands';
import { usePrediction } from './usePrediction';
import type { Predicted } from './usePrediction';
import { shownSocket, usePins, useTraces } from './views';

// Opened on demand, so that the desk itself is there sooner.
const Chooser = dynamic(() => import('@/ui/parts/Chooser').then((m) => m.Chooser), { ssr: false });
const CompareView = dynamic(() => import('./compare/CompareView').then((m) => m.CompareView), { ssr: false });
const GroupPanel = dynamic(() => import('./stage/GroupPanel').then((m) => m.GroupPanel), { ssr: false });
const Guide = dynamic(() => import('./Guide').then((m) => m.Guide), { ssr: false });
const HelpDialog = dynamic(() => import('./HelpDialog').then((m) => m.HelpDialog), { ssr: false });
const HistoryPanel = dynamic(() => import('./compare/HistoryPanel').then((m) => m.HistoryPanel), { ssr: false });
const Palette = dynamic(() => import('./Palette').then((m) => m.Palette), { ssr: false });
const stagePanel = () => import('./stage/StagePanel');
const StagePanel = dynamic(() => stagePanel().then((m) => m.StagePanel), { ssr: false });
const VariantsPanel = dynamic(() => import('./compare/VariantsPanel').then((m) => m.VariantsPanel), { ssr: false });
const ImportDialog = dynamic(() => import('./hands/ImportDialog').then((m) => m.ImportDialog), { ssr: false });

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
  const shown = shownSocket(trail, patch) ?? predicted.ends[0] ?? null;
  const ends = listedEnds(predicted.graph, predicted.ends, trail.length > 1 ? null : shown);
  const end = trail.length > 1 ? (trail[0] ?? null) : shown;
  useEffect(() => {
    document.title = `${patch.name} · Fenvo`;
  }, [patch.name]);

  const begin = useCallback((next: Task | null) => {
    setGhost(null);
    setTask(next);
  }, []);
  const plan = task && planOf(task, predicted);
  const pick = (key: string): void => {
    const made = plan?.make(key);
    begin(null);
    if (!made) return;
    edit(made.label, () => made.patch);
    if (made.show !== undefined) showEnd(made.show);
    if (made.select !== undefined) select(made.select);
  };
  // Of the patch at the click, so that the list of findings is not drawn again with every move of a knob.
  const open = useCallback(
    (at: string): void => {
      const graph = buildGraph(desk.getState().patch);
      if (listedEnds(graph, endsOf(graph), null).includes(at)) showEnd(at);
      select(idOf(at));
    },
    [desk, select, showEnd],
  );
  const preview = useCallback(
    (finding: Finding | null) =>
      setGhost(finding?.cure ? { patch: applyEdits(desk.getState().patch, finding.cure.edits) } : null),
    [desk],
  );
  const commands = useCommands({ desk, predicted, ends, end, socket: shown, setScene, begin });
  const stage = predicted.graph.modules.find((m) => m.id === selected);
  const pins = usePins(predicted);
  const traces = useTraces(predicted, pins);
  const close = useCallback(() => setScene({ show: 'desk' }), []);

  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: '100vh', height: { md: '100vh' } }}>
      <DeskHeader desk={desk} others={others} setScene={setScene} />
      <Box sx={{ flex: 1, minHeight: 0, display: { xs: 'block', md: 'flex' } }}>
        <Box
          component="nav"
          aria-label="Ends and sources"
          sx={{
            width: { md: 236 },
            flexShrink: 0,
            borderRight: `1px solid ${ink.line}`,
            overflowY: 'auto',
            pb: 2,
          }}
        >
          <EndsList predicted={predicted} ends={ends} shown={end} onShow={showEnd} onSelect={select} begin={begin} />
        </Box>
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
                onMove={(id, before) => edit(`move ${placeName(patch.modules, id)}`, (p) => moveStage(p, id, before))}
                empty={<EmptyDesk edit={edit} begin={begin} />}
              />
              {predicted.failure && (
                <Box role="alert" sx={{ px: 2, color: ink.error }}>
                  {predicted.failure}
                </Box>
              )}
              <Box
                sx={{
                  borderTop: `1px solid ${ink.line}`,
                  height: { md: '38%' },
                  minHeight: 264,
                  display: 'flex',
                  flexDirection: 'column',
                  '& > section': { flex: 1 },
                }}
              >
                <Scope
                  name={patch.name}
                  pins={pins}
                  traces={traces}
                  full={predicted.full}
                  duration={patch.settings.duration}
                  onSpectra={setSpectra}
                />
              </Box>
            </>
          )}
        </Box>
        <Box
          component="aside"
          aria-label="Stage and findings"
          sx={{
            width: { md: 312 },
            flexShrink: 0,
            borderLeft: `1px solid ${ink.line}`,
            background: ink.raised,
            overflowY: 'auto',
            scrollbarGutter: 'stable',
            py: 2,
            pl: 1.75,
            pr: 0.5,
          }}
        >
          {plan ? (
            <Box component="section" aria-label={plan.title}>
              <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, mb: 1 }}>
                <Box component="h2" sx={{ fontSize: 15, m: 0 }}>
                  {plan.title}
                </Box>
                <Button onClick={() => begin(null)}>Cancel</Button>
              </Box>
              <Chooser
                label={plan.title}
                choices={plan.choices}
                onCancel={() => begin(null)}
                onHighlight={(choice) => setGhost(choice && plan.make(choice.key))}
                onPick={(choice) => pick(choice.key)}
              />
            </Box>
          ) : scene.show === 'variants' ? (
            <VariantsPanel desk={desk} onClose={close} onCompare={setScene} />
          ) : scene.show === 'history' ? (
            <HistoryPanel desk={desk} onClose={close} onCompare={setScene} />
          ) : (
            <>
              {group.length > 0 && selected !== null ? (
                <GroupPanel
                  ids={[selected, ...group]}
                  modules={patch.modules}
                  edit={edit}
                  onDone={() => select(null)}
                />
              ) : stage ? (
                <StagePanel
                  module={stage}
                  patch={patch}
                  predicted={predicted}
                  place={placeOf(predicted, stage.id)}
                  edit={edit}
                  begin={begin}
                  onRemoved={() => select(null)}
                />
              ) : (
                <>
                  <Box component="h2" sx={{ ...headingStyle, mb: 0.5 }}>
                    Stage
                  </Box>
                  <Box sx={{ color: ink.softInk }}>Choose a frame to set its knobs.</Box>
                </>
              )}
              <FindingsList
                findings={predicted.prediction.findings}
                dismissed={patch.dismissed}
                modules={patch.modules}
                chosen={selected}
                edit={edit}
                onOpen={open}
                onPreview={preview}
              />
            </>
          )}
        </Box>
      </Box>
      <Guide predicted={predicted} begin={begin} />
      {scene.show === 'help' && <HelpDialog commands={commands.list} onClose={close} />}
      {scene.show === 'palette' && <Palette entries={commands.entries()} onClose={close} />}
      {scene.show === 'import' && <ImportDialog patch={patch} edit={edit} onDone={select} onClose={close} />}
    </Box>
  );
}

function placeOf(predicted: Predicted, id: string): string {
  const frames = predicted.strip?.frames ?? [];
  const index = frames.findIndex((f) => f.module.id === id);
  return index < 0 ? 'Beside the path shown' : `Stage ${index + 1} of ${frames.length}`;
}
