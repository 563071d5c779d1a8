'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { placeName } from '@/core';
import { CloseIcon } from '@/ui/parts/icons';
import { readingText, useUnits } from '@/ui/parts/readingText';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { fonts, ink } from '@/ui/theme/tokens';
import { Knobs } from '../stage/Knobs';
import { setParamOf } from '../stage/setParam';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The destination shown. */
  readonly shown: string | null;
}

const sheetStyle = {
  position: 'fixed',
  left: 0,
  right: 0,
  bottom: 0,
  zIndex: 6,
  px: 1.5,
  pt: 1,
  pb: 1.5,
  background: ink.raised,
  borderTop: `2px solid ${ink.wanted}`,
  display: { md: 'none' },
} as const;

/** Whether the inspector reaches into the upper half of the screen: it has these knobs itself, and they would lie over it. */
function useInspectorInSight(): boolean {
  const [inSight, setInSight] = useState(false);
  useEffect(() => {
    const aside = document.getElementById('inspector');
    if (!aside) return undefined;
    const watch = new IntersectionObserver((all) => setInSight(all.at(-1)?.isIntersecting ?? false), {
      rootMargin: '0px 0px -50% 0px',
    });
    watch.observe(aside);
    return () => watch.disconnect();
  }, []);
  return inSight;
}

/** On a phone: the knobs of the stage that was tapped, beside what arrives at the destination while they turn. */
export function PhoneKnobs({ desk, predicted, shown }: Props) {
  const selected = useStore(desk, (s) => s.selected);
  const units = useUnits();
  const m = predicted.graph.modules.find((x) => x.id === selected);
  const inspected = useInspectorInSight();
  if (!m || inspected) return null;
  const reading = predicted.prediction.readings.find((r) => r.at === shown);
  const toAll = (): void => {
    const aside = document.getElementById('inspector');
    aside?.scrollIntoView({ block: 'start' });
    aside?.focus({ preventScroll: true });
  };
  return (
    <Box component="section" aria-label={`Knobs of ${m.label}`} data-phone-knobs={m.id} sx={sheetStyle}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box sx={{ fontWeight: 700, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
            {m.label}
          </Box>
          {shown !== null && (
            <Box sx={{ fontSize: 12, color: ink.softInk }}>
              {`${placeName(predicted.graph.patch.modules, shown)} `}
              <Box component="span" data-phone-reading sx={{ fontFamily: fonts.numbers, fontSize: 15, color: ink.ink }}>
                {reading ? readingText(reading, units) : 'Not connected'}
              </Box>
            </Box>
          )}
        </Box>
        <Button onClick={toAll}>All settings</Button>
        <IconButton aria-label="Close the knobs" onClick={() => desk.getState().select(null)}>
          <CloseIcon sx={{ fontSize: 20 }} />
        </IconButton>
      </Box>
      <Box sx={{ overflowX: 'auto', '& > div': { flexWrap: 'nowrap', m: 0, mt: 0.5 } }}>
        <Knobs desk={desk} id={m.id} label={m.label} kind={m.kind} set={setParamOf(desk, m)} />
      </Box>
    </Box>
  );
}
