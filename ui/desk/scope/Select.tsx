import Box from '@mui/material/Box';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { fonts } from '@/ui/theme/tokens';

interface SelectProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [T, string])[];
  readonly onChange: (value: T) => void;
}

/** A narrow choice of the scope's bar. */
export function Select<T extends string>({ label, value, options, onChange }: SelectProps<T>) {
  return (
    <Box
      component="select"
      aria-label={label}
      value={value}
      onChange={(e) => onChange(e.target.value as T)}
      sx={{ ...fieldStyle, font: `13px ${fonts.text}`, padding: '2px 0', maxWidth: 112 }}
    >
      {options.map(([key, text]) => (
        <option key={key} value={key}>
          {text}
        </option>
      ))}
    </Box>
  );
}
