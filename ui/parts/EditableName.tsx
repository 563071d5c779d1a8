'use client';
import InputBase from '@mui/material/InputBase';
import { ink } from '@/ui/theme/tokens';
import { useTyped } from './useTyped';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly longest: number;
  readonly size: number;
  readonly onRename: (name: string) => void;
}

/** A name that can be typed over where it stands; nothing typed leaves it as it was. */
export function EditableName({ label, value, longest, size, onRename }: Props) {
  const { field } = useTyped(value, (text) => {
    if (text) onRename(text);
    return null;
  });
  return (
    <InputBase
      {...field}
      onChange={(e) => field.onChange(e.target.value)}
      // With Enter the field is left: the keys are the editor's again.
      onKeyDown={(e) => (e.key === 'Enter' ? (e.target as HTMLInputElement).blur() : field.onKeyDown(e))}
      slotProps={{ input: { 'aria-label': label, maxLength: longest } }}
      sx={{
        fontSize: size,
        fontWeight: 700,
        minWidth: 60,
        width: `${Math.max(6, field.value.length + 2)}ch`,
        maxWidth: '100%',
        borderBottom: `1px solid ${ink.clear}`,
        '&:hover, &.Mui-focused': { borderColor: ink.line },
        '& input': { p: 0, height: 'auto', textOverflow: 'ellipsis' },
      }}
    />
  );
}
