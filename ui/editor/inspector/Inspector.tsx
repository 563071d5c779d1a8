'use client';
import Box from '@mui/material/Box';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import { memo, useCallback, useEffect } from 'react';
import { useStore } from 'zustand';
import { later } from '@/ui/parts/later';
import { FINDINGS } from '@/ui/parts/places';
import { inspector, openIssues, openTab } from '@/ui/session/inspector';
import type { Tab as TabName } from '@/ui/session/inspector';
import type { DeskStore } from '@/ui/session/desk';
import type { Scene } from '@/ui/session/scene';
import { isBeside } from '@/ui/session/scene';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import type { Task } from '../commands/tasks';
import { showPlace } from '../issues/showPlace';
import { DestinationTab } from './DestinationTab';
import { InspectorHead } from './InspectorHead';
import { StageTab } from './StageTab';

const IssuesPanel = later(() => import('./IssuesPanel').then((m) => m.IssuesPanel));
const PatchTab = later(() => import('./PatchTab').then((m) => m.PatchTab));
const TaskPanel = later(() => import('./TaskPanel').then((m) => m.TaskPanel));
const HistoryPanel = later(() => import('../versions/HistoryPanel').then((m) => m.HistoryPanel));
const VariantsPanel = later(() => import('../versions/VariantsPanel').then((m) => m.VariantsPanel));

export interface InspectorProps {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  readonly begin: (task: Task | null) => void;
  /** The destination whose path is shown. */
  readonly shown: string | null;
  readonly scene: Scene;
  readonly setScene: (scene: Scene) => void;
  readonly onClose: () => void;
  readonly task: Task | null;
}

const asideStyle = {
  order: { xs: 4, md: 0 },
  width: { md: 312 },
  flexShrink: 0,
  display: 'flex',
  flexDirection: 'column',
  borderLeft: { md: `1px solid ${ink.line}` },
  borderTop: { xs: `1px solid ${ink.line}`, md: 0 },
  background: ink.raised,
  contain: { md: 'strict' },
} as const;

// On a phone as high as the screen but for its head: it comes up whole before what it lists is there.
const panelStyle = {
  flex: 1,
  minHeight: { xs: '70dvh', md: 0 },
  overflowY: { md: 'auto' },
  scrollbarGutter: { md: 'stable' },
  pt: 1.5,
  pb: 3,
  pl: 1.75,
  pr: { xs: 1.75, md: 0.75 },
} as const;

const TABS: readonly (readonly [TabName, string])[] = [
  ['stage', 'Stage'],
  ['destination', 'Destination'],
  ['patch', 'Patch'],
];

interface TabHeadsProps {
  readonly tab: TabName;
  /** Something lies over the panel of the tab. */
  readonly away: boolean;
  readonly back: () => void;
}

/** By itself: tabs measure their line whenever they are drawn anew, and a turned knob leaves them alone. */
const TabHeads = memo(function TabHeads({ tab, away, back }: TabHeadsProps) {
  return (
    <Tabs
      value={away ? false : tab}
      onChange={(_, next: TabName) => (back(), openTab(next))}
      aria-label="Inspector"
      sx={{ flexShrink: 0, px: 1.75, minHeight: 38, borderBottom: `1px solid ${ink.line}` }}
    >
      {TABS.map(([name, title]) => (
        <Tab
          key={name}
          value={name}
          label={title}
          id={`tab-${name}`}
          aria-controls="inspector-panel"
          // A tab that a list lies over leads back to it.
          onClick={() => away && tab === name && (back(), openTab(name))}
        />
      ))}
    </Tabs>
  );
});

/**
 * At the right: the issues, and three tabs, each about one subject. A choice that is being made, the variants and the
 * history take the panel's place; the tabs stay above it and lead back.
 */
export const Inspector = memo(function Inspector(props: InspectorProps) {
  const { desk, predicted, begin, task, scene, onClose } = props;
  useFirstIssue(desk, predicted);
  const { tab, issues, route } = useStore(inspector);
  const beside = isBeside(scene) ? scene.show : null;
  const away = task !== null || beside !== null || issues;
  useInSight(task ?? beside ?? (issues ? 'issues' : route));
  const back = useCallback((): void => {
    if (task) begin(null);
    if (beside) onClose();
  }, [task, beside, begin, onClose]);
  return (
    <Box component="aside" aria-label="Inspector" id="inspector" tabIndex={-1} data-no-print sx={asideStyle}>
      <InspectorHead {...props} back={back} />
      <TabHeads tab={tab} away={away} back={back} />
      <Box
        role="tabpanel"
        id="inspector-panel"
        aria-labelledby={away ? undefined : `tab-${tab}`}
        data-panel={task ? 'task' : (beside ?? (issues ? 'issues' : tab))}
        sx={panelStyle}
      >
        <Panel {...props} tab={tab} issues={issues} predicted={predicted} />
      </Box>
    </Box>
  );
});

/** How long what was opened is kept in sight while the page around it still grows, milliseconds. */
const SETTLES = 3000;

/** Where the inspector lies below what is in view, as on a phone, it comes up with what is opened in it. */
function useInSight(opened: unknown): void {
  useEffect(() => {
    if (opened === null) return undefined;
    let reached = 0;
    const look = (): void => {
      // A person who scrolls away meanwhile is left alone.
      if (window.scrollY < reached) return grown.disconnect();
      const aside = document.getElementById('inspector');
      if (aside && aside.getBoundingClientRect().top > window.innerHeight / 2) aside.scrollIntoView({ block: 'start' });
      reached = Math.floor(window.scrollY);
    };
    // It tells the size at once, and each time that it changes.
    const grown = new ResizeObserver(look);
    for (const part of document.querySelectorAll('#path, #inspector')) grown.observe(part);
    const settled = setTimeout(() => grown.disconnect(), SETTLES);
    return () => {
      clearTimeout(settled);
      grown.disconnect();
    };
  }, [opened]);
}

/** An address that asks for it leads to the place of the first issue, as soon as that is known. */
function useFirstIssue(desk: DeskStore, predicted: Predicted): void {
  const first = predicted.full === null ? undefined : predicted.prediction.findings[0]?.at;
  useEffect(() => {
    if (first === undefined || window.location.hash !== `#${FINDINGS}`) return;
    window.history.replaceState(window.history.state, '', window.location.pathname);
    showPlace(desk, first);
    openIssues();
  }, [desk, first]);
}

function Panel(props: InspectorProps & { readonly tab: TabName; readonly issues: boolean }) {
  const { desk, scene, setScene, onClose, task, issues, tab } = props;
  if (task) return <TaskPanel {...props} task={task} />;
  if (scene.show === 'variants') return <VariantsPanel desk={desk} onClose={onClose} onCompare={setScene} />;
  if (scene.show === 'history') return <HistoryPanel desk={desk} onClose={onClose} onCompare={setScene} />;
  if (issues) return <IssuesPanel {...props} />;
  if (tab === 'stage') return <StageTab {...props} />;
  if (tab === 'destination') return <DestinationTab {...props} />;
  const { graph, ends } = props.predicted;
  return <PatchTab desk={desk} patch={graph.patch} destinations={ends.length} cables={graph.wiring.cables.length} />;
}
