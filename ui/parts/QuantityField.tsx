'use client';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { readQuantity, showNumber } from '@/core';
import { ink } from '@/ui/theme/tokens';
import { fieldStyle } from './fieldStyle';

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
    <>
      <Box
        component="input"
        aria-label={label}
        aria-invalid={fault}
        value={text ?? String(value)}
        onChange={(e) => setText(e.target.value)}
        onBlur={finish}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        sx={{ ...fieldStyle, width }}
      />
      {` ${unit}`}
      {fault && (
        <Box role="alert" component="span" sx={{ color: ink.error }}>
          {` From ${showNumber(min, 0)} to ${max} ${unit}.`}
        </Box>
      )}
    </>
  );
}
