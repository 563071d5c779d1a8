import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useState } from 'react';
import { allSkills, cardKey, cardsOf, LEVELS, openLevels } from '@/core/practice';
import type { Level, PracticeCard, Skill } from '@/core/practice';
import { counted } from '@/ui/parts/counted';
import { SelectField } from '@/ui/parts/SelectField';
import { ink } from '@/ui/theme/tokens';
import type { StoredPractice } from '@/wire/practice';
import type { SittingOf } from './Sitting';

interface Props {
  readonly stored: StoredPractice | null;
  readonly onBegin: (sitting: SittingOf) => void;
}

const dueNow = (cards: ReadonlyMap<string, PracticeCard>): number =>
  [...cards.values()].filter((c) => c.due.getTime() <= Date.now()).length;

/** What can be practised: a sitting of what is due, or one skill. */
export function Skills({ stored, onBegin }: Props) {
  if (!stored) return <Skeleton variant="rectangular" sx={{ height: 240, mt: 2 }} />;
  const cards = cardsOf(stored.answers);
  const due = dueNow(cards);
  return (
    <Box sx={{ pt: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 2 }}>
        <Button variant="contained" color="primary" onClick={() => onBegin({ only: null, level: null })}>
          Start a sitting
        </Button>
        <Box sx={{ color: ink.softInk }}>
          {stored.answers.length === 0
            ? 'Twelve short exercises, or ten minutes. Predict what arrives; the strip then shows how it comes about.'
            : `${counted(due, 'skill')} due today · ${counted(stored.answers.length, 'answer')} so far`}
        </Box>
      </Box>
      <Table size="small" sx={{ mt: 2, maxWidth: 860 }}>
        <TableHead>
          <TableRow>
            <TableCell>Skill</TableCell>
            <TableCell>Level</TableCell>
            <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' } }}>Due</TableCell>
            <TableCell />
          </TableRow>
        </TableHead>
        <TableBody>
          {allSkills
            .filter((s) => !s.needsSound)
            .map((skill, i, list) => (
              <SkillRow
                key={skill.name}
                skill={skill}
                first={list[i - 1]?.group !== skill.group}
                cards={cards}
                onBegin={onBegin}
              />
            ))}
        </TableBody>
      </Table>
    </Box>
  );
}

const DAY = 86_400_000;

function dueText(card: PracticeCard | undefined): string {
  if (!card) return 'new';
  const days = Math.round((card.due.getTime() - Date.now()) / DAY);
  return days <= 0 ? 'today' : `in ${counted(days, 'day')}`;
}

interface RowProps {
  readonly skill: Skill;
  readonly first: boolean;
  readonly cards: ReadonlyMap<string, PracticeCard>;
  readonly onBegin: (sitting: SittingOf) => void;
}

function SkillRow({ skill, first, cards, onBegin }: RowProps) {
  const open = openLevels(skill.name, cards);
  const [level, setLevel] = useState<string>(String(open.at(-1) ?? 1));
  const chosen = Number(level) as Level;
  return (
    <TableRow data-skill={skill.name}>
      <TableCell sx={{ borderTop: first ? `1px solid ${ink.softInk}` : undefined }}>
        {skill.text}
        <Box component="span" sx={{ ml: 1, fontSize: 12, color: ink.softInk }}>
          {first ? skill.group : ''}
        </Box>
      </TableCell>
      <TableCell>
        <SelectField
          label={`Level of ${skill.text}`}
          value={level}
          options={LEVELS.map((l) => [String(l), open.includes(l) ? String(l) : `${l} (early)`] as const)}
          onChange={setLevel}
          sx={{ width: 96 }}
        />
      </TableCell>
      <TableCell sx={{ display: { xs: 'none', sm: 'table-cell' }, color: ink.softInk }}>
        {dueText(cards.get(cardKey({ skill: skill.name, level: chosen })))}
      </TableCell>
      <TableCell align="right">
        <Button onClick={() => onBegin({ only: skill.name, level: chosen })}>Practise</Button>
      </TableCell>
    </TableRow>
  );
}
