import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { knobPlace, knobsIn, valueAt } from '@/core';
import { skillNamed } from '@/core/practice';
import type { Answer, KnobValue } from '@/core/practice';
import { Knob } from '@/ui/parts/Knob';
import { showParam } from '@/ui/parts/params';
import { fonts, ink } from '@/ui/theme/tokens';
import type { ShownExercise } from '@/wire/practiceJobs';

interface Props {
  readonly shown: ShownExercise;
  readonly onAnswer: (answer: Answer) => void;
}

/** Knobs to set: by their pointer alone where that is what is practised. */
export function KnobForm({ shown: { exercise }, onAnswer }: Props) {
  const { ask, patch } = exercise;
  const [knobs] = useState(() =>
    patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm)).filter((k) => ask.knobs?.includes(k.at)),
  );
  const [values, setValues] = useState<readonly KnobValue[]>(() => knobs.map(({ at, value }) => ({ at, value })));
  // Elsewhere a knob says what it stands at, as it does in the editor.
  const byPointer = skillNamed(exercise.skill)?.group === 'knob';
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
              shown={showParam(k.spec, values.find((v) => v.at === k.at)?.value ?? k.value)}
              says={undefined}
              locked={false}
              pointerOnly={byPointer}
              onChange={(value) => put(k.at, value)}
              onDefault={() => put(k.at, k.value)}
              onLock={() => undefined}
            />
            {byPointer && <Scale knob={k} />}
          </Box>
        ))}
      </Box>
      <Button variant="contained" color="primary" onClick={() => onAnswer({ knobs: values })}>
        Answer
      </Button>
    </Box>
  );
}

/** What is printed at both ends of its travel and at noon, as on a panel. */
function Scale({ knob: { min, max, spec } }: { readonly knob: ReturnType<typeof knobsIn>[number] }) {
  const marks = [0, 0.5, 1].map((p) => showParam(spec, valueAt({ min, max, taper: spec.taper }, p)));
  return (
    <Box sx={{ textAlign: 'center', fontFamily: fonts.numbers, fontSize: 12, color: ink.softInk }} data-scale>
      {marks.join('  ·  ')}
    </Box>
  );
}
