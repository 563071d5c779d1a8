'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useRef, useState } from 'react';
import { LIMITS, parsePatch, printPatch } from '@/core';
import type { Result } from '@/core';
import type { Bundle } from '@/core/formats/bundle';
import { api } from '@/ui/parts/api';
import type { Document } from '@/wire/patches';
import { importJob } from '@/ui/parts/importJob';

interface Faults {
  readonly file: string;
  readonly lines: readonly string[];
}

/** How many faults are told at once. */
const MOST = 20;

/** Stores what a bundle plays; what is there already is not stored twice. */
async function readBundle(file: File): Promise<{ json: unknown } | { fault: string }> {
  const bundle = await importJob<Result<Bundle, string>>(async (worker) => worker.unpack(file)).done;
  if (!bundle.ok) return { fault: bundle.errors };
  for (const { name, sampleRate, volts } of bundle.value.recordings) await api.putAsset(name, sampleRate, volts);
  return { json: bundle.value.document };
}

async function readFile(file: File): Promise<{ document: Document } | { faults: Faults }> {
  const faults = (...lines: string[]) => ({ faults: { file: file.name, lines } });
  if (/\.zip$/i.test(file.name)) {
    try {
      const read = await readBundle(file);
      if ('fault' in read) return faults(read.fault);
      const result = parsePatch(read.json);
      if (result.ok) return { document: printPatch(result.value) };
      return faults(...result.errors.map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`));
    } catch (error) {
      return faults(error instanceof Error ? error.message : String(error));
    }
  }
  if (file.size > LIMITS.bytes) return faults(`The file is larger than ${LIMITS.bytes} bytes.`);
  let json: unknown;
  try {
    json = JSON.parse(await file.text());
  } catch (error) {
    return faults(`It is not JSON: ${error instanceof Error ? error.message : String(error)}`);
  }
  const result = parsePatch(json);
  if (result.ok) return { document: printPatch(result.value) };
  return faults(...result.errors.map((e) => `${e.path ? `${e.path}: ` : ''}${e.message}`));
}

export function ImportButton({ onImported }: { onImported: (document: Document) => void }) {
  const input = useRef<HTMLInputElement>(null);
  const [faults, setFaults] = useState<Faults | null>(null);
  const read = async (file: File): Promise<void> => {
    const result = await readFile(file);
    if ('document' in result) onImported(result.document);
    else setFaults(result.faults);
  };
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".json,.zip,application/json,application/zip"
        aria-label="Patch file"
        hidden
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) void read(file);
        }}
      />
      <Button onClick={() => input.current?.click()}>Import</Button>
      <Dialog open={faults !== null} onClose={() => setFaults(null)} aria-labelledby="import-title">
        <DialogTitle id="import-title">{`${faults?.file ?? ''} was not imported`}</DialogTitle>
        <DialogContent>
          <p>Nothing was changed. Mend these places in the file, then import it again:</p>
          <ul data-testid="import-faults">
            {faults?.lines.slice(0, MOST).map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          {faults && faults.lines.length > MOST && <p>{`and ${faults.lines.length - MOST} more`}</p>}
        </DialogContent>
        <DialogActions>
          <Button onClick={() => setFaults(null)}>Close</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
