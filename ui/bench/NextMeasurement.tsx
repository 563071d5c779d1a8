import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { placeName, readingUnit, readMeter } from '@/core';
import type { Cause, Diagnosis } from '@/core';
import { CommitField } from '@/ui/parts/CommitField';
import { fonts, ink } from '@/ui/theme/tokens';
import { figure, QUANTITY_NAMES } from './quantityNames';
import { useMeter } from './useMeter';
import type { OpenSession } from './useSession';

interface Props {
  readonly open: OpenSession;
  readonly next: NonNullable<Diagnosis['next']>;
  readonly causes: readonly Cause[];
}

/** The one measurement that tells most, with what it would be by each cause. */
export function NextMeasurement({ open, next, causes }: Props) {
  const meter = useMeter(open);
  const unit = readingUnit(next.quantity);
  const put = (text: string): string | null => {
    if (text.trim() === '') return null;
    const value = readMeter(text, next.quantity, unit);
    if (value === null) return `Enter a value in ${unit}, for example 4.2.`;
    void open.add([{ at: next.at, quantity: next.quantity, value }]);
    return null;
  };
  return (
    <Box
      component="section"
      aria-label="Measure here next"
      data-next={`${next.at} ${next.quantity}`}
      sx={{ mt: 1, p: 1.5, border: `1px solid ${ink.wanted}`, borderRadius: 1, background: ink.raised }}
    >
      <Box sx={{ fontWeight: 700 }}>
        {`Measure here next: ${placeName(open.patch.modules, next.at)}, ${QUANTITY_NAMES[next.quantity]}`}
      </Box>
      <Box sx={{ fontSize: 13, color: ink.softInk, mb: 1 }}>Expected reading for each possible fault:</Box>
      {next.ifCause.slice(0, 4).map(([index, value]) => (
        <Box key={index} sx={{ display: 'flex', gap: 1, fontSize: 13 }}>
          <Box sx={{ fontFamily: fonts.numbers, minWidth: 84, textAlign: 'right' }}>{figure(value, unit)}</Box>
          <Box sx={{ flex: 1 }}>{causes[index]?.text ?? ''}</Box>
        </Box>
      ))}
      <Box sx={{ display: 'flex', alignItems: 'flex-start', gap: 1, mt: 1 }}>
        <CommitField label="What you read there" value="" placeholder={`Reading, ${unit}`} onPut={put} />
        {meter && (
          <Button color="primary" disabled={meter.busy} onClick={() => meter.read([next])}>
            Read
          </Button>
        )}
      </Box>
    </Box>
  );
}
