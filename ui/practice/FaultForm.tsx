import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { buildGraph, placeName } from '@/core';
import type { BenchReading } from '@/core';
import type { Answer } from '@/core/practice';
import { counted } from '@/ui/parts/counted';
import { tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { figure, QUANTITY_NAMES } from '@/ui/bench/quantityNames';
import { fonts } from '@/ui/theme/tokens';
import type { ShownExercise } from '@/wire/practiceJobs';
import { practiceWorker } from './practiceWorker';

interface Props {
  readonly shown: ShownExercise;
  readonly onAnswer: (answer: Answer) => void;
}

/** Sockets are measured one after the other, each counts; then the fault is named. */
export function FaultForm({ shown: { exercise, faults }, onAnswer }: Props) {
  const { patch } = exercise;
  const [sockets] = useState(() => buildGraph(patch).modules.flatMap((m) => m.outputs.map((o) => o.socket)));
  const [at, setAt] = useState(sockets[0] ?? '');
  const [read, setRead] = useState<readonly (readonly [at: string, list: readonly BenchReading[]])[]>([]);
  const [named, setNamed] = useState<(typeof faults)[number] | null>(null);
  const measure = (): void =>
    void practiceWorker()
      .read(exercise, at)
      .then((list) => setRead((old) => [...old.filter(([place]) => place !== at), [at, list]]))
      .catch(tellFault);
  return (
    <Box>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <SelectField
          label="Measure at"
          value={at}
          options={sockets.map((s) => [s, placeName(patch.modules, s)] as const)}
          onChange={setAt}
          sx={{ width: 200 }}
        />
        <Button onClick={measure}>Measure</Button>
      </Box>
      <Table size="small" aria-label="Measured" sx={{ my: 1 }}>
        <TableBody>
          {read.map(([place, list]) => (
            <TableRow key={place} data-measured={place}>
              <TableCell>{placeName(patch.modules, place)}</TableCell>
              <TableCell sx={{ fontFamily: fonts.numbers }}>
                {list.map((r) => `${QUANTITY_NAMES[r.quantity]} ${figure(r.value, r.unit ?? 'V')}`).join(' · ')}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Autocomplete
        size="small"
        options={faults}
        getOptionLabel={(f) => f.text}
        value={named}
        onChange={(_, f) => setNamed(f)}
        renderInput={(params) => <TextField {...params} label="The fault" />}
        sx={{ mb: 1 }}
      />
      <Button
        variant="contained"
        color="primary"
        disabled={!named}
        onClick={() => named && onAnswer({ faults: [named.fault], readings: read.length })}
      >
        {`Answer after ${counted(read.length, 'socket')}`}
      </Button>
    </Box>
  );
}
