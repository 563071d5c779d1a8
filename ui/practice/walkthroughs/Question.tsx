import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import { useState } from 'react';
import { readQuantity } from '@/core';
import type { Patch } from '@/core';
import { figureText, markFigure } from '@/core/practice';
import type { FigureAt } from '@/core/practice';
import { TextInput } from '@/ui/parts/TextInput';
import { useFigure } from './useFigure';

interface Props {
  readonly question: FigureAt & { readonly text: string };
  /** What the step leads to: the truth is what is predicted of it. */
  readonly target: Patch;
  readonly answer: number | null;
  readonly asking: boolean;
  readonly onAnswer: (value: number) => void;
  readonly onShow: () => void;
}

/** A question before a step is done; then whether the answer was right. */
export function Question({ question, target, answer, asking, onAnswer, onShow }: Props) {
  const found = useFigure(target, question);
  const truth = found?.current ? found.value : null;
  // Until it is known in which unit it is asked.
  if (asking && !truth) return <Skeleton variant="rectangular" sx={{ height: 84 }} />;
  if (asking && truth) return <Ask unit={truth.unit} {...{ question, onAnswer, onShow }} />;
  if (answer === null || !truth) return null;
  const { right, close } = markFigure(question, truth, answer);
  const is = figureText(question, truth);
  return (
    <Alert severity={right ? 'success' : close ? 'warning' : 'error'} data-question={right ? 'right' : 'wrong'}>
      {right ? `Right: ${is}.` : `You said ${figureText(question, { value: answer, unit: truth.unit })}. It is ${is}.`}
    </Alert>
  );
}

interface AskProps extends Pick<Props, 'question' | 'onAnswer' | 'onShow'> {
  readonly unit: string;
}

function Ask({ question, unit, onAnswer, onShow }: AskProps) {
  const [text, setText] = useState('');
  const [refused, setRefused] = useState(false);
  const value = readQuantity(text, unit);
  return (
    <Box
      component="form"
      data-question="asked"
      onSubmit={(e) => {
        e.preventDefault();
        if (value === null) setRefused(true);
        else onAnswer(value);
      }}
    >
      <Box sx={{ fontWeight: 700, mb: 1 }}>{question.text}</Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'flex-start' }}>
        <Box sx={{ width: 130 }}>
          <TextInput
            label="Answer"
            placeholder={`Answer, ${unit}`}
            figures
            autoFocus
            fullWidth
            value={text}
            fault={refused && value === null ? `Type a value in ${unit}.` : null}
            onChange={setText}
          />
        </Box>
        <Button type="submit" variant="contained" color="primary">
          Answer
        </Button>
        <Button onClick={onShow}>Show me</Button>
      </Box>
    </Box>
  );
}
