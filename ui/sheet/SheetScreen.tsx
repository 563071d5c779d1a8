'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useStore } from 'zustand';
import { NO_OUTPUT, partText, sheetParts } from '@/core';
import type { Sheet } from '@/core';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { tellFault } from '@/ui/parts/messages';
import { rackApi } from '@/ui/parts/rackApi';
import { settings } from '@/ui/parts/settings';
import { ink } from '@/ui/theme/tokens';
import { Needs } from './Needs';
import { SheetHead } from './SheetHead';
import { StepRow } from './StepRow';
import { useTicks } from './useTicks';
import type { Tick } from '@/wire/requests';
import type { Ticking } from './useTicks';

/** A patch at the rack: what is needed, then step by step what to set, plug, measure and hear. */
export function SheetScreen({ id }: { readonly id: string }) {
  const { racks, id: rack, choose } = useChosenRack();
  const measured = useStore(settings, (s) => s.asMeasured);
  const { data: sheet, error } = useQuery({
    queryKey: ['sheet', id, rack, measured],
    queryFn: () => rackApi.sheet(id, rack, measured),
    // What is open goes on working where the server is gone.
    gcTime: Infinity,
    staleTime: Infinity,
    retry: 1,
  });
  const ticking = useTicks(id, rack);
  const [single, setSingle] = useState(false);
  return (
    <Box component="main" sx={{ maxWidth: 860, mx: 'auto', px: 2, pb: 12, fontSize: { xs: 17, md: 15 } }}>
      <SheetHead {...{ id, sheet: sheet ?? null, racks, rack, choose, ticking, single }} onSingle={setSingle} />
      {error && (
        <Alert
          severity="error"
          sx={{ mt: 2 }}
        >{`${error.message} Go back to Patches and open the patch sheet again.`}</Alert>
      )}
      {!sheet && !error && <LinearProgress aria-label="Preparing the patch sheet" sx={{ mt: 2 }} />}
      {sheet && (single ? <OneStep sheet={sheet} ticking={ticking} /> : <AllSteps sheet={sheet} ticking={ticking} />)}
      {sheet?.steps.some((s) => s.id === NO_OUTPUT) && <NoOutput id={id} />}
      {sheet && <Left sheet={sheet} ticking={ticking} />}
    </Box>
  );
}

/** Leads the sound out there and then, so that the sheet ends with something to hear. */
function NoOutput({ id }: { readonly id: string }) {
  const client = useQueryClient();
  const [busy, setBusy] = useState(false);
  const add = (): void => {
    setBusy(true);
    import('./addOutput')
      .then((m) => m.addOutput(id))
      .then(() => client.invalidateQueries({ queryKey: ['sheet', id] }))
      .catch(tellFault)
      .finally(() => setBusy(false));
  };
  return (
    <Button disabled={busy} onClick={add} sx={{ mt: 2, minHeight: 44, '@media print': { display: 'none' } }}>
      Add an output
    </Button>
  );
}

interface StepsProps {
  readonly sheet: Sheet;
  readonly ticking: Ticking;
}

/** Where a wrong reading's fault is looked for: in its session, once it has reached the server. */
const faultAt = ({ session, sent }: Ticking): string | null =>
  session !== null && sent ? `/bench/${session}?find=fault` : null;

function AllSteps({ sheet, ticking }: StepsProps) {
  return (
    <>
      <Needs sheet={sheet} />
      {sheetParts(sheet.steps).map(({ part, steps }) => (
        <Box key={`${part} ${steps[0]?.id ?? ''}`} component="section" aria-label={partText(sheet, part)}>
          <Box component="h2" sx={{ fontSize: 18, mt: 3, mb: 0.5 }}>
            {partText(sheet, part)}
          </Box>
          {steps.map((step) => (
            <StepRow
              key={step.id}
              sheet={sheet}
              step={step}
              tick={ticking.ticks[step.id]}
              mark={ticking.mark}
              fault={faultAt(ticking)}
            />
          ))}
        </Box>
      ))}
    </>
  );
}

/** The first step that is not done, by itself; a tick turns to the next. */
function OneStep({ sheet, ticking }: StepsProps) {
  const { steps } = sheet;
  const first = steps.findIndex((s) => ticking.ticks[s.id]?.done !== true);
  const [at, setAt] = useState(first < 0 ? 0 : first);
  const step = steps[Math.min(at, steps.length - 1)];
  if (!step) return null;
  const turn = (by: number): void => setAt(Math.min(steps.length - 1, Math.max(0, at + by)));
  return (
    <Box data-single={step.id}>
      <Box sx={{ color: ink.softInk, mt: 3 }}>{`${partText(sheet, step.part)}, step ${at + 1} of ${steps.length}`}</Box>
      <StepRow
        key={step.id}
        sheet={sheet}
        step={step}
        tick={ticking.ticks[step.id]}
        mark={(id, change) => {
          ticking.mark(id, change);
          if (change.done) turn(1);
        }}
        fault={faultAt(ticking)}
        large
      />
      <Box
        sx={{
          position: 'fixed',
          left: 0,
          right: 0,
          bottom: 0,
          display: 'flex',
          gap: 1,
          p: 1.5,
          background: ink.paper,
          borderTop: `1px solid ${ink.line}`,
          '@media print': { display: 'none' },
        }}
      >
        <Button disabled={at === 0} onClick={() => turn(-1)} sx={{ flex: 1, minHeight: 56 }}>
          Back
        </Button>
        <Button disabled={at === steps.length - 1} onClick={() => turn(1)} sx={{ flex: 1, minHeight: 56 }}>
          Next
        </Button>
      </Box>
    </Box>
  );
}

const readOf = ({ read, reads = {} }: Tick): string => {
  const all = [read, ...Object.entries(reads).map(([quantity, text]) => text && `${quantity} ${text}`)].filter(Boolean);
  return all.length > 0 ? `: read ${all.join(', ')}` : '';
};

/** Ticks of steps that the patch no longer has: kept, and said. */
function Left({ sheet, ticking }: StepsProps) {
  const there = new Set(sheet.steps.map((s) => s.id));
  const left = Object.entries(ticking.ticks).filter(([id, t]) => !there.has(id) && (t.done || readOf(t) !== ''));
  if (left.length === 0) return null;
  return (
    <Box component="section" aria-label="No longer in the patch" data-left sx={{ mt: 3, color: ink.softInk }}>
      <Box component="h2" sx={{ fontSize: 16 }}>
        Completed earlier, no longer in the patch
      </Box>
      {left.map(([id, t]) => (
        <Box key={id}>{`${id}${readOf(t)}`}</Box>
      ))}
    </Box>
  );
}
