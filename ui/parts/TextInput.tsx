'use client';
import OutlinedInput from '@mui/material/OutlinedInput';
import type { OutlinedInputProps } from '@mui/material/OutlinedInput';
import { useId } from 'react';
import { fonts } from '@/ui/theme/tokens';
import { FieldFault } from './FieldFault';

interface Props extends Omit<OutlinedInputProps, 'label' | 'onChange' | 'inputProps' | 'error'> {
  readonly label: string;
  readonly onChange: (text: string) => void;
  /** Why its text was refused, told below it; null where it was not. */
  readonly fault?: string | null;
  /** Where the reason is told instead, while there is one. */
  readonly faultId?: string | undefined;
  /** It holds figures: in the face of numbers. */
  readonly figures?: boolean;
  readonly longest?: number;
  /** Several lines: as high as its text, between a least and a greatest number. */
  readonly lines?: readonly [least: number, most: number];
}

const LINE = 20;
/** A field that measures itself by script lays the whole page out anew with each change; the style sheet does it. */
const severalLines = ([least, most]: readonly [number, number]) => ({
  multiline: true,
  inputComponent: 'textarea' as const,
  rows: least,
  sx: {
    '&& textarea': {
      height: 'auto',
      padding: 0,
      fieldSizing: 'content',
      resize: 'vertical',
      minHeight: least * LINE,
      maxHeight: most * LINE,
    },
  },
});

/** A field whose label is said, not shown. */
export function TextInput(props: Props) {
  const { label, onChange, fault = null, faultId, figures, longest, lines, slotProps, ...rest } = props;
  const below = useId();
  const told = faultId ?? (fault === null ? undefined : below);
  return (
    <>
      <OutlinedInput
        {...rest}
        {...(lines && severalLines(lines))}
        error={told !== undefined}
        aria-describedby={told}
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
      <FieldFault id={below} fault={fault} />
    </>
  );
}
