'use client';
import Box from '@mui/material/Box';
import InputAdornment from '@mui/material/InputAdornment';
import { quantityFault, readQuantity, showNumber } from '@/core';
import { TextInput } from './TextInput';
import { useTyped } from './useTyped';

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
  const { fault, field } = useTyped(String(value), (text) => {
    const typed = readQuantity(text, unit, [min, max]);
    const asked = quantityFault(text, unit, [min, max]);
    if (asked !== null) return asked;
    if (typed === null || typed < min || typed > max) return `From ${showNumber(min, 0)} to ${max} ${unit}.`;
    if (typed !== value) onChange(typed);
    return null;
  });
  return (
    <Box sx={{ width }}>
      <TextInput
        {...field}
        fault={fault}
        label={label}
        figures
        fullWidth
        endAdornment={unit && <InputAdornment position="end">{unit}</InputAdornment>}
      />
    </Box>
  );
}
