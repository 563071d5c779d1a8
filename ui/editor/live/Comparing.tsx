'use client';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { useEffect } from 'react';
import { useStore } from 'zustand';
import { applyEdits, showDb } from '@/core';
import type { Patch } from '@/core';
import { SelectField } from '@/ui/parts/SelectField';
import type { DeskStore } from '@/ui/session/desk';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Listened } from './listened';
import { listenJob } from '@/ui/parts/workerJob';
import type { Live } from './live';
import { matchFor } from './liveState';

interface Props {
  readonly desk: DeskStore;
  readonly live: Live;
}

const NONE = '';
const BEFORE = 'before';
const SAVED = 'saved';

/** What the patch can be compared with: before the last edit, as it was saved, or a variant. */
function otherPatch(desk: DeskStore, key: string): Patch | null {
  const { patch, history, saved } = desk.getState();
  if (key === SAVED) return saved;
  if (key === BEFORE) {
    const last = history.past.at(-1);
    return last ? applyEdits(patch, last.inverse) : null;
  }
  const variant = patch.variants.find((v) => v.name === key);
  return variant ? applyEdits(patch, [{ do: 'state', state: variant }]) : null;
}

/** How long an edit is waited for before both sides are measured again, milliseconds. */
const REST = 400;
/** Neither side is turned down. */
const UNMATCHED = { here: 0, there: 0 };

/** Works out how loud both sides are, again after each edit; until it is there the match of before stands. */
function useMatch(desk: DeskStore, live: Live): void {
  const { other, choice } = useStore(live.store);
  const patch = useStore(desk, (s) => s.patch);
  const compared = other?.patch;
  useEffect(() => {
    if (!compared) return undefined;
    let end: (() => void) | null = null;
    const rested = setTimeout(() => {
      const [here, there] = [patch, compared].map((p) => live.heardOf(p));
      if (!here || !there) live.matchedBy(UNMATCHED);
      else end = measure([here, there], live);
    }, REST);
    return () => {
      clearTimeout(rested);
      end?.();
    };
  }, [compared, patch, choice, live]);
}

/** @returns ends it. */
function measure(sides: readonly Listened[], live: Live): () => void {
  let ended = false;
  const job = listenJob((worker) => worker.loudness(sides.map(({ patch, ears }) => ({ patch, ears: { ...ears } }))));
  job.done
    .then(([here = 0, there = 0]) => live.matchedBy({ here, there }))
    .catch(() => !ended && live.matchedBy(UNMATCHED));
  return () => {
    ended = true;
    job.cancel();
  };
}

/** The patch beside another state of it, heard in turns, equally loud. */
export function Comparing({ desk, live }: Props) {
  const variants = useStore(desk, (s) => s.patch.variants);
  const past = useStore(desk, (s) => s.history.past);
  const state = useStore(live.store);
  const { other, side, matched } = state;
  useMatch(desk, live);
  const last = past.at(-1);
  const options = [
    [NONE, 'Compare with…'],
    ...(last ? [[BEFORE, `Before “${last.label}”`] as const] : []),
    [SAVED, 'Last saved version'],
    ...variants.map((v) => [v.name, v.name] as const),
    ...(other && ![BEFORE, SAVED, ...variants.map((v) => v.name)].includes(other.name)
      ? [[other.name, other.name] as const]
      : []),
  ] as const;
  const key = other?.name ?? NONE;
  const choose = (name: string): void => {
    const patch = name === NONE ? null : otherPatch(desk, name);
    live.compareWith(patch && { name, patch, match: null });
  };
  const db = matchFor(state);
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 1.5 }}>
      <SelectField
        label="Compare with"
        value={options.some(([k]) => k === key) ? key : NONE}
        options={options}
        onChange={choose}
        sx={{ minWidth: 140, maxWidth: 220 }}
      />
      {other && (
        <>
          <ToggleButtonGroup
            exclusive
            size="small"
            value={side}
            aria-label="A/B"
            onChange={(_, next) => next !== null && next !== side && live.swap()}
          >
            <ToggleButton value="here">Current</ToggleButton>
            <ToggleButton value="there">Other</ToggleButton>
          </ToggleButtonGroup>
          <FormControlLabel
            sx={{ m: 0 }}
            control={<Checkbox size="small" checked={matched} onChange={(e) => live.setMatched(e.target.checked)} />}
            label="Match loudness"
          />
          <Box sx={{ fontSize: 13, color: ink.softInk }} data-match={db.toFixed(1)}>
            {matched && other.match === null ? (
              'measuring …'
            ) : (
              <>
                {'Turned down by '}
                <Box component="span" sx={{ fontFamily: fonts.numbers }}>
                  {showDb(-db)}
                </Box>
              </>
            )}
          </Box>
        </>
      )}
    </Box>
  );
}
