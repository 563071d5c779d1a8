'use client';
import Accordion from '@mui/material/Accordion';
import AccordionDetails from '@mui/material/AccordionDetails';
import AccordionSummary from '@mui/material/AccordionSummary';
import { createContext, memo, use } from 'react';
import type { ReactNode } from 'react';
import { useStore } from 'zustand';
import { UnfoldIcon } from '@/ui/parts/icons';
import { setSetting, settings } from './settings';

interface Props {
  /** Under this name it is remembered whether it is open. */
  readonly id: string;
  readonly title: string;
  readonly children: ReactNode;
  /** Whether it is open until somebody says otherwise. */
  readonly open?: boolean;
}

const Body = createContext<ReactNode>(null);
/** What the nearest section holds: it changes with each figure, the section around it does not. */
const Held = () => use(Body);

interface FoldProps extends Pick<Props, 'id' | 'title'> {
  readonly isOpen: boolean;
}

const Fold = memo(function Fold({ id, title, isOpen }: FoldProps) {
  return (
    <Accordion
      expanded={isOpen}
      onChange={(_, now) => setSetting('sections', { ...settings.getState().sections, [id]: now })}
      data-section={id}
      sx={{ mt: 1.25 }}
    >
      <AccordionSummary expandIcon={<UnfoldIcon sx={{ fontSize: 18 }} />}>{title}</AccordionSummary>
      <AccordionDetails>{isOpen && <Held />}</AccordionDetails>
    </Accordion>
  );
});

/** A part of a panel that folds, and stays as it was left. */
export function Section({ id, title, children, open = false }: Props) {
  const isOpen = useStore(settings, (s) => s.sections[id]) ?? open;
  return (
    <Body value={children}>
      <Fold id={id} title={title} isOpen={isOpen} />
    </Body>
  );
}
