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
import type { ListedPatch } from '@/wire/patches';
import { TagDialog } from './TagDialog';

interface Props {
  readonly chosen: readonly ListedPatch[];
  readonly offered: readonly string[];
  readonly onChanged: () => Promise<void>;
  readonly onDone: () => void;
}

/** What is done with several patches at once. */
export function SelectionBar({ chosen, offered, onChanged, onDone }: Props) {
  const [tagging, setTagging] = useState(false);
  const { id: rack } = useChosenRack();
  const [first, second] = chosen;
  const said = counted(chosen.length, 'patch', 'patches');
  const work = (done: Promise<unknown>): void => void done.then(onChanged).catch(tellFault);
  const addTags = (tags: readonly string[]): void => {
    setTagging(false);
    work(Promise.all(chosen.map((p) => api.setTags(p.id, [...new Set([...p.tags, ...tags])].slice(0, 20)))));
  };
  const exportAll = async (): Promise<void> => {
    const all = await Promise.all(chosen.map((p) => api.get(p.id)));
    const racks = rack === '' ? [] : [(await rackApi.get(rack)).rack];
    await downloadBundle(said, [...all.map((p) => p.patch), ...racks]);
  };
  const remove = async (): Promise<void> => {
    await Promise.all(chosen.map((p) => api.remove(p.id)));
    onDone();
    const back = (): void => work(Promise.all(chosen.map((p) => api.restore(p.id))));
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
      <Button onClick={() => setTagging(true)}>Tag</Button>
      {first && second && chosen.length === 2 && (
        <Button component={SafeLink} href={changeAddress({ from: first.id, to: second.id, rack })}>
          Change sheet
        </Button>
      )}
      <Button onClick={() => void exportAll().catch(tellFault)}>{rack === '' ? 'Export' : 'Export with rack'}</Button>
      <Button onClick={() => work(remove())}>Delete</Button>
      <Button onClick={onDone}>Clear selection</Button>
      {tagging && <TagDialog said={said} offered={offered} onDone={addTags} onClose={() => setTagging(false)} />}
    </Box>
  );
}
