'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useMemo, useState } from 'react';
import { tableTraces } from '@/core/formats/recording';
import type { Table } from '@/core/formats/recording';
import { numberOf, useKept } from './kept';
import { NumberRow } from './NumberRow';
import { TraceFields } from './TraceFields';

interface Props {
  readonly name: string;
  readonly table: Table;
  readonly onUse: (name: string, sampleRate: number, values: Float32Array, scale: number) => Promise<void>;
}

/** What the columns of a table are. */
export function CsvFields({ name, table, onUse }: Props) {
  const [rate, setRate] = useKept('csv rate', '1000');
  const [timed, setTimed] = useState(table.times !== 'no');
  const sampleRate = numberOf(rate);
  const read = useMemo(
    () => (sampleRate === null ? null : tableTraces(table, timed, sampleRate)),
    [table, timed, sampleRate],
  );
  return (
    <>
      {table.times === 'unsure' && (
        <Box role="group" aria-label="First column" sx={{ mb: 1 }}>
          {`The first column, ${table.names[0] ?? ''}, increases steadily but isn’t labelled as time.`}
          <ToggleButtonGroup
            exclusive
            value={timed}
            onChange={(_, value: boolean | null) => value !== null && setTimed(value)}
            sx={{ display: 'flex', mt: 0.5 }}
          >
            <ToggleButton value={true}>Time in seconds</ToggleButton>
            <ToggleButton value={false}>A voltage, like the other columns</ToggleButton>
          </ToggleButtonGroup>
        </Box>
      )}
      {!timed && <NumberRow label="Sample rate" unit="Hz" value={rate} onChange={setRate} />}
      {read && !read.ok && <Alert severity="error">{read.errors}</Alert>}
      {read?.ok && (
        <TraceFields
          traces={read.value}
          note={null}
          kind="csv"
          says="Volts per unit"
          start={1}
          onUse={(column, scale) => onUse(name, read.value.sampleRate, column, scale)}
        />
      )}
    </>
  );
}
