'use client';
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { counted } from '@/ui/parts/counted';
import { SearchIcon } from '@/ui/parts/icons';
import { later } from '@/ui/parts/later';
import { SelectField } from '@/ui/parts/SelectField';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import type { PatchesAbout } from '@/wire/patches';
import type { Narrowing, Wanted } from '@/wire/requests';
import { isNarrowed } from './wanted';

const SavedSearches = later(() => import('./SavedSearches').then((m) => m.SavedSearches));

interface Props {
  readonly about: PatchesAbout;
  readonly wanted: Wanted;
  readonly onWanted: (wanted: Wanted) => void;
  /** How many are found; null while they are looked for. */
  readonly found: number | null;
  /** How many are not looked at yet. */
  readonly pending: number;
}

/** How many there are, and whose: the made-up theatre's, as long as nothing else is there. */
function aboutOf({ count, demo }: PatchesAbout): string {
  const theatre = 'the demo theatre, a made-up shadow-puppet play, “The Lamp Keeper’s Night”';
  if (demo === count) return `${count}, from ${theatre}`;
  return demo > 0 ? `${count}, ${demo} of them from ${theatre}` : counted(count, 'patch', 'patches');
}

/** Over the list: what it holds, and what is looked for in it. */
export function ListHead({ about, wanted, onWanted, found, pending }: Props) {
  const narrowed = isNarrowed(wanted);
  return (
    <Box sx={{ mt: 3, mb: 1, display: 'grid', rowGap: 1 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 1.5, rowGap: 1 }}>
        <Box component="h2" sx={{ fontSize: 18, m: 0 }}>
          Your patches
        </Box>
        <Box role="status" data-found={found ?? ''} sx={{ color: ink.softInk, flex: '1 1 240px' }}>
          {narrowed && found !== null ? `${found} of ${counted(about.count, 'patch', 'patches')}` : aboutOf(about)}
          {narrowed && pending > 0 && `; ${pending} still to be checked`}
        </Box>
        <SavedSearches wanted={wanted} onWanted={onWanted} />
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
          sx={{ width: 190 }}
        />
      </Box>
      {about.count > 0 && <Filters about={about} wanted={wanted} onWanted={onWanted} />}
    </Box>
  );
}

/** More tags than this are chosen from a list. */
const CHIPS = 8;

const without = <T,>(all: readonly T[], one: T): T[] => all.filter((x) => x !== one);

/** What the list is narrowed to. */
function Filters({ about, wanted, onWanted }: Pick<Props, 'about' | 'wanted' | 'onWanted'>) {
  const { id: rack, name: rackName } = useChosenRack();
  const { tags, only, uses } = wanted;
  const toggleTag = (tag: string): void =>
    onWanted({ ...wanted, tags: tags.includes(tag) ? without(tags, tag) : [...tags, tag] });
  const offered: readonly (readonly [Narrowing, string])[] = [
    ['pitch', 'Reaches a pitch'],
    ['issues', 'Has issues'],
    ...(rack === '' ? [] : [['fits', `Fits ${rackName}`] as const]),
    ['played', 'Played this month'],
  ];
  return (
    <Box
      role="group"
      aria-label="Filters"
      sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 0.75, minHeight: 40 }}
    >
      {offered.map(([name, says]) => (
        <Chip
          key={name}
          label={says}
          data-only={name}
          variant={only.includes(name) ? 'filled' : 'outlined'}
          aria-pressed={only.includes(name)}
          onClick={() => onWanted({ ...wanted, only: only.includes(name) ? without(only, name) : [...only, name] })}
        />
      ))}
      <SelectField
        label="Uses"
        value={uses}
        options={[
          ['', 'Uses any module'] as const,
          ...about.kinds.map(([id, title]) => [id, `Uses: ${title}`] as const),
        ]}
        onChange={(kind) => onWanted({ ...wanted, uses: kind })}
        sx={{ maxWidth: 220 }}
      />
      {about.tags.length > 0 && about.tags.length <= CHIPS && (
        <Box
          role="group"
          aria-label="Filter by tag"
          sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, ml: { md: 'auto' } }}
        >
          {about.tags.map((tag) => (
            <Chip
              key={tag}
              label={tag}
              data-tag={tag}
              variant={tags.includes(tag) ? 'filled' : 'outlined'}
              aria-pressed={tags.includes(tag)}
              onClick={() => toggleTag(tag)}
            />
          ))}
        </Box>
      )}
      {about.tags.length > CHIPS && (
        <Autocomplete
          multiple
          size="small"
          value={[...tags]}
          options={without(about.tags, '')}
          onChange={(_, next) => onWanted({ ...wanted, tags: next.slice(0, 20) })}
          sx={{ minWidth: 190, ml: { md: 'auto' } }}
          renderInput={(params) => (
            <TextField
              {...params}
              placeholder={tags.length === 0 ? 'Tags' : ''}
              slotProps={{
                ...params.slotProps,
                htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': 'Filter by tag' },
              }}
            />
          )}
        />
      )}
    </Box>
  );
}
