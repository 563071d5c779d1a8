import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { faultText } from '@/core';
import type { Cause } from '@/core';
import { tell } from '@/ui/parts/messages';
import { SafeLink } from '@/ui/parts/SafeLink';
import { fonts, ink } from '@/ui/theme/tokens';
import { ghostAddress } from './ghost';
import type { OpenSession } from './useSession';

interface Props {
  readonly open: OpenSession;
  readonly causes: readonly Cause[];
  /** One of them was it. */
  readonly onFound: () => void;
}

/** What explains the readings, the likeliest first. */
export function Causes({ open, causes, onFound }: Props) {
  return (
    <Box component="ol" aria-label="Possible faults" sx={{ listStyle: 'none', p: 0, m: 0 }}>
      {causes
        .filter((c, i) => i === 0 || c.probability > 0.005)
        .map((cause) => (
          <CauseRow key={cause.text} cause={cause} open={open} onFound={onFound} />
        ))}
    </Box>
  );
}

const percent = (p: number): string => (p > 0.99 ? '>99%' : p < 0.01 ? '<1%' : `${Math.round(100 * p)}%`);

/** Whether it is what was put into a simulated rack. */
function isPutIn({ session }: OpenSession, cause: Cause): boolean | null {
  const put = session.rackIsSimulated?.faults;
  if (!put || put.length === 0) return null;
  const sameKind = (a: object, b: object): boolean => {
    const [x, y] = [a as Record<string, unknown>, b as Record<string, unknown>];
    const named = ['kind', 'cable', 'cables', 'end', 'socket', 'at', 'to', 'module'];
    return named.every((key) => JSON.stringify(x[key]) === JSON.stringify(y[key]));
  };
  return put.every((f) => [...cause.faults, ...cause.alike].some((g) => sameKind(f, g)));
}

interface RowProps {
  readonly cause: Cause;
  readonly open: OpenSession;
  readonly onFound: () => void;
}

function CauseRow({ cause, open, onFound }: RowProps) {
  const { session, patch } = open;
  const found = (): void => {
    const line = `Found: ${cause.text} (after ${session.readings} readings).`;
    const right = isPutIn(open, cause);
    if (right !== false) onFound();
    const mended = session.rackIsSimulated && right ? { simulated: { ...session.rackIsSimulated, faults: [] } } : {};
    void open
      .change({ notes: session.notes ? `${session.notes}\n${line}` : line, ...mended })
      .then(() =>
        tell(
          right === null
            ? 'Added to the notes. Fix it, then take the reading again to confirm.'
            : right
              ? 'Correct: that was the fault. The simulated rack is fixed; take the reading again to confirm.'
              : 'Not this one: the simulated rack still has its fault.',
        ),
      );
  };
  return (
    <Box component="li" data-cause={cause.text} sx={{ borderTop: `1px solid ${ink.line}`, py: 1 }}>
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
        <Box sx={{ flex: 1, fontWeight: 700 }}>{cause.text}</Box>
        <Box sx={{ fontFamily: fonts.numbers }}>{percent(cause.probability)}</Box>
      </Box>
      <Box aria-hidden sx={{ height: 4, background: ink.bound, borderRadius: 1, my: 0.5 }}>
        <Box sx={{ height: 4, width: `${100 * cause.probability}%`, background: ink.trace, borderRadius: 1 }} />
      </Box>
      {cause.alike.length > 0 && (
        <Box sx={{ fontSize: 13, color: ink.softInk }}>
          {`No reading can tell it from: ${cause.alike.map((f) => faultText(patch.modules, f)).join('; ')}.`}
        </Box>
      )}
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mt: 0.5 }}>
        <Button onClick={found}>It was this one</Button>
        {session.patchId !== '' && (
          <Button component={SafeLink} href={ghostAddress(session.patchId, cause)}>
            Show in editor
          </Button>
        )}
      </Box>
    </Box>
  );
}
