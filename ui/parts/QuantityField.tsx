'use client';
import Box from '@mui/material/Box';
import FormHelperText from '@mui/material/FormHelperText';
import InputAdornment from '@mui/material/InputAdornment';
import { useState } from 'react';
import { readQuantity, showNumber } from '@/core';
import { TextInput } from './TextInput';

interface Props {
  readonly label: string;
  readonly unit: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly width: number;
  readonly onChange: (value: number) => void;
}

/** A figure that is set when the field is left or Enter is pressed; what cannot be read stays, with its limits told. */
export function QuantityField({ label, unit, value, min, max, width, onChange }: Props) {
  const [text, setText] = useState<string | null>(null);
  const typed = text === null ? value : readQuantity(text, unit);
  const fault = typed === null || typed < min || typed > max;
  const finish = (): void => {
    if (fault || text === null) return;
    setText(null);
    if (typed !== value) onChange(typed);
  };
  return (
    <Box sx={{ width }}>
      <TextInput
        label={label}
        figures
        fullWidth
        error={fault}
        value={text ?? String(value)}
        onChange={setText}
        onBlur={finish}
        onKeyDown={(e) => e.key === 'Enter' && (e.target as HTMLInputElement).blur()}
        endAdornment={unit && <InputAdornment position="end">{unit}</InputAdornment>}
      />
      {fault && <FormHelperText error role="alert">{`From ${showNumber(min, 0)} to ${max} ${unit}.`}</FormHelperText>}
    </Box>
  );
}
