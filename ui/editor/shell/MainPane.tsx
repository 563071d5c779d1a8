'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { useStore } from 'zustand';
import { moveStage, placeName } from '@/core';
import { later } from '@/ui/parts/later';
import type { DeskStore } from '@/ui/session/desk';
import { inspector } from '@/ui/session/inspector';
import { previews, shownPreview } from '@/ui/session/previews';
import type { Scene } from '@/ui/session/scene';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Task } from '../commands/tasks';
import { PathScope } from '../scope/PathScope';
import type { Window } from '../scope/view';
import { MainStrip } from '../strip/MainStrip';
import { SpanChoice } from '../strip/SpanChoice';
import type { SpanName } from '../strip/SpanChoice';
import { Verdict } from '../verdict/Verdict';
import { ViewChoice } from './ViewChoice';

const GhostBar = later(() => import('../strip/GhostBar').then((m) => m.GhostBar));
const CompareView = later(() => import('../versions/CompareView').then((m) => m.CompareView));
const Trail = later(() => import('../strip/Trail').then((m) => m.Trail));
const EmptyDesk = later(() => import('./EmptyDesk').then((m) => m.EmptyDesk));
const MapView = later(() => import('../map/MapView').then((m) => m.MapView));

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly scene: Scene;
  /** The socket that the strip ends at. */
  readonly shown: string | null;
  readonly begin: (task: Task | null) => void;
  readonly span: SpanName;
  readonly view: Window | null;
  readonly onClose: () => void;
  readonly onSpan: (span: SpanName) => void;
  readonly onView: (view: Window | null) => void;
  readonly onSpectra: (sockets: string) => void;
}

// On a phone its parts stand between the others: the strip first, the scope after the readings.
const mainStyle = {
  flex: 1,
  minWidth: 0,
  display: { xs: 'contents', md: 'flex' },
  flexDirection: 'column',
  // Where what stands above leaves too little for strip and scope, they scroll.
  overflowY: { md: 'auto' },
} as const;
const stripStyle = {
  order: { xs: 1, md: 0 },
  flex: { md: '1 0 320px' },
  minHeight: { xs: 420, md: 320 },
  display: 'flex',
  flexDirection: 'column',
} as const;
const mapStyle = { ...stripStyle, flex: { md: '1 1 320px' }, minHeight: 0 } as const;
const toolsStyle = {
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  justifyContent: 'space-between',
  gap: 1,
  px: { xs: 1.5, md: 2 },
  pt: 1,
} as const;

/** The middle: the verdict over the path and its scope, or over the map; or two states of the patch. */
export function MainPane(props: Props) {
  const { desk, predicted, scene, shown, onClose } = props;
  const [named] = useState(() => window.location.hash.startsWith('#fault='));
  return (
    <Box
      component="main"
      id="path"
      tabIndex={-1}
      data-simulated={predicted.full !== null || predicted.strip === null}
      data-sheet-of-paper
      sx={mainStyle}
    >
      {scene.show === 'compare' ? (
        <CompareView desk={desk} predicted={predicted} other={scene} end={shown} onClose={onClose} />
      ) : (
        <>
          {named && <GhostBar desk={desk} />}
          {shown !== null && <Verdict desk={desk} predicted={predicted} shown={shown} />}
          <PathOrMap {...props} />
        </>
      )}
    </Box>
  );
}

function PathOrMap(props: Props) {
  const { desk, predicted, shown, span, onSpan } = props;
  const trail = useStore(desk, (s) => s.trail);
  const map = useStore(inspector, (s) => s.map) && shown !== null;
  return (
    <>
      <Box sx={map ? mapStyle : stripStyle} data-sheet-of-paper>
        {shown !== null && (
          <Box sx={toolsStyle} data-no-print>
            <ViewChoice map={map} />
            {!map && trail.length > 1 && (
              <Trail trail={trail} patch={predicted.graph.patch} onBack={desk.getState().back} />
            )}
            {!map && predicted.strip && <SpanChoice span={span} predicted={predicted} onSpan={onSpan} />}
          </Box>
        )}
        {map ? <MapView desk={desk} predicted={predicted} shown={shown} /> : <PathStrip {...props} />}
        {predicted.failure && <Alert severity="error">{predicted.failure}</Alert>}
      </Box>
      {!map && <PathScope {...props} />}
    </>
  );
}

function PathStrip({ desk, predicted, shown, begin }: Props) {
  const selected = useStore(desk, (s) => s.selected);
  const group = useStore(desk, (s) => s.group);
  const preview = useStore(previews, shownPreview);
  const { edit, select, selectAlso, showJoining } = desk.getState();
  const { patch } = predicted.graph;
  return (
    <MainStrip
      predicted={predicted}
      preview={preview}
      end={shown}
      chosen={selected === null ? [] : [selected, ...group]}
      onChoose={(id, more) => (more ? selectAlso(id) : select(id))}
      onBackground={() => select(null)}
      onOpenJoining={(socket) => showJoining(shown, socket)}
      onInsert={(socket) => begin({ do: 'insert', socket })}
      onFeed={(socket) => begin({ do: 'feed', socket })}
      onMove={(id, before) => edit(`Move ${placeName(patch.modules, id)}`, moveStage(patch, id, before))}
      empty={<EmptyDesk edit={edit} begin={begin} />}
    />
  );
}
