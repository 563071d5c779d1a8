'use client';
import { counted } from '@/ui/parts/counted';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useMemo, useState } from 'react';
import { applyEdits, FADER, freeId, isFaderKind, macroEdits, placeName } from '@/core';
import type { Edit, Macro, MacroFault, MacroRow, Occupied, Patch } from '@/core';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import { TextInput } from '@/ui/parts/TextInput';
import type { EditDesk } from '@/ui/session/edit';
import { EndRow } from './EndRow';
import { offeredBy, WAY } from './offered';
import type { Offered } from './offered';

interface Props {
  readonly patch: Patch;
  readonly edit: EditDesk;
  /** What is changed; null for a new one. */
  readonly macro: Macro | null;
  readonly onClose: () => void;
}

const NEW = '';

/** The patch with the fader that a new macro is for, and what makes it. */
function withFader(
  patch: Patch,
  fader: string,
  name: string,
): { readonly patch: Patch; readonly fader: string; readonly edits: readonly Edit[] } {
  if (fader !== NEW) return { patch, fader, edits: [] };
  const id = freeId(patch, name.toLowerCase() || 'fader');
  const edits: Edit[] = [{ do: 'add', module: { id, kind: FADER, label: name } }];
  return { patch: applyEdits(patch, edits), fader: id, edits };
}

/** The ends that get something already, whatever was answered about it. */
function occupiedBy(patch: Patch, macro: Macro): readonly Occupied[] {
  const on = withFader(patch, macro.fader, macro.name);
  const rows = macro.rows.map(({ onto: _answer, ...row }) => row);
  return macroEdits(on.patch, { ...macro, fader: on.fader, rows }).occupied;
}

const blank: Macro = { name: '', fader: NEW, span: [0, WAY], rows: [] };

/** One fader and its ends as a table: where each Range and to, how it bends, and where it begins. */
export function MacroDialog({ patch, edit, macro: given, onClose }: Props) {
  const [macro, setMacro] = useState<Macro>(given ?? blank);
  const [faults, setFaults] = useState<readonly MacroFault[]>([]);
  const offered = useMemo(() => offeredBy(patch), [patch]);
  const occupied = useMemo(() => occupiedBy(patch, macro), [patch, macro]);
  const free = offered.filter((o) => !macro.rows.some((r) => r.end === o.end));
  const setRows = (rows: readonly MacroRow[]): void => setMacro({ ...macro, rows });
  const add = (end: string): void => {
    const found = offered.find((o) => o.end === end);
    if (!found) return;
    const [from, to] = found.figures;
    setRows([...macro.rows, { end, from, to, curve: 'straight', begins: macro.span[0] }]);
  };
  const save = (): void => {
    const on = withFader(patch, macro.fader, macro.name);
    const { edits, faults: found, occupied: open } = macroEdits(on.patch, { ...macro, fader: on.fader });
    const asked = open.map((o): MacroFault => ({ row: o.row, message: 'Mix both, or replace what is patched here?' }));
    setFaults([...found, ...asked]);
    if (found.length + asked.length > 0) return;
    edit(`Macro control ${macro.name}: ${counted(macro.rows.length, 'destination')}`, [...on.edits, ...edits]);
    onClose();
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="macro-title" maxWidth="md" fullWidth>
      <DialogTitle id="macro-title">Macro control</DialogTitle>
      <DialogContent>
        <Head {...{ patch, macro, setMacro }} />
        {macro.rows.length > 0 && (
          <Rows
            rows={macro.rows}
            offered={offered}
            span={macro.span}
            faults={faults}
            gets={(end) => occupied.find((o) => o.end === end)?.from ?? null}
            nameOf={(socket) => placeName(patch.modules, socket)}
            onRows={setRows}
          />
        )}
        <SelectField
          label="Add destination"
          value=""
          options={[['', 'Add a destination…'] as const, ...free.map((o) => [o.end, o.label] as const)]}
          onChange={(end) => end !== '' && add(end)}
          sx={{ mt: 1.5, minWidth: 200 }}
        />
        {faults
          .filter((f) => f.row === null)
          .map((f) => (
            <Alert key={f.message} severity="error" sx={{ mt: 1 }}>
              {f.message}
            </Alert>
          ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button color="primary" disabled={macro.rows.length === 0 && given === null} onClick={save}>
          Create stages
        </Button>
      </DialogActions>
    </Dialog>
  );
}

interface HeadProps {
  readonly patch: Patch;
  readonly macro: Macro;
  readonly setMacro: (macro: Macro) => void;
}

/** What the fader is called, which one it is, and its way. */
function Head({ patch, macro, setMacro }: HeadProps) {
  const faders = patch.modules.filter((m) => isFaderKind(m.kind));
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', pt: 0.5 }}>
      <TextInput
        label="Name"
        placeholder="Name"
        value={macro.name}
        onChange={(name) => setMacro({ ...macro, name })}
        sx={{ width: 160 }}
      />
      <SelectField
        label="Fader"
        value={macro.fader}
        options={[[NEW, 'New fader'] as const, ...faders.map((m) => [m.id, placeName(patch.modules, m.id)] as const)]}
        onChange={(fader) => setMacro({ ...macro, fader })}
      />
      <span>Range</span>
      <QuantityField
        label="Fader minimum"
        unit="V"
        value={macro.span[0]}
        min={-10}
        max={10}
        width={100}
        onChange={(v) => setMacro({ ...macro, span: [v, macro.span[1]] })}
      />
      <span>to</span>
      <QuantityField
        label="Fader maximum"
        unit="V"
        value={macro.span[1]}
        min={-10}
        max={10}
        width={100}
        onChange={(v) => setMacro({ ...macro, span: [macro.span[0], v] })}
      />
    </Box>
  );
}

interface RowsProps {
  readonly rows: readonly MacroRow[];
  readonly offered: readonly Offered[];
  readonly span: Macro['span'];
  readonly faults: readonly MacroFault[];
  /** What an end gets already; null where nothing is patched there. */
  readonly gets: (end: string) => string | null;
  readonly nameOf: (socket: string) => string;
  readonly onRows: (rows: readonly MacroRow[]) => void;
}

function Rows({ rows, offered, span, faults, gets, nameOf, onRows }: RowsProps) {
  return (
    <Box sx={{ overflowX: 'auto', mt: 1.5 }}>
      <Table
        size="small"
        sx={{ display: { xs: 'block', md: 'table' }, '& tbody': { display: { xs: 'block', md: 'table-row-group' } } }}
      >
        <TableHead sx={{ display: { xs: 'none', md: 'table-header-group' } }}>
          <TableRow>
            {['Destination', 'Min', 'Max', 'Curve', 'Starts at', ''].map((name) => (
              <TableCell key={name}>{name}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map((row, i) => {
            const from = gets(row.end);
            return (
              <EndRow
                key={row.end}
                row={row}
                offered={offered.find((o) => o.end === row.end)}
                span={span}
                fault={faults.find((f) => f.row === i)?.message ?? null}
                gets={from === null ? null : nameOf(from)}
                onRow={(next) => onRows(rows.flatMap((r, j) => (j !== i ? [r] : next ? [next] : [])))}
              />
            );
          })}
        </TableBody>
      </Table>
    </Box>
  );
}
