import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { showDb, showHz, showNumber } from '@/core';
import { fonts } from '@/ui/theme/tokens';
import type { SpectrumAnswer } from '@/wire/core';

const number = { fontFamily: fonts.numbers, textAlign: 'right', whiteSpace: 'nowrap', border: 0, py: '1px' } as const;

/** The peaks by note, and a product's lines with where they were found. */
export function PeaksTable({ spectrum: { peaks, products } }: { spectrum: SpectrumAnswer }) {
  return (
    <Table sx={{ mt: 0.5, width: 'auto' }}>
      <caption hidden>Peaks</caption>
      <TableBody>
        {peaks.slice(0, 8).map((p) => (
          <TableRow key={p.hz}>
            <TableCell sx={number}>{showHz(p.hz)}</TableCell>
            <TableCell sx={number}>{`${p.note} ${showNumber(p.cents, 0, true)}\u00a0ct`}</TableCell>
            <TableCell sx={number}>{showDb(p.db)}</TableCell>
          </TableRow>
        ))}
        {peaks.length === 0 && (
          <TableRow>
            <TableCell sx={{ border: 0 }}>No distinct peaks in this window.</TableCell>
          </TableRow>
        )}
        {products.map((p) => (
          <TableRow key={p.is}>
            <TableCell colSpan={3} sx={{ border: 0 }}>
              {`${p.is}: predicted ${showHz(p.predictedHz)}, ${p.measuredHz === null ? 'not found' : `measured ${showHz(p.measuredHz)}`}`}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
