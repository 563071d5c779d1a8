'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import type { GesturePoint } from '@/core';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { ink } from '@/ui/theme/tokens';

const toText = (points: readonly GesturePoint[]): string => points.map((p) => `${p.t}  ${p.volts}`).join('\n');

/** `seconds volts` a line, times rising from 0 up. */
function read(text: string): { points: GesturePoint[] } | { fault: string } {
  const points: GesturePoint[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    const words = line
      .replace(/\u2212/g, '-')
      .trim()
      .split(/[\s;,]+/)
      .filter(Boolean);
    if (words.length === 0) continue;
    const [t = NaN, volts = NaN] = words.map(Number);
    if (words.length !== 2 || !(t >= 0) || !(Math.abs(volts) <= 12)) {
      return { fault: `Line ${i + 1}: seconds from 0 up and volts within ±12 are wanted, such as "1.5 4".` };
    }
    const last = points.at(-1);
    if (last && t <= last.t) return { fault: `Line ${i + 1}: ${t} s is not later than the line before it.` };
    points.push({ t, volts });
  }
  return points.length > 0 ? { points } : { fault: 'At least one line is wanted.' };
}

export function PointsField({
  points,
  onChange,
}: {
  points: readonly GesturePoint[];
  onChange: (points: GesturePoint[]) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const finish = (): void => {
    if (text === null) return;
    const result = read(text);
    if ('fault' in result) return setFault(result.fault);
    setText(null);
    setFault(null);
    onChange(result.points);
  };
  return (
    <Box sx={{ mt: 1 }}>
      <Box component="label" sx={{ fontSize: 13, color: ink.softInk, display: 'block' }}>
        points: seconds and volts
        <Box
          component="textarea"
          rows={Math.min(8, points.length + 1)}
          sx={{ ...fieldStyle, display: 'block', width: '100%', maxWidth: 'none', resize: 'vertical' }}
          value={text ?? toText(points)}
          onChange={(e) => setText(e.target.value)}
        />
      </Box>
      {fault && (
        <Box role="alert" sx={{ fontSize: 12, color: ink.error }}>
          {fault}
        </Box>
      )}
      {text !== null && <Button onClick={finish}>Set points</Button>}
    </Box>
  );
}
