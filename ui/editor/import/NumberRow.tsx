import InputAdornment from '@mui/material/InputAdornment';
import { TextInput } from '@/ui/parts/TextInput';
import { SettingRow } from '../stage/SettingRow';

interface Props {
  readonly label: string;
  readonly unit: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
}

/** A figure that a file's numbers are read by. */
export function NumberRow({ label, unit, value, onChange }: Props) {
  return (
    <SettingRow label={label}>
      <TextInput
        label={label}
        figures
        value={value}
        onChange={onChange}
        endAdornment={<InputAdornment position="end">{unit}</InputAdornment>}
        sx={{ width: 150 }}
      />
    </SettingRow>
  );
}
