import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { Bar, BarChart, CartesianGrid, XAxis, YAxis } from 'recharts';
import { cardsOf, parsePractice, practiceRecord, skillNamed } from '@/core/practice';
import type { PracticeAnswer } from '@/core/practice';
import { counted } from '@/ui/parts/counted';
import { FileButton } from '@/ui/parts/FileButton';
import { saveFile } from '@/ui/parts/files';
import { tell, tellFault } from '@/ui/parts/messages';
import { fonts, ink } from '@/ui/theme/tokens';
import type { StoredPractice } from '@/wire/practice';
import { practiceApi } from './answers';

interface Props {
  readonly stored: StoredPractice | null;
  readonly put: (stored: StoredPractice) => void;
}

/** So many are sent at once. */
const PART = 1000;

async function imported(file: File): Promise<StoredPractice> {
  const read = parsePractice(JSON.parse(await file.text()));
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

/** How it went: stability by skill, answers over time, the commonest mistakes; out and in as a file. */
export function Progress({ stored, put }: Props) {
  if (!stored) return null;
  const { answers, removed } = stored;
  const remove = (): void => void practiceApi.remove().then(put).catch(tellFault);
  const restore = (): void => void practiceApi.restore().then(put).catch(tellFault);
  return (
    <Box sx={{ pt: 2 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 2 }}>
        <Button
          disabled={answers.length === 0}
          onClick={() =>
            saveFile(
              'practice.json',
              new Blob([JSON.stringify(practiceRecord(answers), null, 2)], { type: 'application/json' }),
            )
          }
        >
          Export
        </Button>
        <FileButton
          says="A record of practice"
          accept="application/json"
          onFile={(file) =>
            imported(file)
              .then((now) => {
                put(now);
                tell('The record was imported.');
              })
              .catch(tellFault)
          }
        />
        <Button disabled={answers.length === 0} onClick={remove}>
          Remove all answers
        </Button>
        {removed > 0 && <Button onClick={restore}>{`Restore ${counted(removed, 'answer')}`}</Button>}
      </Box>
      {answers.length === 0 ? (
        <p>No answers yet.</p>
      ) : (
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: '1fr 1fr' }, gap: 4 }}>
          <Stability answers={answers} />
          <Box sx={{ minWidth: 0 }}>
            <OverTime answers={answers} />
            <Slips answers={answers} />
          </Box>
        </Box>
      )}
    </Box>
  );
}

function Stability({ answers }: { readonly answers: readonly PracticeAnswer[] }) {
  const cards = [...cardsOf(answers).values()].toSorted((a, b) => a.stabilityDays - b.stabilityDays);
  return (
    <Table size="small" aria-label="Stability by skill">
      <TableHead>
        <TableRow>
          <TableCell>Skill</TableCell>
          <TableCell align="right">Level</TableCell>
          <TableCell align="right">Answers</TableCell>
          <TableCell align="right">Stable for</TableCell>
        </TableRow>
      </TableHead>
      <TableBody>
        {cards.map((c) => (
          <TableRow key={`${c.skill} ${c.level}`}>
            <TableCell>{skillNamed(c.skill)?.text ?? c.skill}</TableCell>
            <TableCell align="right">{c.level}</TableCell>
            <TableCell align="right">{c.answers}</TableCell>
            <TableCell align="right" sx={{ fontFamily: fonts.numbers }}>
              {`${c.stabilityDays.toFixed(1)} d`}
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

function OverTime({ answers }: { readonly answers: readonly PracticeAnswer[] }) {
  const days = new Map<string, { right: number; wrong: number }>();
  for (const { at, score } of answers) {
    const day = at.slice(0, 10);
    const { right, wrong } = days.get(day) ?? { right: 0, wrong: 0 };
    days.set(day, score >= 1 ? { right: right + 1, wrong } : { right, wrong: wrong + 1 });
  }
  const data = [...days].toSorted().map(([day, of]) => ({ day, ...of }));
  return (
    <Box
      role="img"
      aria-label={`Answers by day: ${data.map((d) => `${d.day} ${d.right} right, ${d.wrong} not`).join('; ')}`}
    >
      <Box sx={{ fontWeight: 700, mb: 1 }}>Answers by day, right and not</Box>
      <BarChart width={440} height={180} data={data.slice(-30)}>
        <CartesianGrid stroke={ink.line} vertical={false} />
        <XAxis dataKey="day" tickFormatter={(day: string) => day.slice(5)} />
        <YAxis allowDecimals={false} width={30} />
        <Bar dataKey="right" stackId="a" fill={ink.trace} isAnimationActive={false} />
        <Bar dataKey="wrong" stackId="a" fill={ink.wanted} isAnimationActive={false} />
      </BarChart>
    </Box>
  );
}

function Slips({ answers }: { readonly answers: readonly PracticeAnswer[] }) {
  const counts = new Map<string, number>();
  for (const { slip } of answers) if (slip !== undefined) counts.set(slip, (counts.get(slip) ?? 0) + 1);
  const most = [...counts].toSorted((a, b) => b[1] - a[1]).slice(0, 8);
  if (most.length === 0) return null;
  return (
    <Box sx={{ mt: 2 }}>
      <Box sx={{ fontWeight: 700 }}>Commonest mistakes</Box>
      <Box component="ul" sx={{ pl: 2, m: 0 }}>
        {most.map(([text, n]) => (
          <li key={text}>{`${text} ${n}×`}</li>
        ))}
      </Box>
    </Box>
  );
}
