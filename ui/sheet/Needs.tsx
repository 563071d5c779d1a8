'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { kindTitle } from '@/core';
import type { Sheet } from '@/core';
import { counted } from '@/ui/parts/counted';
import { ink } from '@/ui/theme/tokens';

/** What must be there before it begins, what is short, and what to mind. */
export function Needs({ sheet }: { readonly sheet: Sheet }) {
  const { needs, cautions } = sheet;
  return (
    <Box component="section" aria-label="You’ll need">
      <Box component="h2" sx={{ fontSize: 18, mt: 2, mb: 0.5 }}>
        You’ll need
      </Box>
      {needs.short.map((s) => (
        <Alert key={s.module} severity="warning" data-short={s.module} sx={{ mb: 0.5 }}>
          {`Missing: ${needs.modules.find((m) => m.module === s.module)?.label ?? s.module} (${kindTitle(s.kind)}): ${s.why}.`}
        </Alert>
      ))}
      <Table size="small" aria-label="Modules you’ll need">
        <TableHead>
          <TableRow>
            <TableCell>Module</TableCell>
            <TableCell>Type</TableCell>
            <TableCell>Rack channel</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {needs.modules.map((m) => (
            <TableRow key={m.module}>
              <TableCell>{m.label}</TableCell>
              <TableCell>
                {kindTitle(m.kind)}
                {m.standIn && <Box sx={{ fontSize: 13, color: ink.softInk }}>{m.standIn}</Box>}
              </TableCell>
              <TableCell>{m.channel ?? ''}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Box sx={{ mt: 1 }}>
        {`${counted(needs.cables, 'cable')}${needs.splits.length > 0 ? `; ${needs.splits.map((s) => `${s.at} goes ${s.ways} ways`).join(', ')}` : ''}`}
      </Box>
      <Box component="ul" sx={{ pl: 2.5, my: 1, fontWeight: 700 }}>
        {cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </Box>
    </Box>
  );
}
