import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { knobPlace, showQuantity, showVoltRange } from '@/core';
import { faultText } from '@/core';
import type { Answer, Exercise, Mark } from '@/core/practice';
import { fonts } from '@/ui/theme/tokens';

/** An answer as a sentence would say it. */
export function answerText({ ask, patch }: Exercise, answer: Answer): string {
  if ('low' in answer) {
    if (ask.unit === 'V') return showVoltRange(answer.low, answer.high);
    return `${showQuantity(answer.low, ask.unit)} to ${showQuantity(answer.high, ask.unit)}`;
  }
  if ('value' in answer) return showQuantity(answer.value, ask.unit);
  if ('knobs' in answer)
    return answer.knobs.map((k) => `${knobPlace(patch.modules, k.at)} ${Number(k.value.toFixed(3))}`).join(', ');
  if ('choice' in answer) return ask.choices?.[answer.choice]?.text ?? '';
  if ('order' in answer) return answer.order.map((i) => ask.choices?.[i]?.text ?? '').join(', ');
  return answer.faults.map((f) => faultText(patch.modules, f)).join(', and ');
}

/** Whether it was right, what is, which mistake gives just that answer, and how it comes about. */
export function Explained({ exercise, mark }: { readonly exercise: Exercise; readonly mark: Mark }) {
  const { right, score, truth, slip, steps } = mark;
  return (
    <Box data-mark={right ? 'right' : score > 0 ? 'half' : 'wrong'}>
      <Alert severity={right ? 'success' : score > 0 ? 'warning' : 'error'}>
        {right ? 'Right: ' : score > 0 ? 'Close. It is ' : 'Not quite. It is '}
        <Box component="span" sx={{ fontFamily: fonts.numbers }} data-truth>
          {answerText(exercise, truth)}
        </Box>
        {slip && <Box sx={{ mt: 0.5 }}>{slip}</Box>}
      </Alert>
      {steps.length > 0 && (
        <Table size="small" aria-label="How it comes about" sx={{ mt: 1 }}>
          <TableBody>
            {steps.map((s) => (
              <TableRow key={s.at}>
                <TableCell>{s.text}</TableCell>
                <TableCell align="right" sx={{ fontFamily: fonts.numbers, whiteSpace: 'nowrap' }}>
                  {showVoltRange(s.low, s.high)}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Box>
  );
}
