import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Link from '@mui/material/Link';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useState } from 'react';
import { placeName, readMeter, showNumber, withUnit } from '@/core';
import { CommitField } from '@/ui/parts/CommitField';
import { VERDICTS } from '@/ui/parts/verdicts';
import { fonts, ink } from '@/ui/theme/tokens';
import type { StoredReading } from '@/wire/bench';
import { figure, QUANTITY_NAMES } from './quantityNames';
import type { OpenSession } from './useSession';

interface Props {
  readonly open: OpenSession;
  readonly chosen: number | null;
  readonly onChoose: (reading: number) => void;
}

const numbers = { fontFamily: fonts.numbers, whiteSpace: 'nowrap' } as const;
const wide = { display: { xs: 'none', sm: 'table-cell' } } as const;

/** What was read, the latest first, each beside what was expected. */
export function ReadingsTable({ open, chosen, onChoose }: Props) {
  const { standing } = open;
  if (standing.length === 0) return <p>No readings yet. Enter them in the patch sheet, or add one above.</p>;
  return (
    <Table size="small" aria-label="Readings">
      <TableHead>
        <TableRow>
          <TableCell>At</TableCell>
          <TableCell>Reading</TableCell>
          <TableCell sx={wide}>Expected</TableCell>
          <TableCell>Verdict</TableCell>
          <TableCell />
        </TableRow>
      </TableHead>
      <TableBody>
        {standing.toReversed().map((r) => (
          <ReadingRow key={r.id} reading={r} open={open} chosen={r.id === chosen} onChoose={() => onChoose(r.id)} />
        ))}
      </TableBody>
    </Table>
  );
}

interface RowProps {
  readonly reading: StoredReading;
  readonly open: OpenSession;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

function ReadingRow({ reading: r, open, chosen, onChoose }: RowProps) {
  const [corrects, setCorrects] = useState(false);
  const verdict = r.verdict ? VERDICTS[r.verdict] : null;
  const place = placeName(open.patch.modules, r.at);
  const what = `${place}, ${QUANTITY_NAMES[r.quantity]}`;
  const act = corrects ? 'Cancel' : 'Correct';
  const put = (text: string): string | null => {
    if (text.trim() === '') return (setCorrects(false), null);
    const value = readMeter(text, r.quantity, r.unit);
    if (value === null) return `Enter a value in ${r.unit}.`;
    setCorrects(false);
    const { at, quantity, step, knobs, id } = r;
    void open.add([{ at, quantity, value, knobs: [...knobs], corrects: id, ...(step !== undefined && { step }) }]);
    return null;
  };
  return (
    <TableRow data-reading={r.id} data-at={r.at} data-verdict={r.verdict} selected={chosen}>
      <TableCell>
        <Link
          component="button"
          onClick={onChoose}
          title="Show its trend"
          sx={{ font: 'inherit', color: ink.ink, textAlign: 'left' }}
        >
          {place}
        </Link>
        <Box sx={{ fontSize: 13, color: ink.softInk }}>
          {QUANTITY_NAMES[r.quantity]}
          {r.corrects !== null && ', corrected'}
        </Box>
      </TableCell>
      <TableCell sx={numbers}>
        {corrects ? (
          <CommitField label={`Corrected reading of ${what}`} value="" width={96} onPut={put} />
        ) : (
          figure(r.value, r.unit)
        )}
      </TableCell>
      <TableCell sx={{ ...numbers, ...wide }}>
        {r.expected !== null && r.expectedPlusMinus !== null
          ? `${showNumber(r.expected, 2)} ± ${withUnit(showNumber(r.expectedPlusMinus, 2), r.unit)}`
          : ''}
      </TableCell>
      <TableCell sx={{ color: verdict?.colour, fontWeight: 700, whiteSpace: 'nowrap' }}>
        {verdict?.text ?? ''}
      </TableCell>
      <TableCell align="right">
        <Button onClick={() => setCorrects(!corrects)} aria-label={`${act}: ${what}`}>
          {act}
        </Button>
      </TableCell>
    </TableRow>
  );
}
