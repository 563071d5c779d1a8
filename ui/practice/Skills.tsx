import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Skeleton from '@mui/material/Skeleton';
import Switch from '@mui/material/Switch';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import { useState } from 'react';
import { useStore } from 'zustand';
import { allSkills, cardKey, cardsOf, LEVELS, openLevels } from '@/core/practice';
import type { Level, PracticeCard, Skill } from '@/core/practice';
import { counted } from '@/ui/parts/counted';
import { SelectField } from '@/ui/parts/SelectField';
import { setSetting, settings } from '@/ui/parts/settings';
import { ink } from '@/ui/theme/tokens';
import type { StoredPractice } from '@/wire/practice';
import type { SittingOf } from './Sitting';

interface Props {
  readonly stored: StoredPractice | null;
  readonly onBegin: (sitting: SittingOf) => void;
}

const dueNow = (cards: ReadonlyMap<string, PracticeCard>): number =>
  [...cards.values()].filter((c) => c.due.getTime() <= Date.now()).length;

/** How the groups of skills are called, in their order. */
const TITLES: Readonly<Record<Skill['group'], string>> = {
  range: 'Ranges',
  units: 'Units',
  shape: 'Shapes',
  VCA: 'VCAs',
  time: 'Time',
  electrical: 'Electrical',
  spectrum: 'Spectrum',
  knob: 'Knobs',
  fault: 'Faults',
  ear: 'By ear',
};

/** What can be practised: a sitting of what is due, or one skill. */
export function Skills({ stored, onBegin }: Props) {
  const byEar = useStore(settings, (s) => s.byEar);
  if (!stored) return <Skeleton variant="rectangular" sx={{ height: 240, mt: 2 }} />;
  const cards = cardsOf(stored.answers);
  const groups = [...new Set(allSkills.map((s) => s.group))].filter((g) => byEar || g !== 'ear');
  return (
    <Box sx={{ pt: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 2, rowGap: 1 }}>
        <Button variant="contained" color="primary" onClick={() => onBegin({ skills: null, level: null })}>
          Start a sitting
        </Button>
        <Box sx={{ color: ink.softInk }}>
          {stored.answers.length === 0
            ? 'Twelve short exercises, or ten minutes. Predict what arrives; the strip then shows how it comes about.'
            : `${counted(dueNow(cards), 'skill')} due today · ${counted(stored.answers.length, 'answer')} so far`}
        </Box>
        <FormControlLabel
          sx={{ ml: { md: 'auto' } }}
          control={<Switch checked={byEar} onChange={(_, on) => setSetting('byEar', on)} />}
          label="Exercises by ear"
        />
      </Box>
      <Box sx={{ columnCount: { xs: 1, md: 2, xl: 3 }, columnGap: 4, mt: 1 }}>
        {groups.map((group) => (
          <Group
            key={group}
            title={TITLES[group]}
            skills={allSkills.filter((s) => s.group === group)}
            {...{ cards, onBegin }}
          />
        ))}
      </Box>
    </Box>
  );
}

interface GroupProps extends Pick<Props, 'onBegin'> {
  readonly title: string;
  readonly skills: readonly Skill[];
  readonly cards: ReadonlyMap<string, PracticeCard>;
}

const Group = ({ title, skills, cards, onBegin }: GroupProps) => (
  <Box component="section" aria-label={title} sx={{ breakInside: 'avoid', pt: 1.5 }}>
    <Box component="h2" sx={{ fontSize: 15, m: 0, borderBottom: `1px solid ${ink.softInk}`, pb: 0.5 }}>
      {title}
    </Box>
    <Table size="small">
      <TableBody>
        {skills.map((skill) => (
          <SkillRow key={skill.name} skill={skill} cards={cards} onBegin={onBegin} />
        ))}
      </TableBody>
    </Table>
  </Box>
);

const DAY = 86_400_000;

function dueText(card: PracticeCard | undefined): string {
  if (!card) return 'new';
  const days = Math.round((card.due.getTime() - Date.now()) / DAY);
  return days <= 0 ? 'today' : `in ${counted(days, 'day')}`;
}

interface RowProps extends Pick<Props, 'onBegin'> {
  readonly skill: Skill;
  readonly cards: ReadonlyMap<string, PracticeCard>;
}

function SkillRow({ skill, cards, onBegin }: RowProps) {
  const open = openLevels(skill.name, cards);
  const [level, setLevel] = useState<string>(String(open.at(-1) ?? 1));
  const chosen = Number(level) as Level;
  return (
    <TableRow data-skill={skill.name}>
      <TableCell sx={{ pl: 0 }}>{skill.text}</TableCell>
      <TableCell sx={{ color: ink.softInk, whiteSpace: 'nowrap', width: 76, px: 0.5 }}>
        {dueText(cards.get(cardKey({ skill: skill.name, level: chosen })))}
      </TableCell>
      <TableCell sx={{ width: 112, px: 0.5 }}>
        <SelectField
          label={`Level of ${skill.text}`}
          value={level}
          options={LEVELS.map((l) => [String(l), open.includes(l) ? `Level ${l}` : `Level ${l}, early`] as const)}
          onChange={setLevel}
          sx={{ width: 104 }}
        />
      </TableCell>
      <TableCell align="right" sx={{ width: 92, px: 0 }}>
        <Button onClick={() => onBegin({ skills: [skill.name], level: chosen })} aria-label={`Practise: ${skill.text}`}>
          Practise
        </Button>
      </TableCell>
    </TableRow>
  );
}
