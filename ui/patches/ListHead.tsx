'use client';
import Box from '@mui/material/Box';
import Chip from '@mui/material/Chip';
import InputAdornment from '@mui/material/InputAdornment';
import { counted } from '@/ui/parts/counted';
import { SearchIcon } from '@/ui/parts/icons';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import type { ListedPatch } from '@/wire/patches';
import type { Wanted } from './order';

/** The tag of the patches that come with Fenvo. */
const DEMO = 'demo';

interface Props {
  readonly patches: readonly ListedPatch[];
  readonly wanted: Wanted;
  readonly onWanted: (wanted: Wanted) => void;
  /** Tags that are in use. */
  readonly tags: readonly string[];
}

/** How many there are, and whose: the made-up theatre's, as long as nothing else is there. */
function aboutOf(patches: readonly ListedPatch[]): string {
  const demo = patches.filter((p) => p.tags.includes(DEMO)).length;
  const theatre = 'the demo theatre, a made-up shadow-puppet play, “The Lamp Keeper’s Night”';
  if (demo === patches.length) return `${demo}, from ${theatre}`;
  return demo > 0 ? `${patches.length}, ${demo} of them from ${theatre}` : counted(patches.length, 'patch', 'patches');
}

/** Over the list: what it holds, and what is looked for in it. */
export function ListHead({ patches, wanted, onWanted, tags }: Props) {
  const toggle = (tag: string): void => {
    const on = wanted.tags.includes(tag);
    onWanted({ ...wanted, tags: on ? wanted.tags.filter((t) => t !== tag) : [...wanted.tags, tag] });
  };
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 1.5, rowGap: 1, mt: 3, mb: 1 }}>
      <Box component="h2" sx={{ fontSize: 18, m: 0 }}>
        Your patches
      </Box>
      <Box sx={{ color: ink.softInk, flex: '1 1 240px' }}>{aboutOf(patches)}</Box>
      {tags.length > 0 && (
        <Box role="group" aria-label="Filter by tag" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
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
  );
}
