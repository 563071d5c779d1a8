import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { clockOf, knobPlace, knobsIn, positionOf, showNumber, valueAt } from '@/core';
import type { Travel } from '@/core';
import type { Answer, KnobValue } from '@/core/practice';
import Slider from '@mui/material/Slider';
import { fonts } from '@/ui/theme/tokens';
import type { ShownExercise } from '@/wire/practiceJobs';

interface Props {
  readonly shown: ShownExercise;
  readonly onAnswer: (answer: Answer) => void;
}

/** Knobs by their pointer alone: what they give is what is asked. */
export function KnobForm({ shown: { exercise }, onAnswer }: Props) {
  const { ask, patch } = exercise;
  const knobs = patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm)).filter((k) => ask.knobs?.includes(k.at));
  const travelOf = (at: string): Travel => {
    const k = knobs.find((x) => x.at === at);
    return { min: k?.min ?? 0, max: k?.max ?? 1, taper: k?.spec.taper ?? 'linear' };
  };
  const [values, setValues] = useState<readonly KnobValue[]>(() => knobs.map(({ at, value }) => ({ at, value })));
  return (
    <Box>
      {values.map(({ at, value }) => {
        const travel = travelOf(at);
        const position = positionOf(travel, value);
        const name = knobPlace(patch.modules, at);
        return (
          <Box key={at} sx={{ maxWidth: 340, mb: 1 }}>
            <Box sx={{ display: 'flex' }}>
              {name}
              <Box sx={{ flex: 1 }} />
              <Box sx={{ fontFamily: fonts.numbers }} data-pointer={at}>
                {`${clockOf(position)} · ${showNumber(100 * position, 0)}%`}
              </Box>
            </Box>
            <Slider
              aria-label={name}
              min={0}
              max={1}
              step={0.005}
              value={position}
              getAriaValueText={(p) => clockOf(p)}
              onChange={(_, p) =>
                setValues(values.map((v) => (v.at === at ? { at, value: valueAt(travel, Number(p)) } : v)))
              }
            />
          </Box>
        );
      })}
      <Button variant="contained" color="primary" onClick={() => onAnswer({ knobs: values })}>
        Answer
      </Button>
    </Box>
  );
}
