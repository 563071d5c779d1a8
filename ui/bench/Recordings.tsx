'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { buildGraph, placeName } from '@/core';
import { voltsToWav } from '@/core/formats/wavFile';
import { DropZone } from '@/ui/parts/DropZone';
import { tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { benchJob } from '@/ui/parts/workerJob';
import type { BenchFile } from '@/wire/bench';
import { benchApi } from './benchApi';
import { OverlayView } from './OverlayView';
import { readRecording } from './readRecording';
import type { OpenSession } from './useSession';

/** How long a simulated rack is recorded, seconds. */
const RECORDED_SECONDS = 6;

/** Outputs of a patch that something is plugged into, then the others. */
function outputsOf({ patch }: OpenSession): string[] {
  const graph = buildGraph(patch);
  const used = new Set(graph.wiring.cables.map((c) => c.from));
  const all = graph.modules.flatMap((m) => m.outputs.map((o) => o.socket));
  return [...all.filter((s) => used.has(s)), ...all.filter((s) => !used.has(s))];
}

/** Recordings of sockets, laid over what was predicted there. */
export function Recordings({ open }: { readonly open: OpenSession }) {
  const { session, patch } = open;
  const [sockets] = useState(() => outputsOf(open));
  const [at, setAt] = useState(sockets[0] ?? '');
  const [shown, setShown] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const files = session.attached.filter((f) => f.type === 'audio/wav' && f.deletedAt === null);
  const keep = async (name: string, volts: Float32Array, sampleRate: number): Promise<void> => {
    const wav = new Blob([voltsToWav(volts, sampleRate) as Uint8Array<ArrayBuffer>], { type: 'audio/wav' });
    const { id } = await benchApi.addFile(session.id, { name, kind: 'recording', type: 'audio/wav', at }, wav);
    await open.refresh();
    setShown(id);
  };
  const during = (work: Promise<void>): void => {
    setBusy(true);
    void work.catch(tellFault).finally(() => setBusy(false));
  };
  const bringIn = async (file: File): Promise<void> => {
    const { columns, sampleRate } = await readRecording(file);
    const [column] = columns;
    if (column) await keep(file.name, column.values, sampleRate);
  };
  const simulated = async (): Promise<void> => {
    const { rackIsSimulated: rack } = session;
    const found = rack && (await benchJob((w) => w.record(open.at, rack, at, RECORDED_SECONDS)).done);
    if (found) await keep(`${placeName(patch.modules, at)}, simulated`, found.volts, found.sampleRate);
  };
  const chosen = files.find((f) => f.id === shown) ?? files.at(-1);
  return (
    <Box sx={{ pt: 1.5 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, mb: 1 }}>
        <SelectField
          label="Recorded at"
          value={at}
          options={sockets.map((s) => [s, placeName(patch.modules, s)] as const)}
          onChange={setAt}
          sx={{ width: { xs: '100%', sm: 240 } }}
        />
        {session.rackIsSimulated && (
          <Button color="primary" disabled={busy} onClick={() => during(simulated())}>
            {`Record ${RECORDED_SECONDS} s`}
          </Button>
        )}
      </Box>
      <DropZone
        says="A WAV file or a CSV table of this socket"
        endings={['.wav', '.csv', '.txt']}
        onFile={(file) => during(bringIn(file))}
      />
      {files.length > 1 && (
        <SelectField
          label="Recording"
          value={chosen?.id ?? ''}
          options={files.map((f) => [f.id, titleOf(open, f)] as const)}
          onChange={setShown}
          sx={{ width: '100%', mb: 1 }}
        />
      )}
      {chosen && <OverlayView key={chosen.id} open={open} file={chosen} title={titleOf(open, chosen)} />}
    </Box>
  );
}

const titleOf = ({ patch }: OpenSession, f: BenchFile): string =>
  f.at === null ? f.name : `${placeName(patch.modules, f.at)}: ${f.name}`;
