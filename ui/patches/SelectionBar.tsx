'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { api } from '@/ui/parts/api';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { counted } from '@/ui/parts/counted';
import { downloadBundle } from '@/ui/parts/files';
import { tell, tellFault } from '@/ui/parts/messages';
import { changeAddress } from '@/ui/bench/changeAddress';
import { rackApi } from '@/ui/parts/rackApi';
import { SafeLink } from '@/ui/parts/SafeLink';
import { ink } from '@/ui/theme/tokens';
import type { Document } from '@/wire/patches';
import { RackCheckDialog } from './RackCheckDialog';
import { TagDialog } from './TagDialog';

interface Props {
  /** Ids. */
  readonly chosen: readonly string[];
  readonly offered: readonly string[];
  readonly onChanged: () => Promise<void>;
  readonly onDone: () => void;
}

/** How many documents are read at once. */
const AT_ONCE = 100;

async function documentsOf(ids: readonly string[]): Promise<Document[]> {
  const all: Document[] = [];
  for (let i = 0; i < ids.length; i += AT_ONCE) all.push(...(await api.documents(ids.slice(i, i + AT_ONCE))).documents);
  return all;
}

/** What is done with several patches at once. */
export function SelectionBar({ chosen, offered, onChanged, onDone }: Props) {
  const [open, setOpen] = useState<'tags' | 'check' | null>(null);
  const { id: rack } = useChosenRack();
  const [first, second] = chosen;
  const said = counted(chosen.length, 'patch', 'patches');
  const work = (done: Promise<unknown>): void => void done.then(onChanged).catch(tellFault);
  const addTags = (tags: readonly string[]): void => {
    setOpen(null);
    work(api.several({ ids: chosen, do: 'tag', tags }));
  };
  const exportAll = async (): Promise<void> => {
    const racks = rack === '' ? [] : [(await rackApi.get(rack)).rack];
    await downloadBundle(said, [...(await documentsOf(chosen)), ...racks]);
  };
  const remove = async (): Promise<void> => {
    await api.several({ ids: chosen, do: 'delete' });
    onDone();
    const back = (): void => work(api.several({ ids: chosen, do: 'restore' }));
    tell(`${said} deleted.`, { label: 'Undo', run: back });
  };
  return (
    <Box
      role="region"
      aria-label="Selected patches"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 1,
        py: 1,
        borderBottom: `1px solid ${ink.line}`,
      }}
    >
      <Box sx={{ fontWeight: 700 }}>{`${said} selected`}</Box>
      <Button onClick={() => setOpen('tags')}>Tag</Button>
      {rack !== '' && <Button onClick={() => setOpen('check')}>Check against rack</Button>}
      {first && second && chosen.length === 2 && (
        <Button component={SafeLink} href={changeAddress({ from: first, to: second, rack })}>
          Change sheet
        </Button>
      )}
      <Button onClick={() => void exportAll().catch(tellFault)}>{rack === '' ? 'Export' : 'Export with rack'}</Button>
      <Button onClick={() => work(remove())}>Delete</Button>
      <Button onClick={onDone}>Clear selection</Button>
      {open === 'tags' && <TagDialog said={said} offered={offered} onDone={addTags} onClose={() => setOpen(null)} />}
      {open === 'check' && <RackCheckDialog ids={chosen} onClose={() => setOpen(null)} />}
    </Box>
  );
}
