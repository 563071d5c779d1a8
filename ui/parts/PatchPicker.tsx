'use client';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { api } from './api';

interface Props {
  readonly label: string;
  /** Its id; empty for none. */
  readonly value: string;
  /** What none is called; left out, one is always chosen. */
  readonly none?: string;
  readonly onChange: (id: string) => void;
  /** How wide it is; as wide as there is room where it is left out. */
  readonly width?: number | { readonly xs: string; readonly sm: number };
}

/** Patches that are offered at once; the others by their words. */
const OFFERED = 50;

/** As high as the fields beside it. */
const ROWS = { '& .MuiOutlinedInput-root.MuiInputBase-sizeSmall': { py: 0, minHeight: 28 } } as const;

interface Option {
  readonly id: string;
  readonly name: string;
}

const useFound = (words: string) =>
  useQuery({
    queryKey: ['patches', 'offered', words],
    queryFn: () =>
      api.search({
        words: words.slice(0, 200),
        by: words === '' ? 'updatedAt' : 'name',
        down: words === '',
        count: OFFERED,
      }),
    placeholderData: (before) => before,
  });

/** The patch that was changed last; empty until it is known, or where there is none. */
export const useLatestPatch = (): string => useFound('').data?.patches[0]?.id ?? '';

/** One patch of all, found by its words. */
export function PatchPicker({ label, value, none, onChange, width }: Props) {
  // What is being typed; null where nothing is, and the field says what is chosen.
  const [typed, setTyped] = useState<string | null>(null);
  const words = typed ?? '';
  const [picked, setPicked] = useState<Option | null>(null);
  const all = useFound('').data?.patches;
  const found: readonly Option[] = useFound(words).data?.patches ?? [];
  const nothing: Option[] = none === undefined ? [] : [{ id: '', name: none }];
  // What is chosen stays the same while others are looked for: the field would be filled anew.
  const near = [...nothing, ...(picked ? [picked] : []), ...(all ?? [])].find((o) => o.id === value);
  const known = useQuery({
    queryKey: ['patch', value],
    queryFn: () => api.get(value),
    enabled: value !== '' && all !== undefined && !near,
  });
  const name = near?.name ?? (known.data ? String(known.data.patch.name) : null);
  const own = useMemo(() => (name === null ? null : { id: value, name }), [value, name]);
  return (
    <Autocomplete<Option, false, boolean>
      disableClearable
      size="small"
      value={own}
      options={[...(words === '' ? nothing : []), ...found]}
      getOptionLabel={(o) => o.name}
      getOptionKey={(o) => o.id}
      isOptionEqualToValue={(a, b) => a.id === b.id}
      filterOptions={(all) => all}
      inputValue={typed ?? name ?? ''}
      // What is chosen may come to be known while one types already: that takes nothing from the field.
      onInputChange={(_, text, why) => why !== 'reset' && setTyped(why === 'input' ? text : null)}
      onClose={(_, why) => why !== 'toggleInput' && setTyped(null)}
      onChange={(_, next) => {
        if (!next) return;
        setPicked(next);
        onChange(next.id);
      }}
      autoHighlight
      sx={{ ...ROWS, ...(width !== undefined && { width }) }}
      slotProps={{ popper: { placement: 'bottom-start' } }}
      renderInput={(params) => (
        <TextField
          {...params}
          slotProps={{
            ...params.slotProps,
            htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': label, 'data-picker': label },
          }}
        />
      )}
    />
  );
}
