'use client';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';

interface Props {
  readonly tags: readonly string[];
  readonly offered: readonly string[];
  readonly onChange: (tags: readonly string[]) => void;
  readonly onOpen?: () => void;
  /** Takes the keys at once: it was asked for. */
  readonly asked?: boolean;
}

/** The most characters of one tag, and the most tags of one patch. */
const LONGEST = 40;
const MOST = 20;

/** Tags: chosen from those in use, or typed anew. */
export function TagsInput({ tags, offered, onChange, onOpen, asked = false }: Props) {
  return (
    <Autocomplete
      multiple
      freeSolo
      disableClearable
      value={[...tags]}
      options={offered.filter((tag) => !tags.includes(tag))}
      onOpen={() => onOpen?.()}
      onChange={(_, next) =>
        onChange([...new Set(next.map((tag) => tag.trim().slice(0, LONGEST)).filter(Boolean))].slice(0, MOST))
      }
      renderInput={(params) => (
        <TextField
          {...params}
          autoFocus={asked}
          placeholder={tags.length === 0 ? 'Add a tag' : ''}
          slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': 'Tags' } }}
        />
      )}
    />
  );
}
