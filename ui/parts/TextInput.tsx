'use client';
import OutlinedInput from '@mui/material/OutlinedInput';
import type { OutlinedInputProps } from '@mui/material/OutlinedInput';
import { fonts } from '@/ui/theme/tokens';

interface Props extends Omit<OutlinedInputProps, 'label' | 'onChange' | 'inputProps'> {
  readonly label: string;
  readonly onChange: (text: string) => void;
  /** It holds figures: in the face of numbers. */
  readonly figures?: boolean;
  readonly longest?: number;
}

/** A field whose label is said, not shown. */
export function TextInput({ label, onChange, figures, longest, slotProps, ...props }: Props) {
  return (
    <OutlinedInput
      {...props}
      onChange={(e) => onChange(e.target.value)}
      slotProps={{
        ...slotProps,
        input: {
          'aria-label': label,
          ...(longest !== undefined && { maxLength: longest }),
          ...(figures && { style: { fontFamily: fonts.numbers }, inputMode: 'decimal' as const }),
        },
      }}
    />
  );
}
