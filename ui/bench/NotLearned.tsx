import Box from '@mui/material/Box';
import { channelTitle, UNUSED_CHANNEL } from '@/core';
import type { Calibration, Rack } from '@/core';
import { counted } from '@/ui/parts/counted';
import { SafeLink } from '@/ui/parts/SafeLink';
import { Section } from '@/ui/parts/Section';
import { ink } from '@/ui/theme/tokens';
import { traitName } from './traitNames';

interface Props {
  readonly found: Calibration;
  readonly rack: Rack;
}

/** Readings that do not fit, and what no reading tells. */
export function NotLearned({ found, rack }: Props) {
  const { outliers } = found;
  // What was never played is no news.
  const untold = found.untold.filter((u) => u.why !== UNUSED_CHANNEL);
  return (
    <>
      {outliers.length > 0 && (
        <Section id="bench-outliers" title={`Outliers: ${counted(outliers.length, 'reading')}`} open>
          {outliers.map((o) => (
            <Box key={`${o.session} ${o.reading}`}>
              <Box component={SafeLink} href={`/bench/${o.session}`} sx={{ color: ink.ink }}>
                {`Reading ${o.reading + 1} of its session`}
              </Box>
              {` lies ${o.sigmas.toFixed(1)} sigma off, and hardly counts.`}
            </Box>
          ))}
        </Section>
      )}
      <Section id="bench-untold" title={`Undetermined: ${counted(untold.length, 'parameter')}`}>
        {untold.map((u) => (
          <Box key={`${u.rack} ${u.parameter}`} sx={{ mb: 0.5 }}>
            {`${channelTitle(rack, u.rack)}, ${traitName(rack, u.rack, u.parameter)}`}
            <Box sx={{ fontSize: 13, color: ink.softInk }}>{u.why}</Box>
          </Box>
        ))}
      </Section>
    </>
  );
}
