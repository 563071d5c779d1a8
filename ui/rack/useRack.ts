import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { parseRack, printRack } from '@/core';
import type { Rack } from '@/core';
import { ApiFailure } from '@/ui/parts/api';
import { tellFault } from '@/ui/parts/messages';
import { rackApi } from '@/ui/parts/rackApi';
import type { StoredRack } from '@/wire/racks';

/** Edits so near together are saved together, milliseconds. */
const PAUSE = 500;
/** After a save that did not come through it is tried again, milliseconds. */
const AGAIN = 4000;
const MOST_STEPS = 100;

export type Saving = 'saved' | 'saving' | 'waiting' | 'conflict';

interface Open {
  readonly id: string;
  readonly rack: Rack;
  readonly past: readonly Rack[];
  readonly future: readonly Rack[];
}

/** What stands of an edit that was not stored yet, in this browser. */
const draftKey = (id: string): string => `fenvo.rack ${id}`;

function keepDraft(id: string, revision: number, rack: Rack | null): void {
  try {
    if (rack) localStorage.setItem(draftKey(id), JSON.stringify({ revision, rack: printRack(rack) }));
    else localStorage.removeItem(draftKey(id));
  } catch {
    // A browser that keeps nothing has the page alone.
  }
}

/** What this browser kept of the same revision; null where nothing is, or somebody saved since. */
function draftOf(id: string, revision: number): Rack | null {
  try {
    const kept = JSON.parse(localStorage.getItem(draftKey(id)) ?? 'null') as { revision: number; rack: unknown } | null;
    const read = kept && kept.revision === revision ? parseRack(kept.rack) : null;
    return read?.ok ? read.value : null;
  } catch {
    return null;
  }
}

/** One rack, open: every edit can be undone, and is stored by itself. */
export function useRack(id: string) {
  const queries = useQueryClient();
  const [open, setOpen] = useState<Open | null>(null);
  const [saving, setSaving] = useState<Saving>('saved');
  const base = useRef(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const take = useCallback(({ id: of, rack, revision }: StoredRack): void => {
    const read = parseRack(rack);
    if (!read.ok) return tellFault(new Error(read.errors[0]?.message ?? 'The rack could not be read.'));
    base.current = revision;
    setOpen({ id: of, rack: draftOf(of, revision) ?? read.value, past: [], future: [] });
    setSaving('saved');
  }, []);

  useEffect(() => {
    let live = true;
    if (id !== '')
      rackApi
        .get(id)
        .then((stored) => live && take(stored))
        .catch(tellFault);
    return () => {
      live = false;
      clearTimeout(timer.current);
    };
  }, [id, take]);

  const store = useCallback(
    (rack: Rack): void => {
      keepDraft(id, base.current, rack);
      setSaving('saving');
      clearTimeout(timer.current);
      const save = (key: string): void => {
        rackApi
          .save(id, base.current, printRack(rack), key)
          .then(({ revision }) => {
            keepDraft(id, revision, null);
            base.current = revision;
            setSaving('saved');
            return Promise.all([
              queries.invalidateQueries({ queryKey: ['racks'] }),
              queries.invalidateQueries({ queryKey: ['rack', id] }),
            ]);
          })
          .catch((error: unknown) => {
            if (error instanceof ApiFailure && error.status === 409) return setSaving('conflict');
            if (error instanceof ApiFailure && error.status > 0) return tellFault(error);
            setSaving('waiting');
            timer.current = setTimeout(() => save(key), AGAIN);
          });
      };
      timer.current = setTimeout(() => save(crypto.randomUUID()), PAUSE);
    },
    [id, queries],
  );

  const put = (next: Open): void => {
    setOpen(next);
    store(next.rack);
  };
  const edit = (rack: Rack): void => {
    if (open && rack !== open.rack)
      put({ id: open.id, rack, past: [...open.past, open.rack].slice(-MOST_STEPS), future: [] });
  };
  const undo = (): void => {
    const before = open?.past.at(-1);
    if (open && before) put({ id, rack: before, past: open.past.slice(0, -1), future: [open.rack, ...open.future] });
  };
  const redo = (): void => {
    const [after, ...future] = open?.future ?? [];
    if (open && after) put({ id, rack: after, past: [...open.past, open.rack], future });
  };
  const shown = open?.id === id ? open : null;
  return {
    rack: shown?.rack ?? null,
    saving,
    edit,
    undo: shown && shown.past.length > 0 ? undo : null,
    redo: shown && shown.future.length > 0 ? redo : null,
    /** Takes what is stored in the place of what is here. */
    takeTheirs: () => {
      keepDraft(id, 0, null);
      rackApi.get(id).then(take).catch(tellFault);
    },
  };
}
