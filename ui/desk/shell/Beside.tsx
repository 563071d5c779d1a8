'use client';
import { later } from '@/ui/parts/later';
import type { Scene } from '@/ui/session/scene';
import { turns, useCalm } from '@/ui/session/useCalm';
import { Commands } from '../commands/Commands';
import type { Given } from '../commands/given';
import type { Task } from '../commands/tasks';
import { Aside } from './Aside';
import type { StageProps } from './StageAndFindings';

const Guide = later(() => import('./Guide').then((m) => m.Guide));

interface Props extends Omit<StageProps, 'shown'>, Omit<Given, 'socket'> {
  /** The socket whose path is shown. */
  readonly shown: string | null;
  readonly scene: Scene;
  readonly task: Task | null;
  readonly onClose: () => void;
}

/** What lies beside the strip, and may follow it a moment later: the strip is not drawn again for it. */
export function Beside({ desk, predicted, scene, setScene, task, begin, setGhost, shown, ends, end, onClose }: Props) {
  const calm = useCalm(predicted, turns);
  return (
    <>
      <Aside
        // What is chosen from is the patch as it is.
        {...{ desk, scene, setScene, task, begin, setGhost, shown, onClose, predicted: task ? predicted : calm }}
      />
      <Commands {...{ desk, ends, end, scene, setScene, begin, predicted: calm, socket: shown, onClose }} />
      <Guide predicted={calm} begin={begin} />
    </>
  );
}
