'use client';
import { useCallback, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { editsBetween } from '@/core';
import { later } from '@/ui/parts/later';
import { tell, tellFault } from '@/ui/parts/messages';
import type { StoredPatch } from '@/wire/patches';
import { createDesk } from '@/ui/session/desk';
import type { DeskStart } from '@/ui/session/desk';
import { dropDraft, keepDraft, leftDrafts, readDraft } from '@/ui/session/draft';
import type { Draft } from '@/ui/session/draft';
import { isOwnSave } from '@/ui/session/ownSaves';
import { patchOf, useAutosave } from '@/ui/session/useAutosave';
import type { Conflict } from '@/ui/session/useAutosave';
import { useOtherTabs } from '@/ui/session/useOtherTabs';
import { DeskBody } from './DeskBody';

const DeletedDialog = later(() => import('./DeletedDialog').then((m) => m.DeletedDialog));
const DraftDialog = later(() => import('./DraftDialog').then((m) => m.DraftDialog));
const ConflictDialog = later(() => import('./ConflictDialog').then((m) => m.ConflictDialog));

interface Opened {
  readonly start: DeskStart;
  readonly recovered: 'no' | 'yes' | 'older';
}

/** The stored patch, or the draft that never reached the server. */
function open(stored: StoredPatch): Opened {
  const saved = patchOf(stored);
  const base = { id: stored.id, saved, revision: stored.revision, savedAt: stored.updatedAt };
  const draft = readDraft(stored.id);
  if (!draft || JSON.stringify(draft.patch) === JSON.stringify(saved)) {
    dropDraft(stored.id);
    return { start: { ...base, patch: saved }, recovered: 'no' };
  }
  // The save whose answer this page did not stay for is its own: what it made is what the draft goes on from.
  const own =
    stored.revision > draft.baseRevision &&
    (draft.sentKey === stored.saveKey ? draft.sentKey !== null : isOwnSave(stored.id, stored.saveKey));
  if (own) return { start: { ...base, patch: draft.patch }, recovered: 'yes' };
  // A draft on an older revision keeps its base, so that saving it meets the conflict and both versions stay.
  const older = draft.baseRevision !== stored.revision;
  return { start: { ...base, patch: draft.patch, revision: draft.baseRevision }, recovered: older ? 'older' : 'yes' };
}

export function Desk({ stored }: { stored: StoredPatch }) {
  const [opened] = useState(() => open(stored));
  const [desk] = useState(() => createDesk(opened.start, tellFault));
  const [conflict, setConflict] = useState<Conflict | null>(null);
  useAutosave(
    desk,
    useCallback((c: Conflict) => setConflict(c), []),
  );
  const others = useOtherTabs(stored.id);
  const [left, setLeft] = useState<readonly Draft[]>([]);
  useEffect(() => {
    void leftDrafts(stored.id).then(setLeft);
  }, [stored.id]);
  const take = useCallback(
    (draft: Draft) => {
      const { edit, patch: now } = desk.getState();
      edit('Recover unsaved changes', editsBetween(now, draft.patch));
      const { id, revision, patch } = desk.getState();
      keepDraft(id, revision, patch, null);
      dropDraft(id, draft.key);
    },
    [desk],
  );
  // Its parts are there and answer: what a stopwatch can look for.
  useEffect(() => void performance.mark('desk ready'), []);
  const deleted = useStore(desk, (s) => s.save.kind === 'deleted');
  useEffect(() => {
    if (opened.recovered !== 'no') tell('Unsaved changes recovered from this browser.');
  }, [opened]);
  return (
    <>
      <DeskBody desk={desk} others={others} />
      {left[0] && (
        <DraftDialog
          key={left[0].key}
          id={stored.id}
          saved={opened.start.saved}
          draft={left[0]}
          onTake={take}
          onDone={() => setLeft(left.slice(1))}
        />
      )}
      {deleted && <DeletedDialog desk={desk} />}
      {conflict && <ConflictDialog desk={desk} conflict={conflict} onSettled={() => setConflict(null)} />}
    </>
  );
}
