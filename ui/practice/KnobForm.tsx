import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { knobPlace, knobsIn } from '@/core';
import type { Answer, KnobValue } from '@/core/practice';
import { Knob } from '@/ui/parts/Knob';
import type { ShownExercise } from '@/wire/practiceJobs';

interface Props {
  readonly shown: ShownExercise;
  readonly onAnswer: (answer: Answer) => void;
}

/** Knobs by their pointer alone: what they give is what is asked. */
export function KnobForm({ shown: { exercise }, onAnswer }: Props) {
  const { ask, patch } = exercise;
  const [knobs] = useState(() =>
    patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm)).filter((k) => ask.knobs?.includes(k.at)),
  );
  const [values, setValues] = useState<readonly KnobValue[]>(() => knobs.map(({ at, value }) => ({ at, value })));
  const put = (at: string, value: number): void => setValues(values.map((v) => (v.at === at ? { at, value } : v)));
  return (
    <Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, mb: 2 }}>
        {knobs.map((k) => (
          <Box key={k.at} data-pointer={k.at}>
            <Knob
              param={k.name}
              label={knobPlace(patch.modules, k.at)}
              spec={k.spec}
              travel={{ min: k.min, max: k.max, taper: k.spec.taper }}
              value={values.find((v) => v.at === k.at)?.value ?? k.value}
              shown=""
              says={undefined}
              locked={false}
              pointerOnly
              onChange={(value) => put(k.at, value)}
              onDefault={() => put(k.at, k.value)}
              onLock={() => undefined}
            />
          </Box>
        ))}
      </Box>
      <Button variant="contained" color="primary" onClick={() => onAnswer({ knobs: values })}>
        Answer
      </Button>
    </Box>
  );
}
