'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { TextInput } from '@/ui/parts/TextInput';
import { useTyped } from '@/ui/parts/useTyped';
import { ink } from '@/ui/theme/tokens';

export type Read<T> = { readonly values: T } | { readonly fault: string };

interface Props<T> {
  readonly label: string;
  readonly text: string;
  readonly read: (text: string) => Read<T>;
  readonly onChange: (values: T) => void;
}

/** A list as lines of text, set as it is typed; what cannot be read stays, with its line named at the button. */
export function LinesField<T>({ label, text: shown, read, onChange }: Props<T>) {
  const { fault, field } = useTyped(shown, (text) => {
    const result = read(text);
    if ('fault' in result) return result.fault;
    onChange(result.values);
    return null;
  });
  return (
    <Box sx={{ mt: 1 }}>
      <Box sx={{ fontSize: 13, color: ink.softInk, mb: 0.5 }}>{label}</Box>
      <TextInput
        label={label}
        figures
        fullWidth
        lines={[2, 8]}
        value={field.value}
        fault={fault}
        onChange={field.onChange}
        // Enter begins a line; what is wrong is said at the button.
        onKeyDown={(e) => e.key === 'Escape' && field.onKeyDown(e)}
      />
      {field.value !== shown && (
        <Button onClick={field.onBlur} sx={{ mt: 0.5 }}>
          Set
        </Button>
      )}
    </Box>
  );
}
