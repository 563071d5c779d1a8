'use client';
import Box from '@mui/material/Box';
import OutlinedInput from '@mui/material/OutlinedInput';
import useAutocomplete from '@mui/material/useAutocomplete';
import { useEffect, useRef, useState } from 'react';
import { ink } from '@/ui/theme/tokens';
import { headingStyle } from '../theme/tokens';

export interface Choice {
  readonly key: string;
  /** What it does or is, as one reads it first. */
  readonly title: string;
  /** Beside it: the module's own name, what an end answers to, a command's key. */
  readonly says: string;
  readonly group: string;
  /** What else finds it when it is typed. */
  readonly aliases?: readonly string[] | undefined;
}

interface Props {
  readonly label: string;
  readonly choices: readonly Choice[];
  /** What was typed for it before it was there. */
  readonly start?: string;
  readonly onPick: (choice: Choice) => void;
  readonly onHighlight?: (choice: Choice | null) => void;
  readonly onCancel: () => void;
}

/** How well a choice fits what was typed: 0 for the words as they stand in its title, 2 for anywhere at all. */
function rank(choice: Choice, typed: string): number | null {
  const words = typed.split(/\s+/).filter(Boolean);
  const title = choice.title.toLowerCase();
  const text = `${title} ${choice.says} ${choice.group} ${choice.aliases?.join(' ') ?? ''}`.toLowerCase();
  if (!words.every((word) => text.includes(word))) return null;
  const whole = words.join(' ');
  if (title.includes(whole) || choice.aliases?.some((a) => a.toLowerCase() === whole)) return 0;
  return words.every((word) => title.includes(word)) ? 1 : 2;
}

/** What fits, the best first; groups stay together, that of the best fit first. */
export function found(choices: readonly Choice[], typed: string): Choice[] {
  const ranked = choices.flatMap((choice) => {
    const fit = rank(choice, typed.toLowerCase().trim());
    return fit === null ? [] : [{ choice, fit }];
  });
  const best = new Map<string, number>();
  for (const { choice, fit } of ranked) best.set(choice.group, Math.min(fit, best.get(choice.group) ?? fit));
  const groups = [...best].sort((a, b) => a[1] - b[1]).map(([group]) => group);
  return ranked
    .sort((a, b) => groups.indexOf(a.choice.group) - groups.indexOf(b.choice.group) || a.fit - b.fit)
    .map(({ choice }) => choice);
}

/** A list that is narrowed by typing; what is gone over, by pointer or arrows, is told before it is chosen. */
export function Chooser({ label, choices, start = '', onPick, onHighlight, onCancel }: Props) {
  const [typed, setTyped] = useState(start);
  const list = useAutocomplete<Choice, false, false, false>({
    id: 'chooser',
    inputValue: typed,
    onInputChange: (_event, text, reason) => reason !== 'reset' && setTyped(text),
    options: choices as Choice[],
    open: true,
    value: null,
    autoHighlight: true,
    clearOnBlur: false,
    groupBy: (c) => c.group,
    getOptionLabel: (c) => c.title,
    getOptionKey: (c) => c.key,
    filterOptions: (all, { inputValue }) => found(all, inputValue),
    onHighlightChange: (_event, choice) => choice && onHighlight?.(choice),
    onChange: (_event, choice) => choice && onPick(choice),
  });
  const groups = list.groupedOptions as unknown as readonly Grouped[];
  const first = groups[0]?.options[0] ?? null;
  const latest = useRef({ first, onHighlight });
  useEffect(() => {
    latest.current = { first, onHighlight };
  });
  // The first is gone over by itself, and that is told too; the same choice may come as a new object.
  const key = first?.key;
  useEffect(() => latest.current.onHighlight?.(latest.current.first), [key]);
  return (
    <Box
      {...list.getRootProps()}
      onKeyDownCapture={(e) => {
        if (e.key !== 'Escape') return;
        e.stopPropagation();
        onCancel();
      }}
      data-chooser
    >
      <OutlinedInput
        autoFocus
        fullWidth
        placeholder="Type to search"
        slotProps={{ input: { ...list.getInputProps(), 'aria-label': label } }}
      />
      <Box
        component="ul"
        {...list.getListboxProps()}
        aria-label={label}
        sx={{ listStyle: 'none', m: 0, mt: 1, p: 0, maxHeight: 'min(60vh, 560px)', overflowY: 'auto' }}
      >
        {groups.map((group) => (
          <Group key={group.group} group={group} list={list} />
        ))}
        {groups.length === 0 && (
          <Box component="li" role="presentation" sx={{ color: ink.softInk, p: 1 }}>
            No matches.
          </Box>
        )}
      </Box>
    </Box>
  );
}

interface Grouped {
  readonly group: string;
  readonly index: number;
  readonly options: readonly Choice[];
}

interface GroupProps {
  readonly group: Grouped;
  readonly list: Pick<ReturnType<typeof useAutocomplete<Choice, false, false, false>>, 'getOptionProps'>;
}

function Group({ group, list }: GroupProps) {
  return (
    <Box component="li" role="presentation">
      <Box sx={{ ...headingStyle, pt: 0.75 }}>{group.group}</Box>
      <Box component="ul" role="presentation" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {group.options.map((choice, i) => {
          const { key: _key, ...option } = list.getOptionProps({ option: choice, index: group.index + i });
          return (
            <Box component="li" key={choice.key} {...option} data-choice={choice.key} sx={optionStyle}>
              <Box sx={{ lineHeight: 1.3 }}>{choice.title}</Box>
              <Box sx={{ fontSize: 12, color: ink.softInk, '.Mui-focused &': { color: ink.ink } }}>{choice.says}</Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

const optionStyle = {
  px: 1,
  py: 0.5,
  cursor: 'pointer',
  borderLeft: `3px solid ${ink.clear}`,
  '&.Mui-focused': { background: ink.bound, borderColor: ink.wanted },
} as const;
