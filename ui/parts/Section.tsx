'use client';
import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import Accordion from '@mui/material/Accordion';
import AccordionDetails from '@mui/material/AccordionDetails';
import AccordionSummary from '@mui/material/AccordionSummary';
import { useStore } from 'zustand';
import type { ReactNode } from 'react';
import { setSetting, settings } from './settings';

interface Props {
  /** Under this name it is remembered whether it is open. */
  readonly id: string;
  readonly title: string;
  readonly children: ReactNode;
  /** Whether it is open until somebody says otherwise. */
  readonly open?: boolean;
}

/** A part of a panel that folds, and stays as it was left. */
export function Section({ id, title, children, open = false }: Props) {
  const sections = useStore(settings, (s) => s.sections);
  const isOpen = sections[id] ?? open;
  return (
    <Accordion
      expanded={isOpen}
      onChange={(_, now) => setSetting('sections', { ...sections, [id]: now })}
      data-section={id}
    >
      <AccordionSummary expandIcon={<ExpandMoreIcon sx={{ fontSize: 18 }} />}>{title}</AccordionSummary>
      <AccordionDetails>{isOpen && children}</AccordionDetails>
    </Accordion>
  );
}
