'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { PatchPicker, useLatestPatch } from '@/ui/parts/PatchPicker';
import { SelectField } from '@/ui/parts/SelectField';
import { benchApi } from './benchApi';
import { faultsFor, surpriseFor } from './surprise';

const RACKS = [
  ['real', 'At my rack'],
  ['simulated', 'Simulated rack, nothing wrong'],
  ['surprise', 'Simulated rack with a hidden fault'],
  ['chosen', 'Simulated rack with a fault I choose'],
] as const;
type RackKind = (typeof RACKS)[number][0];

const randomSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0] ?? 1;

/** Begins a session: of which patch, at which rack, real or simulated. */
export function NewSession({ onClose }: { readonly onClose: () => void }) {
  const router = useRouter();
  const latest = useLatestPatch();
  const { racks, id: chosen } = useChosenRack();
  const [patch, setPatch] = useState('');
  // Until one is taken here: the one in use, which may become known only now.
  const [taken, setTaken] = useState<string | null>(null);
  const rack = taken ?? chosen;
  const [where, setWhere] = useState<RackKind>('real');
  const [busy, setBusy] = useState(false);
  const [fault, setFault] = useState('');
  const of = patch || latest;
  const [put, setPut] = useState('');
  const { data: faults, error: unknown } = useQuery({
    queryKey: ['faults of', of, rack],
    queryFn: () => faultsFor(of, rack),
    enabled: where === 'chosen' && of !== '',
  });
  // What is asked for one answer stays known after another was chosen.
  const said = fault || (where === 'chosen' && unknown?.message);
  const begin = async (): Promise<void> => {
    setBusy(true);
    setFault('');
    try {
      const seed = randomSeed();
      const chosen = (faults ?? []).find((f) => f.text === put) ?? faults?.[0];
      const wrong =
        where === 'surprise' ? [await surpriseFor(of, rack, seed)] : where === 'chosen' && chosen ? [chosen.fault] : [];
      const simulated = where === 'real' ? {} : { simulated: { seed, faults: wrong, surprise: where === 'surprise' } };
      const { id } = await benchApi.open({ patch: of, rack, ...simulated });
      router.push(`/bench/${id}`);
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
      setBusy(false);
    }
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="new-session-title" maxWidth="xs" fullWidth>
      <DialogTitle id="new-session-title">New session</DialogTitle>
      <DialogContent sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr)', gap: 1.5 }}>
        <PatchPicker label="Patch" value={of} onChange={setPatch} />
        <SelectField
          label="Rack"
          value={rack}
          options={[['', 'No rack'] as const, ...racks.map((r) => [r.id, r.name] as const)]}
          onChange={setTaken}
        />
        <SelectField label="Where" value={where} options={RACKS} onChange={setWhere} />
        {where === 'chosen' && (
          <SelectField
            label="Fault"
            value={put || (faults?.[0]?.text ?? '')}
            options={(faults ?? []).map((f) => [f.text, f.text] as const)}
            onChange={setPut}
          />
        )}
        {where !== 'real' && (
          <Alert severity="info">
            A simulated rack answers in place of your meter. Its modules are a little off, as real ones are.
          </Alert>
        )}
        {said && <Alert severity="error">{said}</Alert>}
        {where === 'chosen' && faults?.length === 0 && (
          <Alert severity="info">There is no fault to simulate in this patch.</Alert>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          color="primary"
          disabled={busy || of === '' || (where === 'chosen' && !faults?.length)}
          onClick={() => void begin()}
        >
          Start
        </Button>
      </DialogActions>
    </Dialog>
  );
}
