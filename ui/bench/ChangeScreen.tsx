'use client';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { counted } from '@/ui/parts/counted';
import { ChangeSteps } from './ChangeSteps';
import { PaperPage } from './PaperPage';
import { setApi } from './setApi';

/** From one patch to another on the same rack: the fewest cables and knobs, in an order in which sound never jumps. */
export function ChangeScreen() {
  const query = useSearchParams().toString();
  const { data, error } = useQuery({ queryKey: ['change', query], queryFn: () => setApi.change(query), staleTime: 0 });
  const cables = (data?.steps ?? []).filter((s) => ['plug', 'unplug'].includes(s.do)).length;
  return (
    <PaperPage
      title={data ? `${data.from} → ${data.to}` : null}
      says={`${counted(cables, 'cable')} · ${data?.rack ?? 'No rack'}`}
      waiting="Preparing the change sheet"
      error={error}
    >
      {data && (data.steps.length === 0 ? <p>Nothing changes at the rack.</p> : <ChangeSteps steps={data.steps} />)}
    </PaperPage>
  );
}
