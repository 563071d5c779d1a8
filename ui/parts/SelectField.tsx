'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import type { SxProps } from '@mui/material/styles';

interface Props<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [T, string])[];
  readonly onChange: (value: T) => void;
  readonly sx?: SxProps;
}

/** One of a few, by name; its label is said, not shown. */
export function SelectField<T extends string>({ label, value, options, onChange, sx }: Props<T>) {
  return (
    <Select<T>
      value={value}
      displayEmpty
      onChange={(e) => onChange(e.target.value as T)}
      SelectDisplayProps={{ 'aria-label': label, 'data-select': label } as React.HTMLAttributes<HTMLDivElement>}
      sx={sx}
      MenuProps={{ transitionDuration: 0, slotProps: { paper: { sx: { maxHeight: 360 } } } }}
    >
      {options.map(([key, text]) => (
        <MenuItem key={key} value={key}>
          {text}
        </MenuItem>
      ))}
    </Select>
  );
}
