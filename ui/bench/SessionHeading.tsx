import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { counted } from '@/ui/parts/counted';
import { dateTime } from '@/ui/parts/dates';
import { SafeLink } from '@/ui/parts/SafeLink';
import { fonts, ink } from '@/ui/theme/tokens';
import { SimulatedMark } from './SimulatedMark';
import type { OpenSession } from './useSession';
import { benchApi } from './benchApi';

/** Which standing this is, and where its patch is. */
export function SessionHeading({ open }: { readonly open: OpenSession }) {
  const { session: s } = open;
  const ticked = Object.values(s.ticks).filter((t) => t.done).length;
  const wrong = s.wrong > 0 ? `, ${s.wrong} wrong` : '';
  return (
    <Box component="header" sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1, mt: 1.5 }}>
      <Box sx={{ minWidth: 0 }}>
        <Box component="h1" sx={{ fontSize: 20, m: 0, overflowWrap: 'anywhere' }}>
          {s.patch}
          {s.simulated && <SimulatedMark />}
        </Box>
        <Box sx={{ color: ink.softInk }}>
          <Box component="span" sx={{ fontFamily: fonts.numbers, fontSize: 13 }}>
            {dateTime(s.started)}
          </Box>
          {`${s.ended === null ? ', open' : ''} · ${s.rack || 'No rack'} · ${counted(s.readings, 'reading')}${wrong}`}
          {s.steps > 0 && ` · ${ticked} of ${s.steps} steps ticked`}
        </Box>
      </Box>
      <Box sx={{ flex: 1 }} />
      {s.patchId !== '' && (
        <>
          <Button component={SafeLink} href={`/patches/${s.patchId}`}>
            Editor
          </Button>
          <Button component={SafeLink} href={`/patches/${s.patchId}/sheet`}>
            Patch sheet
          </Button>
        </>
      )}
      <Button component="a" href={benchApi.logAt('zip', [s.id])} download="bench-session.zip">
        Export
      </Button>
      <Button onClick={() => void open.change({ ended: s.ended === null })}>
        {s.ended === null ? 'End session' : 'Reopen'}
      </Button>
    </Box>
  );
}
