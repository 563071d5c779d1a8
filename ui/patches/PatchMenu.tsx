'use client';
import IconButton from '@mui/material/IconButton';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { LIMITS, parsePatch } from '@/core';
import type { Patch } from '@/core';
import { ActionMenu } from '@/ui/parts/ActionMenu';
import { api } from '@/ui/parts/api';
import { downloadBundle, downloadGraph, downloadPatch, downloadTables } from '@/ui/parts/files';
import { MoreIcon } from '@/ui/parts/icons';
import { tellFault } from '@/ui/parts/messages';
import type { Document, ListedPatch } from '@/wire/patches';
import { RenameDialog } from './RenameDialog';

interface Props {
  /** Whether the Tab key stops at it: 0 or −1. */
  readonly stop: number;
  readonly patch: ListedPatch;
  readonly onChanged: () => Promise<void>;
  readonly onRemove: () => void;
}

async function duplicate(patch: ListedPatch): Promise<void> {
  const { patch: document, tags, revision } = await api.get(patch.id);
  await api.keepVersion(patch.id, revision, 'started');
  await api.create({ ...document, name: `${patch.name} (copy)`.slice(0, LIMITS.name) }, tags);
}

/** @throws Error with the first fault's place. */
function patchIn(document: Document): Patch {
  const read = parsePatch(document);
  if (read.ok) return read.value;
  throw new Error(`${read.errors[0]?.path ?? ''}: ${read.errors[0]?.message ?? ''}`);
}

async function rename(id: string, name: string): Promise<void> {
  const { patch: document, revision } = await api.get(id);
  await api.save(id, revision, { ...document, name });
}

/** What is done with one patch of the patches list. */
export function PatchMenu({ patch, stop, onChanged, onRemove }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [renaming, setRenaming] = useState(false);
  const router = useRouter();
  const done = (work: Promise<void>): void => void work.then(onChanged).catch(tellFault);
  const exported = (download: (name: string, document: Document) => void | Promise<void>): void =>
    void api
      .get(patch.id)
      .then((p) => download(patch.name, p.patch))
      .catch(tellFault);
  const exportedAs = (download: typeof downloadGraph): void => exported((_, document) => download(patchIn(document)));
  const items: readonly (readonly [string, () => void])[] = [
    ['Patch sheet', () => router.push(`/patches/${patch.id}/sheet`)],
    ['Practise this patch', () => router.push(`/practice/patch/${patch.id}`)],
    ['Rename', () => setRenaming(true)],
    ['Duplicate', () => done(duplicate(patch))],
    ['Export', () => exported(downloadPatch)],
    ['Export with recordings', () => exported((name, document) => downloadBundle(name, [document]))],
    ['Export as a graph (DOT)', () => exportedAs(downloadGraph)],
    ['Export as tables (CSV)', () => exportedAs(downloadTables)],
    ['Delete', onRemove],
  ];
  return (
    <>
      <IconButton
        aria-label={`Actions for ${patch.name}`}
        aria-haspopup="menu"
        tabIndex={stop}
        onClick={(e) => setAnchor(e.currentTarget)}
        sx={{ position: 'relative', zIndex: 1 }}
      >
        <MoreIcon fontSize="small" />
      </IconButton>
      <ActionMenu anchor={anchor} open={anchor !== null} onClose={() => setAnchor(null)} entries={items} />
      {renaming && (
        <RenameDialog
          name={patch.name}
          onClose={() => setRenaming(false)}
          onRename={(name) => {
            setRenaming(false);
            done(rename(patch.id, name));
          }}
        />
      )}
    </>
  );
}
