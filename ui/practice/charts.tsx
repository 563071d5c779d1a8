import Box from '@mui/material/Box';
import { Bar, BarChart, CartesianGrid, XAxis, YAxis } from 'recharts';
import { cardsOf, skillNamed } from '@/core/practice';
import type { PracticeAnswer } from '@/core/practice';
import { useSize } from '@/ui/parts/useSize';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly answers: readonly PracticeAnswer[];
}

const DAYS = 30;
/** Skills that are shown, the least stable first. */
const MOST = 12;
const ROW = 26;
const LABELS = 250;

/** How many answers of each day were right, and how many were not. */
export function DayChart({ answers }: Props) {
  const [box, { width }] = useSize<HTMLDivElement>({ width: 440, height: 180 });
  const days = new Map<string, { right: number; wrong: number }>();
  for (const { at, score } of answers) {
    const day = at.slice(0, 10);
    const { right, wrong } = days.get(day) ?? { right: 0, wrong: 0 };
    days.set(day, score >= 1 ? { right: right + 1, wrong } : { right, wrong: wrong + 1 });
  }
  const data = [...days].toSorted(([a], [b]) => a.localeCompare(b)).map(([day, of]) => ({ day, ...of }));
  return (
    <Box
      ref={box}
      role="img"
      aria-label={`Answers by day: ${data.map((d) => `${d.day} ${d.right} right, ${d.wrong} not`).join('; ')}`}
    >
      <Box sx={{ fontWeight: 700, mb: 1 }}>Answers by day, right and not</Box>
      <BarChart width={width} height={180} data={data.slice(-DAYS)} maxBarSize={28} accessibilityLayer={false}>
        <CartesianGrid stroke={ink.line} vertical={false} />
        <XAxis dataKey="day" tickFormatter={(day: string) => day.slice(5)} />
        <YAxis allowDecimals={false} width={30} />
        <Bar dataKey="right" stackId="a" fill={ink.trace} isAnimationActive={false} />
        <Bar dataKey="wrong" stackId="a" fill={ink.wanted} isAnimationActive={false} />
      </BarChart>
    </Box>
  );
}

/** For how long each skill is stable, days; its figures stand in the table. */
export function StabilityChart({ answers }: Props) {
  const [box, { width }] = useSize<HTMLDivElement>({ width: 440, height: 180 });
  const data = [...cardsOf(answers).values()]
    .toSorted((a, b) => a.stabilityDays - b.stabilityDays)
    .slice(0, MOST)
    .map((c) => ({ skill: `${skillNamed(c.skill)?.text ?? c.skill}, ${c.level}`, days: c.stabilityDays }));
  return (
    <Box
      ref={box}
      role="img"
      aria-label={`Stable for: ${data.map((d) => `${d.skill} ${d.days.toFixed(1)} d`).join('; ')}`}
      sx={{ mb: 2 }}
      data-stability-chart
    >
      <Box sx={{ fontWeight: 700, mb: 1 }}>Stable for, days, the least first</Box>
      <BarChart
        width={width}
        height={40 + ROW * data.length}
        data={data}
        layout="vertical"
        maxBarSize={14}
        accessibilityLayer={false}
      >
        <CartesianGrid stroke={ink.line} horizontal={false} />
        <XAxis type="number" />
        <YAxis
          type="category"
          dataKey="skill"
          width={Math.min(LABELS, width / 2)}
          interval={0}
          tick={{ fontSize: 12 }}
        />
        <Bar dataKey="days" fill={ink.trace} isAnimationActive={false} />
      </BarChart>
    </Box>
  );
}
