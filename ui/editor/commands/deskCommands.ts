import { kindNamed } from '@/core';
import { tellFault } from '@/ui/parts/messages';
import { setSetting } from '@/ui/parts/settings';
import { audition, toggleLoop, unmuteAll } from '@/ui/session/audition';
import { hearing, openSound, playFromStart, playOrStop, recordNow, swapSides } from '@/ui/session/hearing';
import { inspector, openIssues, showMap } from '@/ui/session/inspector';
import { endPreviews } from '@/ui/session/previews';
import { startRecording } from '@/ui/session/walkRecording';
import { holdKeys } from '@/ui/session/typeahead';
import type { Command } from './commandTable';
import type { Given } from './given';

/** Loops the stretch that is set, or plays on; and shows which. */
function loopOnOff(): void {
  toggleLoop();
  openSound('listening');
}

function isAnyOff(): boolean {
  const { muted, soloed } = audition.getState();
  return muted.size + soloed.size > 0;
}

/** What is done with the patch as a whole. */
export function deskCommands({ desk, predicted, setScene, go }: Given): Command[] {
  const { history, patch, undo, redo, select } = desk.getState();
  const [last, next] = [history.past.at(-1), history.future[0]];
  return [
    {
      id: 'undo',
      title: last ? `Undo: ${last.label}` : 'Undo',
      keys: 'mod+z',
      can: last !== undefined,
      why: 'Nothing to undo.',
      run: undo,
    },
    {
      id: 'redo',
      title: next ? `Redo: ${next.label}` : 'Redo',
      keys: 'mod+y,mod+shift+z',
      can: next !== undefined,
      why: 'Nothing to redo.',
      run: redo,
    },
    {
      id: 'palette',
      title: 'Search stages, destinations and commands',
      keys: 'mod+k',
      can: true,
      run() {
        holdKeys();
        setScene({ show: 'palette' });
      },
    },
    { id: 'play', title: 'Play / stop', keys: 'space', can: true, run: playOrStop },
    { id: 'restart', title: 'Play from the start', keys: 'shift+p', can: true, run: playFromStart },
    { id: 'loop', title: 'Loop on / off', keys: 'shift+l', can: true, run: loopOnOff },
    { id: 'unmute', title: 'Unmute all', can: isAnyOff(), why: 'Nothing is muted.', run: unmuteAll },
    {
      id: 'record',
      title: 'Record knob movements',
      keys: 'shift+r',
      can: true,
      run: recordNow,
    },
    {
      id: 'release',
      title: 'Stop preview, clear selection',
      keys: 'escape',
      can: true,
      run() {
        if (!endPreviews()) select(null);
      },
    },
    {
      id: 'map',
      title: inspector.getState().map ? 'Show the path' : 'Show the map',
      keys: 'g',
      can: true,
      run: () => showMap(!inspector.getState().map),
    },
    {
      id: 'issues',
      title: 'Show the issues',
      keys: 'shift+i',
      can: true,
      run: () => openIssues(!inspector.getState().issues),
    },
    {
      id: 'swap',
      title: 'Switch A/B comparison',
      keys: 'x',
      can: hearing.getState().open,
      why: 'No A/B comparison is active.',
      run: swapSides,
    },
    { id: 'variants', title: 'Variants', keys: 'v', can: true, run: () => setScene({ show: 'variants' }) },
    { id: 'history', title: 'History', keys: 'h', can: true, run: () => setScene({ show: 'history' }) },
    {
      id: 'import',
      title: 'Import a MIDI, CSV or WAV file',
      keys: 'o',
      can: true,
      run: () => setScene({ show: 'import' }),
    },
    {
      id: 'output',
      title: 'Add an output',
      can: !patch.modules.some((m) => kindNamed(m.kind)?.sound?.outlet),
      why: 'There is an output already.',
      run: () => void import('./addOutput').then((m) => m.addOutput(desk)).catch(tellFault),
    },
    {
      id: 'help',
      title: 'Shortcuts and glossary',
      keys: 'shift+slash',
      can: true,
      run: () => setScene({ show: 'help' }),
    },
    {
      id: 'guide',
      title: 'Start the tour',
      can: true,
      run() {
        setSetting('guide', 'on');
        setScene({ show: 'desk' });
      },
    },
    { id: 'walkthroughs', title: 'Walkthroughs', can: true, run: () => go('/practice/walkthroughs') },
    {
      id: 'practise',
      title: 'Practise this patch',
      can: predicted.graph.wiring.wires.length > 0,
      why: 'Nothing is connected yet.',
      run: () => go(`/practice/patch/${desk.getState().id}`),
    },
    { id: 'record-walkthrough', title: 'Record a walkthrough', can: true, run: () => startRecording(desk) },
  ];
}
