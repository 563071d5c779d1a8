'use client';
import { useRouter } from 'next/navigation';
import { useCallback } from 'react';
import { useStore } from 'zustand';
import { later } from '@/ui/parts/later';
import { settings } from '@/ui/parts/settings';
import { walkRecording } from '@/ui/session/walkRecording';
import { turns, useCalm } from '@/ui/session/useCalm';
import { Commands } from '../commands/Commands';
import type { Given } from '../commands/given';
import { Inspector } from '../inspector/Inspector';
import type { InspectorProps } from '../inspector/Inspector';

const RecordPanel = later(() => import('./RecordPanel').then((m) => m.RecordPanel));
const Guide = later(() => import('./Guide').then((m) => m.Guide));

type Props = InspectorProps & Omit<Given, 'socket' | 'go'>;

/** What lies beside the strip, and may follow it a moment later: the strip is not drawn again for it. */
export function Beside({ desk, predicted, scene, setScene, task, begin, shown, ends, end, onClose }: Props) {
  const calm = useCalm(predicted, turns);
  const router = useRouter();
  const go = useCallback((address: string) => router.push(address), [router]);
  const guide = useStore(settings, (s) => s.guide);
  const recording = useStore(walkRecording, (s) => s.now);
  return (
    <>
      <Inspector
        // What is chosen from is the patch as it is.
        {...{ desk, scene, setScene, task, begin, shown, onClose, predicted: task ? predicted : calm }}
      />
      <Commands {...{ desk, ends, end, scene, setScene, begin, predicted: calm, socket: shown, go, onClose }} />
      {guide === 'on' && <Guide desk={desk} predicted={calm} shown={shown} />}
      {recording && <RecordPanel desk={desk} recording={recording} />}
    </>
  );
}
