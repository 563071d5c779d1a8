'use client';
import Box from '@mui/material/Box';
import { TextInput } from './TextInput';
import { useTyped } from './useTyped';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  readonly width?: number | string;
  readonly figures?: boolean;
  /** Takes what was typed, or says what is wrong with it. */
  readonly onPut: (text: string) => string | null;
}

/** A text that is put when the field is left or Enter is pressed; what is refused stays, with the reason. */
export function CommitField({ label, value, placeholder, width = 128, figures = true, onPut }: Props) {
  const { fault, field } = useTyped(value, onPut);
  return (
    <Box sx={{ width, flexShrink: 0 }}>
      <TextInput {...field} fault={fault} label={label} figures={figures} fullWidth placeholder={placeholder ?? ''} />
    </Box>
  );
}
