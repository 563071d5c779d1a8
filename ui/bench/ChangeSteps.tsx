import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useState } from 'react';
import { meterText } from '@/core';
import type { ChangeStep } from '@/core';
import { fonts, ink } from '@/ui/theme/tokens';

/** Steps at the rack, each with a box to tick while one stands there. */
export function ChangeSteps({ steps }: { readonly steps: readonly ChangeStep[] }) {
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  const turn = (id: string): void =>
    setDone((now) => {
      const next = new Set(now);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  return (
    <Box component="ol" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {steps.map((step) => (
        <Box
          component="li"
          key={step.id}
          data-step={step.id}
          data-do={step.do}
          sx={{ borderTop: `1px solid ${ink.line}`, breakInside: 'avoid' }}
        >
          <FormControlLabel
            sx={{ m: 0, alignItems: 'flex-start', minHeight: 40, '& .MuiFormControlLabel-label': { pt: 1 } }}
            control={<Checkbox checked={done.has(step.id)} onChange={() => turn(step.id)} />}
            label={
              <Box component="span" sx={{ color: done.has(step.id) ? ink.softInk : ink.ink }}>
                {step.text}
              </Box>
            }
          />
          {step.do === 'measure' && (
            <Box sx={{ pl: 5, pb: 0.5, fontFamily: fonts.numbers, fontSize: 14 }}>
              {step.expect.meter.map((m) => meterText(m)).join(' · ')}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
