'use client';
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import { useState } from 'react';
import { ink } from '@/ui/theme/tokens';
import type { Controllers } from './midi';

/** The numbers of its faders, as controllers call them. */
const FADERS = [1, 7, 10, 74] as const;
const CONTROL = 0xb0;

/** A controller that is not there: it sends what one would, to try with. */
export function TryController({ controllers }: { readonly controllers: Controllers }) {
  const [values, setValues] = useState<Readonly<Record<number, number>>>({});
  return (
    <Box
      role="group"
      aria-label="Virtual controller"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        gap: 2,
        mt: 1,
        p: 1,
        border: `1px dashed ${ink.softInk}`,
        borderRadius: 1,
      }}
    >
      {FADERS.map((n) => (
        <Box key={n} sx={{ width: 120, fontSize: 13 }}>
          {`simulated, ${n}`}
          <Slider
            aria-label={`Simulated control ${n}`}
            size="small"
            min={0}
            max={127}
            step={1}
            value={values[n] ?? 0}
            onChange={(_, v) => {
              setValues((all) => ({ ...all, [n]: v as number }));
              controllers.send([CONTROL, n, v as number]);
            }}
          />
        </Box>
      ))}
    </Box>
  );
}
