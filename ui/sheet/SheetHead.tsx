'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useState } from 'react';
import type { Sheet } from '@/core';
import { useRackDocument } from '@/ui/parts/chosenRack';
import { later } from '@/ui/parts/later';
import { MeasuredSwitch } from '@/ui/parts/MeasuredSwitch';
import { rackApi } from '@/ui/parts/rackApi';
import { SafeLink } from '@/ui/parts/SafeLink';
import { SchemeButton } from '@/ui/parts/SchemeButton';
import { SelectField } from '@/ui/parts/SelectField';
import { fonts, ink } from '@/ui/theme/tokens';
import type { ListedRack } from '@/wire/racks';
import { useAwake } from './useAwake';

import type { Ticking } from './useTicks';

const PhoneDialog = later(() => import('./PhoneDialog').then((m) => m.PhoneDialog));
const BringTicks = later(() => import('./BringTicks').then((m) => m.BringTicks));

interface Props {
  readonly id: string;
  readonly sheet: Sheet | null;
  readonly racks: readonly ListedRack[];
  readonly rack: string;
  readonly choose: (id: string) => void;
  readonly ticking: Ticking;
  readonly single: boolean;
  readonly onSingle: (single: boolean) => void;
}

/** The forms that a sheet can be taken away in. */
const FILES = [
  ['', 'Export…'],
  ['pdf A4', 'PDF, A4'],
  ['pdf LETTER', 'PDF, letter'],
  ['html', 'Phone page (HTML)'],
  ['md', 'Markdown'],
  ['csv', 'CSV table'],
  ['json', 'JSON'],
  ['svg', 'Patch diagram (SVG)'],
] as const;

const big = { minHeight: { xs: 44, md: 32 } } as const;

/** Where one is, on which rack, how far it is, and how it is looked at. */
export function SheetHead({ id, sheet, racks, rack, choose, ticking, single, onSingle }: Props) {
  const [awake, setAwake] = useAwake();
  const done = (sheet?.steps ?? []).filter((s) => ticking.ticks[s.id]?.done).length;
  return (
    <Box
      component="header"
      sx={{
        py: 1.5,
        borderBottom: `1px solid ${ink.line}`,
        position: { md: 'sticky' },
        top: 0,
        background: ink.paper,
        zIndex: 1,
        '@media print': { position: 'static' },
      }}
    >
      <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5 }}>
        <Box data-no-print sx={{ display: 'flex', gap: 1.5, color: ink.softInk }}>
          <Box component={SafeLink} href="/" sx={{ color: 'inherit' }}>
            Patches
          </Box>
          <span>/</span>
          <Box component={SafeLink} href={`/patches/${id}`} sx={{ color: 'inherit' }}>
            Editor
          </Box>
          <span>/</span>
        </Box>
        <Box component="h1" sx={{ fontSize: 18, m: 0 }}>
          {sheet ? `${sheet.patch}: patch sheet` : 'Patch sheet'}
        </Box>
        <Box sx={{ flex: 1 }} />
        <SchemeButton />
      </Box>
      <Box
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          alignItems: 'center',
          gap: 1,
          mt: 1,
          '@media print': { display: 'none' },
        }}
      >
        <SelectField
          label="Rack"
          value={rack}
          options={[['', 'No rack'] as const, ...racks.map((r) => [r.id, r.name] as const)]}
          onChange={choose}
          sx={{ minWidth: 150, ...big }}
        />
        <MeasuredSwitch rack={useRackDocument(rack).rack} />
        <Button aria-pressed={single} onClick={() => onSingle(!single)} sx={big}>
          {single ? 'All steps' : 'One step at a time'}
        </Button>
        <Button aria-pressed={awake} onClick={() => setAwake(!awake)} sx={big}>
          {awake ? 'Screen stays on' : 'Keep the screen on'}
        </Button>
        <Button onClick={() => window.print()} sx={{ ...big, display: { xs: 'none', md: 'inline-flex' } }}>
          Print
        </Button>
        <ToPhone patch={id} rack={rack} />
        <TakeAway id={id} rack={rack} name={sheet?.patch ?? 'sheet'} />
        {sheet && <BringBack sheet={sheet} ticking={ticking} />}
        {ticking.session !== null && (
          <Button component={SafeLink} href={`/bench/${ticking.session}`} sx={big}>
            Session
          </Button>
        )}
        {Object.keys(ticking.ticks).length > 0 && <Anew ticking={ticking} />}
        <Box sx={{ flex: 1 }} />
        <Box component="span" role="status" data-done={done}>
          <Box component="span" sx={{ fontFamily: fonts.numbers }}>{`${done} of ${sheet?.steps.length ?? 0}`}</Box>
          {ticking.sent ? '' : ', offline: kept here for now'}
        </Box>
      </Box>
    </Box>
  );
}

/** The sheet on a phone of the local network; fetched when it is asked for. */
function ToPhone({ patch, rack }: { readonly patch: string; readonly rack: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)} sx={{ ...big, display: { xs: 'none', md: 'inline-flex' } }}>
        Open on phone
      </Button>
      {open && <PhoneDialog patch={patch} rack={rack} onClose={() => setOpen(false)} />}
    </>
  );
}

/** Ends this standing at the rack, and clears the sheet for the next; what was read stays in its session. */
function Anew({ ticking }: { readonly ticking: Ticking }) {
  const [asks, setAsks] = useState(false);
  return (
    <>
      <Button onClick={() => setAsks(true)} sx={big}>
        Start over
      </Button>
      <Dialog open={asks} onClose={() => setAsks(false)} aria-labelledby="anew-title" maxWidth="xs">
        <DialogTitle id="anew-title">Start this sheet over?</DialogTitle>
        <DialogContent>All ticks are cleared and the session ends. Its readings stay in Bench.</DialogContent>
        <DialogActions>
          <Button onClick={() => setAsks(false)}>Cancel</Button>
          <Button
            color="primary"
            onClick={() => {
              ticking.begin();
              setAsks(false);
            }}
          >
            Start over
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}

/** Ticks of the one file, back again. */
function BringBack({ sheet, ticking }: { readonly sheet: Sheet; readonly ticking: Ticking }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)} sx={big}>
        Import ticks
      </Button>
      {open && <BringTicks sheet={sheet} onTicks={ticking.bring} onClose={() => setOpen(false)} />}
    </>
  );
}

/** The sheet as a file: chosen, then saved. */
function TakeAway({ id, rack, name }: { readonly id: string; readonly rack: string; readonly name: string }) {
  const [file, setFile] = useState<(typeof FILES)[number][0]>('');
  const [format = '', size = 'A4'] = file.split(' ');
  return (
    <>
      <SelectField
        label="Export the patch sheet"
        value={file}
        options={FILES}
        onChange={setFile}
        sx={{ minWidth: 150, ...big }}
      />
      {file !== '' && (
        <Button
          component="a"
          color="primary"
          href={rackApi.sheetFile(id, rack, { format, size })}
          download={`${name}, sheet.${format}`}
          sx={big}
        >
          Save
        </Button>
      )}
    </>
  );
}
