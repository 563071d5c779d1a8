import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { idOf, knobPlace, showQuantity, showVoltRange, showVolts } from '@/core';
import { faultText } from '@/core';
import type { Answer, Exercise, KnownSlip, Mark } from '@/core/practice';
import { fonts, ink } from '@/ui/theme/tokens';

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

/** What is told in figures; choices and faults are words. */
const hasFigures = (answer: Answer): boolean => 'low' in answer || 'value' in answer;

interface Props {
  readonly exercise: Exercise;
  readonly mark: Mark;
  readonly slips: readonly KnownSlip[];
  readonly example: boolean;
  /** It is said how it comes about. */
  readonly explains: boolean;
  /** Stages that are not uncovered yet. */
  readonly covered: ReadonlySet<string>;
}

/** Whether it was right, what is, which mistake gives just that answer, and how it comes about. */
export function Explained({ exercise, mark, slips, example, explains, covered }: Props) {
  const { right, score, truth, slip } = mark;
  return (
    <Box data-mark={right ? 'right' : score > 0 ? 'half' : 'wrong'}>
      <Alert severity={example ? 'info' : right ? 'success' : score > 0 ? 'warning' : 'error'}>
        {example ? 'It is ' : right ? 'Right: ' : score > 0 ? 'Close. It is ' : 'Not quite. It is '}
        <Box component="span" sx={hasFigures(truth) ? { fontFamily: fonts.numbers } : undefined} data-truth>
          {answerText(exercise, truth)}
        </Box>
        {slip && <Box sx={{ mt: 0.5 }}>{slip}</Box>}
      </Alert>
      {explains && <Steps mark={mark} covered={covered} />}
      {explains && covered.size === 0 && <Mistakes {...{ exercise, slips }} told={slip} />}
    </Box>
  );
}

/** What moves by less stands still, volts. */
const STEADY = 0.005;

/** How it comes about, stage by stage, as the strip uncovers them. */
function Steps({ mark: { steps }, covered }: Pick<Props, 'mark' | 'covered'>) {
  const shown = steps.filter((s) => !covered.has(idOf(s.at)));
  if (shown.length === 0) return null;
  return (
    <Table size="small" aria-label="How it comes about" sx={{ mt: 1 }}>
      <TableBody>
        {shown.map((s) => (
          <TableRow key={s.at}>
            <TableCell>{s.text}</TableCell>
            <TableCell align="right" sx={{ fontFamily: fonts.numbers, whiteSpace: 'nowrap' }}>
              {s.high - s.low < STEADY ? showVolts(s.low) : showVoltRange(s.low, s.high)}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

/** What else people answer here, and by which mistake. */
function Mistakes({ exercise, slips, told }: Pick<Props, 'exercise' | 'slips'> & { readonly told: string | null }) {
  const texts = slips.map((s) => answerText(exercise, s.answer));
  // Two mistakes may come to the same: the first is told.
  const others = slips.filter((s, i) => s.text !== told && texts.indexOf(texts[i] ?? '') === i);
  if (others.length === 0) return null;
  return (
    <Box sx={{ mt: 1.5, fontSize: 14, color: ink.softInk }} data-mistakes>
      <Box sx={{ fontWeight: 700 }}>{told === null ? 'Easily mistaken for' : 'Also mistaken for'}</Box>
      <Box component="ul" sx={{ pl: 2, m: 0 }}>
        {others.map((s) => (
          <li key={s.text}>
            <Box component="span" sx={{ color: ink.ink, ...(hasFigures(s.answer) && { fontFamily: fonts.numbers }) }}>
              {answerText(exercise, s.answer)}
            </Box>
            {`  ${s.text}`}
          </li>
        ))}
      </Box>
    </Box>
  );
}
