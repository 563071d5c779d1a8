'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import { useState } from 'react';
import { dateTime } from '@/ui/parts/dates';
import { tell, tellFault } from '@/ui/parts/messages';
import { useOneFile } from '@/ui/parts/useOneFile';
import { ink } from '@/ui/theme/tokens';
import type { BenchFile } from '@/wire/bench';
import { benchApi } from './benchApi';
import { upright } from './upright';
import type { OpenSession } from './useSession';

/** Pictures of the rack as it stood; on a phone, taken there and then. */
export function Photographs({ open }: { readonly open: OpenSession }) {
  const [large, setLarge] = useState<BenchFile | null>(null);
  const [busy, setBusy] = useState(false);
  const add = (file: File): void => {
    setBusy(true);
    upright(file)
      .then((picture) => {
        const request = { name: file.name || 'Photo', kind: 'photograph', type: 'image/jpeg', at: undefined } as const;
        return benchApi.addFile(open.session.id, request, picture);
      })
      .then(open.refresh)
      .catch(tellFault)
      .finally(() => setBusy(false));
  };
  const { getInputProps, getRootProps, open: choose } = useOneFile(add);
  const shown = open.session.attached.filter((f) => isPhotograph(f) && f.deletedAt === null);
  return (
    <Box {...getRootProps()} sx={{ pt: 1.5 }}>
      <input
        {...getInputProps({ style: undefined })}
        hidden
        accept="image/*"
        capture="environment"
        aria-label="A photo"
      />
      <Button color="primary" disabled={busy} onClick={choose} sx={{ minHeight: { xs: 44, md: 32 } }}>
        {busy ? 'Adding…' : 'Add photo'}
      </Button>
      {shown.length === 0 && <p>No photos yet. A photo of the panel shows how the knobs were set.</p>}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(140px, 1fr))', gap: 1, mt: 1.5 }}>
        {shown.map((f) => (
          <Thumb key={f.id} file={f} open={open} onLarge={() => setLarge(f)} />
        ))}
      </Box>
      {large && (
        <Dialog open onClose={() => setLarge(null)} maxWidth="lg">
          <Box component="img" src={benchApi.fileAt(large.id)} alt={large.name} sx={{ maxWidth: '100%' }} />
        </Dialog>
      )}
    </Box>
  );
}

const isPhotograph = (f: BenchFile): boolean => f.type.startsWith('image/');

interface ThumbProps {
  readonly file: BenchFile;
  readonly open: OpenSession;
  readonly onLarge: () => void;
}

function Thumb({ file, open, onLarge }: ThumbProps) {
  const remove = (): void =>
    void benchApi
      .removeFile(file.id)
      .then(open.refresh)
      .then(() =>
        tell('Photo deleted.', {
          label: 'Undo',
          run: () => void benchApi.restoreFile(file.id).then(open.refresh).catch(tellFault),
        }),
      )
      .catch(tellFault);
  return (
    <Box data-photograph={file.id} sx={{ border: `1px solid ${ink.line}`, borderRadius: 1, overflow: 'hidden' }}>
      <Button
        onClick={onLarge}
        aria-label={`Show ${file.name}`}
        sx={{ p: 0, border: 0, width: '100%', borderRadius: 0 }}
      >
        <Box
          component="img"
          src={benchApi.fileAt(file.id)}
          alt=""
          loading="lazy"
          sx={{ width: '100%', aspectRatio: '4 / 3', objectFit: 'cover', display: 'block' }}
        />
      </Button>
      <Box sx={{ display: 'flex', alignItems: 'center', p: 0.5, fontSize: 12 }}>
        <Box sx={{ flex: 1, color: ink.softInk }}>{dateTime(file.added)}</Box>
        <Button onClick={remove}>Delete</Button>
      </Box>
    </Box>
  );
}
