'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import InputAdornment from '@mui/material/InputAdornment';
import { blankRack, LIMITS, printRack } from '@/core';
import type { Rack } from '@/core';
import { EditableName } from '@/ui/parts/EditableName';
import { downloadRack } from '@/ui/parts/files';
import { PatchPicker } from '@/ui/parts/PatchPicker';
import { SiteHead } from '@/ui/parts/SiteHead';
import { SelectField } from '@/ui/parts/SelectField';
import { TextInput } from '@/ui/parts/TextInput';
import { RedoIcon, SearchIcon, UndoIcon } from '@/ui/parts/icons';
import { ink } from '@/ui/theme/tokens';
import type { ListedRack } from '@/wire/racks';
import { RackImport } from './RackImport';
import type { Saving, useRack } from './useRack';

interface Props {
  readonly racks: readonly ListedRack[];
  readonly id: string;
  readonly choose: (id: string) => void;
  readonly create: (rack: Rack) => void;
  readonly remove: (id: string, name: string) => void;
  readonly open: ReturnType<typeof useRack>;
  readonly words: string;
  readonly onWords: (words: string) => void;
  readonly forPatch: string;
  readonly onForPatch: (id: string) => void;
  readonly onAdd: () => void;
}

const SAYS: Readonly<Record<Saving, string>> = {
  saved: 'Saved',
  saving: 'Saving …',
  waiting: 'Offline: changes kept in this browser.',
  conflict: 'Edited elsewhere. Your version is kept here.',
};

/** Which rack, whether it is saved, and what is done with it. */
export function RackHead(props: Props) {
  const { racks, id, choose, create, remove, open } = props;
  const { rack } = open;
  return (
    <>
      <Box sx={{ mx: -2 }}>
        <SiteHead here="/racks">
          <Button aria-label="New rack" onClick={() => create(blankRack)}>
            New
            <Box component="span" sx={{ display: { xs: 'none', sm: 'inline' } }}>
              &nbsp;rack
            </Box>
          </Button>
          <RackImport onImported={create} />
        </SiteHead>
      </Box>
      <Box component="section" aria-label="Rack" sx={{ py: 1.5, borderBottom: `1px solid ${ink.line}` }}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5 }}>
          <Box component="h1" sx={{ fontSize: 18, m: 0 }}>
            Racks
          </Box>
          {racks.length > 0 && (
            <SelectField
              label="Rack"
              value={id}
              options={racks.map((r) => [r.id, `${r.name}, ${r.channels} channels`] as const)}
              onChange={choose}
              sx={{ minWidth: 200, maxWidth: 320 }}
            />
          )}
          <Box sx={{ flex: 1 }} />
          {rack && (
            <>
              <Button onClick={() => downloadRack(rack.name, printRack(rack))}>Export</Button>
              <Button onClick={() => create({ ...rack, name: `${rack.name} (copy)`.slice(0, LIMITS.name) })}>
                Duplicate
              </Button>
              <Button onClick={() => remove(id, rack.name)}>Delete</Button>
            </>
          )}
        </Box>
        {rack && <RackLine {...props} rack={rack} />}
        {open.saving === 'conflict' && (
          <Alert
            severity="warning"
            sx={{ mt: 1 }}
            action={
              <>
                <Button onClick={open.takeTheirs}>Use the saved version</Button>
                <Button onClick={() => rack && create({ ...rack, name: `${rack.name} (mine)` })}>
                  Save mine as a copy
                </Button>
              </>
            }
          >
            {SAYS.conflict}
          </Alert>
        )}
      </Box>
    </>
  );
}

/** The open rack: its name, what is looked for in it, and for which patch. */
function RackLine({ rack, open, words, onWords, forPatch, onForPatch, onAdd }: Props & { readonly rack: Rack }) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', alignItems: 'center', gap: 1.5, mt: 1.5 }}>
      <EditableName
        label="Name of the rack"
        value={rack.name}
        longest={LIMITS.name}
        size={17}
        onRename={(name) => open.edit({ ...rack, name })}
      />
      <Box component="span" role="status" data-saving={open.saving} sx={{ fontSize: 13, color: ink.softInk }}>
        {SAYS[open.saving]}
      </Box>
      <IconButton aria-label="Undo" disabled={!open.undo} onClick={() => open.undo?.()}>
        <UndoIcon sx={{ fontSize: 18 }} />
      </IconButton>
      <IconButton aria-label="Redo" disabled={!open.redo} onClick={() => open.redo?.()}>
        <RedoIcon sx={{ fontSize: 18 }} />
      </IconButton>
      <Box sx={{ flex: 1 }} />
      <PatchPicker label="In use by" value={forPatch} none="Usage: all patches" onChange={onForPatch} width={230} />
      <TextInput
        type="search"
        label="Search modules"
        placeholder="Search"
        value={words}
        onChange={onWords}
        startAdornment={
          <InputAdornment position="start">
            <SearchIcon sx={{ fontSize: 18 }} />
          </InputAdornment>
        }
        sx={{ width: 180 }}
      />
      <Button color="primary" onClick={onAdd}>
        Add module
      </Button>
    </Box>
  );
}
