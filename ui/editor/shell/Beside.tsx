'use client';
import { later } from '@/ui/parts/later';
import { turns, useCalm } from '@/ui/session/useCalm';
import { Commands } from '../commands/Commands';
import type { Given } from '../commands/given';
import { Inspector } from '../inspector/Inspector';
import type { InspectorProps } from '../inspector/Inspector';

const Guide = later(() => import('./Guide').then((m) => m.Guide));

type Props = InspectorProps & Omit<Given, 'socket'>;

/** What lies beside the strip, and may follow it a moment later: the strip is not drawn again for it. */
export function Beside({ desk, predicted, scene, setScene, task, begin, shown, ends, end, onClose }: Props) {
  const calm = useCalm(predicted, turns);
  return (
    <>
      <Inspector
        // What is chosen from is the patch as it is.
        {...{ desk, scene, setScene, task, begin, shown, onClose, predicted: task ? predicted : calm }}
      />
      <Commands {...{ desk, ends, end, scene, setScene, begin, predicted: calm, socket: shown, onClose }} />
      <Guide desk={desk} predicted={calm} shown={shown} />
    </>
  );
}
