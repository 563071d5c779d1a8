import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import {
  cardsOf,
  commonSlips,
  parsePractice,
  practiceCsv,
  practiceRecord,
  recordOfCsv,
  skillNamed,
} from '@/core/practice';
import type { PracticeAnswer } from '@/core/practice';
import { counted } from '@/ui/parts/counted';
import { FileButton } from '@/ui/parts/FileButton';
import { saveFile } from '@/ui/parts/files';
import { later } from '@/ui/parts/later';
import { tell, tellFault } from '@/ui/parts/messages';
import { fonts } from '@/ui/theme/tokens';
import type { StoredPractice } from '@/wire/practice';
import { practiceApi } from './answers';
import type { SittingOf } from './Sitting';

const DayChart = later(() => import('./charts').then((m) => m.DayChart));
const StabilityChart = later(() => import('./charts').then((m) => m.StabilityChart));

interface Props {
  readonly stored: StoredPractice | null;
  readonly put: (stored: StoredPractice) => void;
  readonly onBegin: (sitting: SittingOf) => void;
}

/** So many are sent at once. */
const PART = 1000;

async function imported(file: File): Promise<StoredPractice> {
  const text = await file.text();
  const read = /\.csv$/i.test(file.name) ? recordOfCsv(text) : parsePractice(JSON.parse(text));
  if (!read.ok) {
    const [first] = read.errors;
    throw new Error(`${file.name}: ${first?.path ?? ''} ${first?.message ?? ''}`);
  }
  const { answers } = read.value;
  let stored = await practiceApi.add(answers.slice(0, PART));
  for (let from = PART; from < answers.length; from += PART)
    stored = await practiceApi.add(answers.slice(from, from + PART));
  return stored;
}

const saveJson = (answers: readonly PracticeAnswer[]): void =>
  saveFile('practice.json', new Blob([JSON.stringify(practiceRecord(answers), null, 2)], { type: 'application/json' }));
const saveCsv = (answers: readonly PracticeAnswer[]): void =>
  saveFile('practice.csv', new Blob([practiceCsv(answers)], { type: 'text/csv' }));

/** How it went: stability by skill, answers over time, the commonest mistakes; out and in as a file. */
export function Progress({ stored, put, onBegin }: Props) {
  if (!stored) return null;
  const { answers } = stored;
  return (
    <Box sx={{ pt: 2 }}>
      <RecordBar stored={stored} put={put} />
      {answers.length === 0 ? (
        <p>No answers yet.</p>
      ) : (
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: '1fr 1fr' }, gap: 4 }}>
          <Stability answers={answers} />
          <Box sx={{ minWidth: 0 }}>
            <StabilityChart answers={answers} />
            <DayChart answers={answers} />
            <Slips answers={answers} onBegin={onBegin} />
          </Box>
        </Box>
      )}
    </Box>
  );
}

/** The record as a file, from a file, away and back. */
function RecordBar({ stored: { answers, removed }, put }: Pick<Props, 'put'> & { readonly stored: StoredPractice }) {
  const none = answers.length === 0;
  const remove = (): void => void practiceApi.remove().then(put).catch(tellFault);
  const restore = (): void => void practiceApi.restore().then(put).catch(tellFault);
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 2 }}>
      <Button disabled={none} onClick={() => saveJson(answers)}>
        Export
      </Button>
      <Button disabled={none} onClick={() => saveCsv(answers)}>
        Export CSV
      </Button>
      <FileButton
        says="A record of practice"
        accept="application/json,.json,text/csv,.csv"
        onFile={(file) =>
          imported(file)
            .then((now) => {
              put(now);
              tell('The record was imported.');
            })
            .catch(tellFault)
        }
      />
      <Button disabled={none} onClick={remove}>
        Remove all answers
      </Button>
      {removed > 0 && <Button onClick={restore}>{`Restore ${counted(removed, 'answer')}`}</Button>}
    </Box>
  );
}

/** What there is no room for on a phone. */
const wideOnly = { display: { xs: 'none', sm: 'table-cell' } } as const;

function Stability({ answers }: { readonly answers: readonly PracticeAnswer[] }) {
  const cards = [...cardsOf(answers).values()].toSorted((a, b) => a.stabilityDays - b.stabilityDays);
  return (
    <Table size="small" aria-label="Stability by skill">
      <TableHead>
        <TableRow>
          <TableCell>Skill</TableCell>
          <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
            Level
          </TableCell>
          <TableCell align="right" sx={wideOnly}>
            Answers
          </TableCell>
          <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
            Stable for
          </TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {cards.map((c) => (
          <TableRow key={`${c.skill} ${c.level}`}>
            <TableCell>{skillNamed(c.skill)?.text ?? c.skill}</TableCell>
            <TableCell align="right">{c.level}</TableCell>
            <TableCell align="right" sx={wideOnly}>
              {c.answers}
            </TableCell>
            <TableCell align="right" sx={{ fontFamily: fonts.numbers }}>
              {`${c.stabilityDays.toFixed(1)} d`}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

/** So many of the commonest mistakes are told. */
const MOST_SLIPS = 8;

function Slips({ answers, onBegin }: Pick<Props, 'onBegin'> & { readonly answers: readonly PracticeAnswer[] }) {
  const most = commonSlips(answers).slice(0, MOST_SLIPS);
  if (most.length === 0) return null;
  const skills = [...new Set(most.flatMap((s) => s.skills))];
  return (
    <Box sx={{ mt: 2 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 0.5 }}>
        <Box sx={{ fontWeight: 700 }}>Commonest mistakes</Box>
        <Button onClick={() => onBegin({ skills, level: null })}>Practise these</Button>
      </Box>
      <Box component="ul" sx={{ pl: 2, m: 0 }}>
        {most.map(({ text, times }) => (
          <li key={text}>{`${text} ${times}×`}</li>
        ))}
      </Box>
    </Box>
  );
}
