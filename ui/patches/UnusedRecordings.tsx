'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { api } from '@/ui/parts/api';
import { tell, tellFault } from '@/ui/parts/messages';

const MEGABYTE = 1e6;
/** How many are named; the rest are counted. */
const NAMED = 3;

const counted = (n: number): string => `${n} recording${n === 1 ? '' : 's'}`;

/** Recordings that no patch plays any more, with the group that they take; removed when asked for. */
export function UnusedRecordings() {
  const { data, refetch } = useQuery({ queryKey: ['unused'], queryFn: api.unusedAssets, staleTime: 0 });
  const unused = data?.unused ?? [];
  if (unused.length === 0) return null;
  const size = unused.reduce((sum, a) => sum + a.bytes, 0) / MEGABYTE;
  const names = unused.slice(0, NAMED).map((a) => a.name);
  const more = unused.length > NAMED ? ` and ${unused.length - NAMED} more` : '';
  const remove = async (): Promise<void> => {
    try {
      const { removed } = await api.removeAssets(unused.map((a) => a.id));
      tell(`${counted(removed)} removed.`);
      await refetch();
    } catch (fault) {
      tellFault(fault);
    }
  };
  return (
    <Alert
      severity="info"
      sx={{ mt: 2 }}
      action={
        <Button onClick={() => void remove()} sx={{ whiteSpace: 'nowrap' }}>
          Remove
        </Button>
      }
    >
      {`No patch uses ${counted(unused.length)} (${size.toFixed(1)} MB): ${names.join(', ')}${more}.`}
    </Alert>
  );
}
