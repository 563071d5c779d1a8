'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import InputAdornment from '@mui/material/InputAdornment';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { SafeLink } from '@/ui/parts/SafeLink';
import { SelectField } from '@/ui/parts/SelectField';
import { SchemeButton } from '@/ui/parts/SchemeButton';
import { TextInput } from '@/ui/parts/TextInput';
import { SearchIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';
import type { Document } from '@/wire/patches';
import { ImportButton } from './ImportButton';
import type { Wanted } from './order';

/** The rack that patches are looked at with; nothing where there is none yet. */
function RackSelect() {
  const { racks, id, choose } = useChosenRack();
  if (racks.length === 0) return null;
  return (
    <SelectField
      label="Rack"
      value={id}
      options={[['', 'No rack'] as const, ...racks.map((r) => [r.id, r.name] as const)]}
      onChange={choose}
      sx={{ width: 150 }}
    />
  );
}

interface Props {
  readonly wanted: Wanted;
  readonly onWanted: (wanted: Wanted) => void;
  /** Tags that are in use. */
  readonly tags: readonly string[];
  readonly onImported: (documents: readonly Document[]) => void;
  readonly onDeleted: () => void;
  readonly onGoal: () => void;
  readonly onRecipes: () => void;
  readonly onNew: () => void;
}

/** What is looked for, and the doors to a new patch. */
export function ShelfHead({ wanted, onWanted, tags, onImported, onDeleted, onGoal, onRecipes, onNew }: Props) {
  const toggle = (tag: string): void => {
    const on = wanted.tags.includes(tag);
    onWanted({ ...wanted, tags: on ? wanted.tags.filter((t) => t !== tag) : [...wanted.tags, tag] });
  };
  return (
    <Box component="header" sx={{ py: 1.5, borderBottom: `1px solid ${ink.line}` }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5 }}>
        <Box sx={{ fontSize: 18, fontWeight: 700 }}>Fenvo</Box>
        <Box component="h1" sx={{ fontSize: 15, fontWeight: 400, m: 0 }}>
          Patches
        </Box>
        <Box component={SafeLink} href="/racks" sx={{ color: ink.softInk }}>
          Racks
        </Box>
        <Box sx={{ flex: 1 }} />
        <TextInput
          type="search"
          label="Search patches"
          placeholder="Search"
          value={wanted.words}
          onChange={(words) => onWanted({ ...wanted, words })}
          startAdornment={
            <InputAdornment position="start">
              <SearchIcon sx={{ fontSize: 18 }} />
            </InputAdornment>
          }
          sx={{ width: 210 }}
        />
        <RackSelect />
        <ImportButton onImported={onImported} />
        <Button onClick={onDeleted}>Deleted patches</Button>
        <Button onClick={onRecipes}>Recipes</Button>
        <Button onClick={onGoal}>New from target…</Button>
        <Button color="primary" onClick={onNew}>
          New patch
        </Button>
        <SchemeButton />
      </Box>
      {tags.length > 0 && (
        <Box role="group" aria-label="Filter by tag" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mt: 1.5 }}>
          {tags.map((tag) => (
            <Chip
              key={tag}
              label={tag}
              data-tag={tag}
              variant={wanted.tags.includes(tag) ? 'filled' : 'outlined'}
              aria-pressed={wanted.tags.includes(tag)}
              onClick={() => toggle(tag)}
            />
          ))}
        </Box>
      )}
    </Box>
  );
}
