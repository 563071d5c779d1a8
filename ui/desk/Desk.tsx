'use client';
import Box from '@mui/material/Box';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useStore } from 'zustand';
import { tell } from '@/ui/parts/messages';
import type { StoredPatch } from '@/ui/state/api';
import { createDesk } from '@/ui/state/desk';
import type { DeskStart, DeskStore } from '@/ui/state/desk';
import { dropDraft, readDraft } from '@/ui/state/draft';
import { patchOf, useAutosave } from '@/ui/state/useAutosave';
import type { Conflict } from '@/ui/state/useAutosave';
import { useOtherTabs } from '@/ui/state/useOtherTabs';
import { ink } from '@/ui/theme/tokens';
import { ConflictDialog } from './ConflictDialog';
import { DeskHeader } from './DeskHeader';
import { EmptyDesk } from './EmptyDesk';
import { insertStage } from './edits';
import { EndsList, Heading } from './EndsList';
import { FindingsList } from './FindingsList';
import { AddMenu } from './AddMenu';
import { Scope } from './scope/Scope';
import type { Trace } from './scope/view';
import { StagePanel } from './stage/StagePanel';
import { Strip } from './strip/Strip';
import { Trail } from './strip/Trail';
import { usePrediction } from './usePrediction';
import type { Predicted } from './usePrediction';

interface Opened {
  readonly start: DeskStart;
  readonly recovered: 'no' | 'yes' | 'older';
}

/** The stored patch, or the draft that never reached the server. */
function open(stored: StoredPatch): Opened {
  const saved = patchOf(stored);
  const base = { id: stored.id, saved, revision: stored.revision, savedAt: stored.updatedAt };
  const draft = readDraft(stored.id);
  if (!draft || JSON.stringify(draft.patch) === JSON.stringify(saved)) {
    dropDraft(stored.id);
    return { start: { ...base, patch: saved }, recovered: 'no' };
  }
  // A draft on an older revision keeps its base, so that saving it meets the conflict and both versions stay.
  const older = draft.baseRevision !== stored.revision;
  return { start: { ...base, patch: draft.patch, revision: draft.baseRevision }, recovered: older ? 'older' : 'yes' };
}

export function Desk({ stored }: { stored: StoredPatch }) {
  const [opened] = useState(() => open(stored));
  const [desk] = useState(() => createDesk(opened.start));
  const [conflict, setConflict] = useState<Conflict | null>(null);
  useAutosave(
    desk,
    useCallback((c: Conflict) => setConflict(c), []),
  );
  const others = useOtherTabs(stored.id);
  useEffect(() => {
    if (opened.recovered !== 'no') tell('Changes that had not reached the server were recovered from this browser.');
  }, [opened]);
  return (
    <>
      <DeskBody desk={desk} others={others} />
      {conflict && <ConflictDialog desk={desk} conflict={conflict} onSettled={() => setConflict(null)} />}
    </>
  );
}

function DeskBody({ desk, others }: { desk: DeskStore; others: boolean }) {
  const patch = useStore(desk, (s) => s.patch);
  const selected = useStore(desk, (s) => s.selected);
  const trail = useStore(desk, (s) => s.trail);
  const { edit, select, showEnd, showJoining, back, undo, redo } = desk.getState();
  const predicted = usePrediction(patch, shownSocket(trail, patch));
  const shown = shownSocket(trail, patch) ?? predicted.ends[0] ?? null;
  useHotkeys('mod+z', undo, { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', redo, { preventDefault: true });
  useEffect(() => {
    document.title = `${patch.name} · Fenvo`;
  }, [patch.name]);

  const open = (at: string): void => {
    const end = predicted.ends.find((e) => e === at);
    if (end) showEnd(end);
    select(at.split('.')[0] ?? null);
  };
  const insert = (socket: string, kind: string): void => {
    const done = insertStage(patch, socket, kind);
    if (!done) return;
    edit(`insert ${kind}`, () => done.patch);
    select(done.id);
  };
  const stage = predicted.graph.modules.find((m) => m.id === selected);
  const findings = predicted.prediction.findings;
  const traces = useTraces(predicted);
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: '100vh', height: { md: '100vh' } }}>
      <DeskHeader desk={desk} others={others} />
      <Box sx={{ flex: 1, minHeight: 0, display: { xs: 'block', md: 'flex' } }}>
        <Box
          component="nav"
          aria-label="Ends and sources"
          sx={{ width: { md: 236 }, flexShrink: 0, borderRight: `1px solid ${ink.line}`, overflowY: 'auto', pb: 2 }}
        >
          <EndsList
            predicted={predicted}
            shown={trail.length > 1 ? (trail[0] ?? null) : shown}
            onShow={showEnd}
            onSelect={select}
          />
          <Box sx={{ px: 1.75, pt: 2 }}>
            <AddMenu patch={patch} edit={edit} onAdded={select} />
          </Box>
        </Box>
        <Box component="main" sx={{ flex: 1, minWidth: 0, display: 'flex', flexDirection: 'column' }}>
          {trail.length > 1 && <Trail trail={trail} patch={patch} onBack={back} />}
          {predicted.strip && predicted.strip.frames.length > 1 ? (
            <Strip
              predicted={predicted}
              strip={predicted.strip}
              chosen={selected}
              onChoose={select}
              onOpenJoining={(s) => showJoining(shown, s)}
              onInsert={insert}
            />
          ) : (
            <EmptyDesk patch={patch} edit={edit} onAdded={select} />
          )}
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
            <Scope traces={traces} full={predicted.full} duration={patch.settings.duration} />
          </Box>
        </Box>
        <Box
          component="aside"
          aria-label="Stage and findings"
          sx={{
            width: { md: 300 },
            flexShrink: 0,
            borderLeft: `1px solid ${ink.line}`,
            background: ink.raised,
            overflowY: 'auto',
            p: 2,
          }}
        >
          {stage ? (
            <StagePanel
              module={stage}
              patch={patch}
              predicted={predicted}
              place={placeOf(predicted, stage.id)}
              edit={edit}
              onRemoved={() => select(null)}
            />
          ) : (
            <>
              <Heading>Stage</Heading>
              <Box sx={{ color: ink.softInk, px: 1.75 }}>Choose a frame to set its knobs.</Box>
            </>
          )}
          <FindingsList findings={findings} ends={predicted.ends.join()} edit={edit} onOpen={open} />
        </Box>
      </Box>
    </Box>
  );
}

/** The socket whose strip is shown, if it is still there. */
function shownSocket(
  trail: readonly string[],
  patch: { readonly modules: readonly { readonly id: string }[] },
): string | null {
  const socket = trail.at(-1) ?? null;
  return socket !== null && patch.modules.some((m) => socket.startsWith(`${m.id}.`)) ? socket : null;
}

function placeOf(predicted: Predicted, id: string): string {
  const frames = predicted.strip?.frames ?? [];
  const index = frames.findIndex((f) => f.module.id === id);
  return index < 0 ? 'Beside the path shown' : `Stage ${index + 1} of ${frames.length}`;
}

/** The pinned traces of the last whole simulation; the same list until that, the pins or a name change. */
function useTraces({ graph, full }: Predicted): readonly Trace[] {
  const { probes } = graph.patch;
  const names = graph.modules.map((m) => `${m.id} ${m.label}`).join('\n');
  return useMemo(() => {
    const labels = new Map(
      names.split('\n').map((line) => [line.slice(0, line.indexOf(' ')), line.slice(line.indexOf(' ') + 1)]),
    );
    return tracesOf(probes, full, labels);
  }, [probes, full, names]);
}

function tracesOf(
  probes: Predicted['graph']['patch']['probes'],
  full: Predicted['full'],
  labels: ReadonlyMap<string, string>,
): Trace[] {
  return probes.flatMap(({ at, label }) => {
    const probe = full?.probes.get(at);
    const [id = '', name = ''] = at.split('.');
    return probe ? [{ socket: at, label: label ?? `${labels.get(id) ?? id}, ${name}`, probe }] : [];
  });
}
