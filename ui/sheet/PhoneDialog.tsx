'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import dayjs from 'dayjs';
import qrcode from 'qrcode-generator';
import { useMemo, useState } from 'react';
import { tellFault } from '@/ui/parts/messages';
import { rackApi } from '@/ui/parts/rackApi';
import { fonts, ink } from '@/ui/theme/tokens';
import type { PairedPhone, PairingCode } from '@/wire/racks';

interface Props {
  readonly patch: string;
  readonly rack: string;
  readonly onClose: () => void;
}

/** How often paired phones are asked for, milliseconds. */
const LOOK = 3000;

/** This sheet on a phone of the local network: a code for it, and the phones that have one. */
export function PhoneDialog({ patch, rack, onClose }: Props) {
  const queries = useQueryClient();
  const { data } = useQuery({ queryKey: ['pairings'], queryFn: () => rackApi.pairings(), refetchInterval: LOOK });
  const [code, setCode] = useState<PairingCode | null>(null);
  const pair = (): void => void rackApi.pair(patch, rack).then(setCode).catch(tellFault);
  const end = (id: string): void =>
    void rackApi
      .endPairing(id)
      .then(() => queries.invalidateQueries({ queryKey: ['pairings'] }))
      .catch(tellFault);
  return (
    <Dialog open onClose={onClose} aria-labelledby="phone-title" maxWidth="xs" fullWidth>
      <DialogTitle id="phone-title">This sheet on a phone</DialogTitle>
      <DialogContent>
        {data?.address === null && (
          <Alert severity="info">
            Fenvo is only reachable on this computer. Start it with <code>npm run demo -- --lan</code> to allow paired
            phones on your network, or export a phone page instead.
          </Alert>
        )}
        {typeof data?.address === 'string' && !code && (
          <>
            <p>
              A paired phone sees this sheet only, and can send ticks and readings. The code works once and expires in
              ten minutes.
            </p>
            <Button color="primary" onClick={pair}>
              Show pairing code
            </Button>
          </>
        )}
        {code && <Code {...code} />}
        {(data?.phones ?? []).map((p) => (
          <Phone key={p.id} phone={p} onEnd={() => end(p.id)} />
        ))}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Close</Button>
      </DialogActions>
    </Dialog>
  );
}

/** The dark squares of a QR code, as one path. */
function squares(text: string): { readonly size: number; readonly path: string } {
  const code = qrcode(0, 'M');
  code.addData(text);
  code.make();
  const size = code.getModuleCount();
  const cells = Array.from({ length: size * size }, (_, i) => [i % size, Math.floor(i / size)] as const);
  const path = cells.flatMap(([x, y]) => (code.isDark(y, x) ? [`M${x} ${y}h1v1h-1z`] : [])).join('');
  return { size, path };
}

function Code({ url, code, until }: PairingCode) {
  const { size, path } = useMemo(() => squares(url), [url]);
  return (
    <Box data-pairing={url} sx={{ textAlign: 'center' }}>
      <svg
        role="img"
        aria-label="QR code of the address"
        width={220}
        height={220}
        viewBox={`-3 -3 ${size + 6} ${size + 6}`}
      >
        <rect x={-3} y={-3} width={size + 6} height={size + 6} fill="#FFFFFF" />
        <path d={path} fill="#000000" />
      </svg>
      <Box sx={{ fontFamily: fonts.numbers, overflowWrap: 'anywhere' }}>{url}</Box>
      <Box sx={{ fontSize: 13, color: ink.softInk }}>{`Code ${code}, expires ${dayjs(until).format('HH:mm')}`}</Box>
    </Box>
  );
}

function Phone({ phone, onEnd }: { readonly phone: PairedPhone; readonly onEnd: () => void }) {
  return (
    <Box
      data-phone={phone.id}
      sx={{ display: 'flex', alignItems: 'center', gap: 1, borderTop: `1px solid ${ink.line}`, py: 0.75, mt: 1 }}
    >
      <Box sx={{ flex: 1, minWidth: 0, fontSize: 13, overflowWrap: 'anywhere' }}>
        {`paired ${dayjs(phone.since).format('HH:mm')}: ${phone.agent}`}
      </Box>
      <Button onClick={onEnd}>Unpair</Button>
    </Box>
  );
}
