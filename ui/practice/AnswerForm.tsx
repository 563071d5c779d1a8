import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { readQuantity } from '@/core';
import type { Answer, Choice } from '@/core/practice';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import type { ShownExercise } from '@/wire/practiceJobs';
import { FaultForm } from './FaultForm';
import { KnobForm } from './KnobForm';
import { TraceChoice } from './TraceChoice';
import { useDigits } from './useDigits';

interface Props {
  readonly shown: ShownExercise;
  readonly onAnswer: (answer: Answer) => void;
}

/** What is asked for, in the form in which it is answered. */
export function AnswerForm({ shown, onAnswer }: Props) {
  const { ask } = shown.exercise;
  switch (ask.answer) {
    case 'range':
      return (
        <Figures
          labels={['Lowest', 'Highest']}
          unit={ask.unit}
          onGiven={([low = 0, high = 0]) => onAnswer({ low: Math.min(low, high), high: Math.max(low, high) })}
        />
      );
    case 'volts':
    case 'unit':
      return <Figures labels={['Answer']} unit={ask.unit} onGiven={([value = 0]) => onAnswer({ value })} />;
    case 'choice':
      return <Choices choices={ask.choices ?? []} onChoose={(choice) => onAnswer({ choice })} />;
    case 'order':
      return <Order choices={ask.choices ?? []} onAnswer={(order) => onAnswer({ order })} />;
    case 'knob':
      return <KnobForm shown={shown} onAnswer={onAnswer} />;
    case 'fault':
      return <FaultForm shown={shown} onAnswer={onAnswer} />;
  }
}

interface FiguresProps {
  readonly labels: readonly string[];
  readonly unit: string;
  readonly onGiven: (values: readonly number[]) => void;
}

/** Figures as people type them; Enter answers. */
function Figures({ labels, unit, onGiven }: FiguresProps) {
  const [texts, setTexts] = useState<readonly string[]>(labels.map(() => ''));
  const [refused, setRefused] = useState(false);
  const values = texts.map((text) => readQuantity(text, unit));
  const give = (): void => {
    const given = values.flatMap((v) => v ?? []);
    if (given.length === labels.length) onGiven(given);
    else setRefused(true);
  };
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        give();
      }}
      sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'flex-start', gap: 1 }}
    >
      {labels.map((label, i) => (
        <Box key={label} sx={{ width: 130 }}>
          <TextInput
            label={label}
            placeholder={`${label}, ${unit}`}
            figures
            autoFocus={i === 0}
            fullWidth
            value={texts[i] ?? ''}
            fault={refused && values[i] === null ? `Type a value in ${unit}.` : null}
            onChange={(text) => setTexts(texts.map((t, k) => (k === i ? text : t)))}
          />
        </Box>
      ))}
      <Button type="submit" variant="contained" color="primary">
        Answer
      </Button>
    </Box>
  );
}

interface ChoicesProps {
  readonly choices: readonly Choice[];
  readonly onChoose: (choice: number) => void;
}

/** One of several; number keys choose too. */
function Choices({ choices, onChoose }: ChoicesProps) {
  useDigits(choices.length, onChoose);
  if (choices.some((c) => c.trace)) return <TraceChoice choices={choices} onChoose={onChoose} />;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', gap: 1, maxWidth: 380 }}>
      {choices.map((c, i) => (
        <Button key={c.text} onClick={() => onChoose(i)} data-choice={i}>
          <Key n={i + 1} />
          {c.text}
        </Button>
      ))}
    </Box>
  );
}

/** The key that chooses it. */
const Key = ({ n }: { readonly n: number }) => (
  <Box component="span" aria-hidden sx={{ color: ink.softInk, fontSize: 12, mr: 1 }}>
    {n}
  </Box>
);

/** Choices that are pressed one after the other. */
function Order({
  choices,
  onAnswer,
}: {
  readonly choices: readonly Choice[];
  readonly onAnswer: (order: number[]) => void;
}) {
  const [order, setOrder] = useState<readonly number[]>([]);
  const press = (i: number): void => setOrder(order.includes(i) ? order.filter((n) => n !== i) : [...order, i]);
  useDigits(choices.length, press);
  return (
    <Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {choices.map((c, i) => {
          const place = order.indexOf(i);
          return (
            <Button key={c.text} aria-pressed={place >= 0} onClick={() => press(i)} data-choice={i}>
              {place >= 0 ? `${place + 1}. ${c.text}` : c.text}
            </Button>
          );
        })}
      </Box>
      <Box sx={{ color: ink.softInk, fontSize: 14, my: 1 }}>Press them in order, here or by number keys.</Box>
      <Button
        variant="contained"
        color="primary"
        disabled={order.length < choices.length}
        onClick={() => onAnswer([...order])}
      >
        Answer
      </Button>
    </Box>
  );
}
