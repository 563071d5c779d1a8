'use client';
import { memo } from 'react';
import { later } from '@/ui/parts/later';
import type { Scene } from '@/ui/session/scene';
import { useCommands } from './useCommands';
import type { Given } from './given';

const WhyNot = later(() => import('./WhyNot').then((m) => m.WhyNot));
const HelpDialog = later(() => import('./HelpDialog').then((m) => m.HelpDialog));
const Palette = later(() => import('./Palette').then((m) => m.Palette));

interface Props extends Given {
  readonly scene: Scene;
  readonly onClose: () => void;
}

/** The editor's keys, and the two places where all that can be done is listed. */
export const Commands = memo(function Commands({ scene, onClose, ...given }: Props) {
  const commands = useCommands(given);
  return (
    <>
      <WhyNot />
      {scene.show === 'help' && <HelpDialog commands={commands.list()} onClose={onClose} />}
      {scene.show === 'palette' && <Palette entries={commands.entries()} onClose={onClose} />}
    </>
  );
});
