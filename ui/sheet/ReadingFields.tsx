import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useRef, useState } from 'react';
import { judge, meterText, readMeter } from '@/core';
import type { MeterReading, SheetStep, Verdict } from '@/core';
import { TextInput } from '@/ui/parts/TextInput';
import { VERDICTS } from '@/ui/parts/verdicts';
import { fonts, ink } from '@/ui/theme/tokens';
import type { Tick } from '@/wire/requests';

type Measure = Extract<SheetStep, { do: 'measure' }>;

interface Props {
  readonly step: Measure;
  readonly reads: Readonly<Record<string, string>>;
  /** What was read there as one line, before there was a field for each figure. */
  readonly note: string | undefined;
  readonly mark: (id: string, change: Partial<Omit<Tick, 'at'>>) => void;
  readonly fault: string | null;
}

/** So long after the last key a figure is taken, milliseconds. */
const PAUSE = 1200;

interface Judged {
  readonly verdict: Verdict | null;
  readonly problem: string | null;
}

function judged(text: string, { quantity, unit, value, plusMinus }: MeterReading): Judged {
  if (text.trim() === '') return { verdict: null, problem: null };
  const read = readMeter(text, quantity, unit);
  if (read === null) return { verdict: null, problem: `Enter a value in ${unit}, for example 4.2.` };
  return { verdict: judge(read, { value, plusMinus }), problem: null };
}

/** A field for each figure that is expected, judged as soon as it is typed. */
export function ReadingFields({ step, reads, note, mark, fault }: Props) {
  const { meter } = step.expect;
  const wrong = meter.some((m) => judged(reads[m.quantity] ?? '', m).verdict === 'wrong');
  return (
    <Box sx={{ display: 'grid', gap: 0.75, py: 0.5 }}>
      {meter.map((m) => (
        <OneFigure
          key={m.quantity}
          name={step.text}
          expected={m}
          text={reads[m.quantity] ?? ''}
          onText={(text) => mark(step.id, { reads: { ...reads, [m.quantity]: text } })}
        />
      ))}
      {note && <Box sx={{ fontSize: 13, color: ink.softInk }}>{`Noted earlier: ${note}`}</Box>}
      {wrong && fault !== null && (
        <Box sx={{ '@media print': { display: 'none' } }}>
          <Button color="primary" href={fault} sx={{ minHeight: 44 }}>
            Find the fault
          </Button>
        </Box>
      )}
    </Box>
  );
}

interface FigureProps {
  readonly name: string;
  readonly expected: MeterReading;
  readonly text: string;
  readonly onText: (text: string) => void;
}

function OneFigure({ name, expected, text, onText }: FigureProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? text;
  const { verdict, problem } = judged(shown, expected);
  const settle = (): void => {
    if (typed !== null && typed !== text) onText(typed);
    setTyped(null);
  };
  const put = useRef(settle);
  useEffect(() => {
    put.current = settle;
  });
  // A figure that nobody goes on typing at is read, and one that is left standing as the page goes away too.
  useEffect(() => {
    if (typed === null) return undefined;
    const later = setTimeout(() => put.current(), PAUSE);
    const leaving = (): void => put.current();
    window.addEventListener('pagehide', leaving, { capture: true });
    return () => {
      clearTimeout(later);
      window.removeEventListener('pagehide', leaving, { capture: true });
    };
  }, [typed]);
  return (
    <Box
      data-expect={expected.quantity}
      data-verdict={verdict}
      sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', columnGap: 2, rowGap: 0.25 }}
    >
      <Box sx={{ fontFamily: fonts.numbers, fontSize: '0.95em', minWidth: { xs: '100%', sm: 210 } }}>
        {meterText(expected)}
      </Box>
      <Box>
        <TextInput
          label={`${name}, ${meterText(expected)}`}
          placeholder="Reading"
          figures
          longest={40}
          value={shown}
          fault={typed === null ? problem : null}
          onChange={setTyped}
          onBlur={settle}
          onKeyDown={(e) => e.key === 'Enter' && settle()}
          sx={{ width: 130, minHeight: 44 }}
        />
      </Box>
      <Box role="status" sx={{ minWidth: 84, fontWeight: 700, color: verdict ? VERDICTS[verdict].colour : 'inherit' }}>
        {verdict ? VERDICTS[verdict].text : ''}
      </Box>
    </Box>
  );
}
