import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { readQuantity, showQuantity } from '@/core';
import type { Patch } from '@/core';
import { markFigure } from '@/core/practice';
import type { FigureAt, FigureValue } from '@/core/practice';
import { TextInput } from '@/ui/parts/TextInput';
import { practiceWorker } from '../practiceWorker';

interface Props {
  readonly question: FigureAt & { readonly text: string };
  /** What the step leads to: the truth is what is predicted of it. */
  readonly target: Patch;
  readonly answer: number | null;
  readonly asking: boolean;
  readonly onAnswer: (value: number) => void;
  readonly onShow: () => void;
}

/** What a figure of a patch comes to, from the worker; null until it is there. */
function useTruth(patch: Patch, { at, figure }: FigureAt): FigureValue | null {
  const [known, setKnown] = useState<{ readonly of: Patch; readonly value: FigureValue } | null>(null);
  useEffect(() => {
    let live = true;
    void practiceWorker()
      .figure(patch, { at, figure })
      .then((value) => live && value && setKnown({ of: patch, value }));
    return () => {
      live = false;
    };
  }, [patch, at, figure]);
  return known?.of === patch ? known.value : null;
}

/** A question before a step is done; then whether the answer was right. */
export function Question({ question, target, answer, asking, onAnswer, onShow }: Props) {
  const truth = useTruth(target, question);
  if (asking) return <Ask unit={truth?.unit ?? 'V'} ready={truth !== null} {...{ question, onAnswer, onShow }} />;
  if (answer === null || !truth) return null;
  const { right, close } = markFigure(question, truth, answer);
  const is = showQuantity(truth.value, truth.unit);
  return (
    <Alert severity={right ? 'success' : close ? 'warning' : 'error'} data-question={right ? 'right' : 'wrong'}>
      {right ? `Right: ${is}.` : `You said ${showQuantity(answer, truth.unit)}. It is ${is}.`}
    </Alert>
  );
}

interface AskProps extends Pick<Props, 'question' | 'onAnswer' | 'onShow'> {
  readonly unit: string;
  readonly ready: boolean;
}

function Ask({ question, unit, ready, onAnswer, onShow }: AskProps) {
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
            fullWidth
            value={text}
            fault={refused && value === null ? `Type a value in ${unit}.` : null}
            onChange={setText}
          />
        </Box>
        <Button type="submit" variant="contained" color="primary" disabled={!ready}>
          Answer
        </Button>
        <Button onClick={onShow}>Show me</Button>
      </Box>
    </Box>
  );
}
