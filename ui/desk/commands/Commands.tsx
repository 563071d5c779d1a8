'use client';
import dynamic from 'next/dynamic';
import { patiently } from '@/ui/parts/patiently';
import { memo } from 'react';
import type { Scene } from '@/ui/session/scene';
import { useCommands } from './useCommands';
import type { Given } from './given';

const WhyNot = dynamic(
  patiently(() => import('./WhyNot').then((m) => m.WhyNot)),
  { ssr: false },
);
const HelpDialog = dynamic(
  patiently(() => import('./HelpDialog').then((m) => m.HelpDialog)),
  { ssr: false },
);
const Palette = dynamic(
  patiently(() => import('./Palette').then((m) => m.Palette)),
  { ssr: false },
);

interface Props extends Given {
  readonly scene: Scene;
  readonly onClose: () => void;
}

/** The desk's keys, and the two places where all that can be done is listed. */
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
