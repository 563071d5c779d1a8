import { idOf, placeName } from '@/core';
import { toggleAudition } from '@/ui/session/audition';
import { openSound } from '@/ui/session/hearing';
import type { Command } from './commandTable';
import { focusOn } from './given';
import type { Given } from './given';

/** Mutes a destination or hears it alone, and shows what is. */
function audible(what: 'muted' | 'soloed', at: string): void {
  toggleAudition(what, at);
  openSound('listening');
}

/** Ways along the path, and what is done with all of it. */
export function pathCommands({ desk, predicted, ends, end, socket, begin }: Given): Command[] {
  const { selected, trail, select, showEnd, showJoining, back } = desk.getState();
  const frames = predicted.strip?.frames ?? [];
  const at = frames.findIndex((f) => f.module.id === selected);
  const joining =
    predicted.strip?.joinings.find((j) => idOf(j.into.socket) === selected) ?? predicted.strip?.joinings[0];
  const go = (i: number): void => {
    const id = frames[i]?.module.id;
    if (id === undefined) return;
    select(id);
    focusOn(`[data-frame="${id}"]`);
  };
  const first = frames[0]?.input;
  return [
    {
      id: 'previous',
      title: 'Previous stage',
      keys: 'bracketleft',
      can: frames.length > 0,
      why: 'There’s no path yet. Add a destination first (E).',
      run: () => go(Math.max(0, at < 0 ? frames.length - 1 : at - 1)),
    },
    {
      id: 'next',
      title: 'Next stage',
      keys: 'bracketright',
      can: frames.length > 0,
      why: 'There’s no path yet. Add a destination first (E).',
      run: () => go(Math.min(frames.length - 1, at + 1)),
    },
    {
      id: 'joining',
      title: 'Go to the joining path',
      keys: 'j',
      can: joining !== undefined,
      why: 'No other path joins this one.',
      run: () => showJoining(socket, joining?.into.socket ?? ''),
    },
    {
      id: 'back',
      title: 'Back to the main path',
      keys: 'u',
      can: trail.length > 1,
      why: 'You’re already on the main path.',
      run: () => back(trail.length - 2),
    },
    ...ends.slice(0, 9).map((e, i): Command => ({
      id: `end ${e}`,
      title: `Show ${placeName(predicted.graph.modules, e)}`,
      keys: String(i + 1),
      can: true,
      run: () => showEnd(e),
    })),
    ...(['muted', 'soloed'] as const).map((what): Command => ({
      id: what,
      title: what === 'muted' ? 'Mute this destination' : 'Solo this destination',
      keys: what === 'muted' ? 'shift+m' : 'shift+s',
      can: end !== null,
      why: 'There’s no destination yet. Add one first (E).',
      run: () => audible(what, end ?? ''),
    })),
    { id: 'end', title: 'Add a destination', keys: 'e', can: true, run: () => begin({ do: 'end' }) },
    {
      id: 'feed',
      title: 'Choose a source for this path',
      keys: 's',
      can: socket !== null,
      why: 'There’s no destination to drive yet. Add one first (E).',
      run: () => begin({ do: 'feed', socket: first && first.driver.type !== 'output' ? first.socket : (socket ?? '') }),
    },
    { id: 'module', title: 'Add an unconnected module', keys: 'm', can: true, run: () => begin({ do: 'module' }) },
    {
      id: 'copy',
      title: 'Copy this path to another destination',
      keys: 'c',
      can: end !== null && frames.length > 1,
      why: 'There’s no path to copy yet.',
      run: () => begin({ do: 'copy', from: end ?? '', mirrored: false }),
    },
    {
      id: 'mirror',
      title: 'Copy this path to another destination, mirrored',
      keys: 'shift+c',
      can: end !== null && frames.length > 1,
      why: 'There’s no path to copy yet.',
      run: () => begin({ do: 'copy', from: end ?? '', mirrored: true }),
    },
  ];
}
