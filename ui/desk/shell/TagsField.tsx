'use client';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { memo, useState } from 'react';
import { useStore } from 'zustand';
import { api } from '@/ui/parts/api';
import { tellFault } from '@/ui/parts/messages';
import { TagsInput, tagsOf } from '@/ui/parts/TagsInput';
import type { DeskStore } from '@/ui/session/desk';
import type { StoredPatch } from '@/wire/patches';

/** The patch's tags, for the shelf; those in use are offered. */
export const TagsField = memo(function TagsField({ desk }: { readonly desk: DeskStore }) {
  const id = useStore(desk, (s) => s.id);
  const [asked, setAsked] = useState(false);
  const known = useQueryClient().getQueryState<StoredPatch>(['patch', id]);
  const own = useQuery({
    queryKey: ['tags', id],
    queryFn: () => api.get(id).then((p) => p.tags),
    // They came with the patch a moment ago.
    staleTime: 5000,
    initialData: known?.data?.tags,
    initialDataUpdatedAt: known?.dataUpdatedAt,
  });
  const used = useQuery({ queryKey: ['patches'], queryFn: () => api.list(), enabled: asked });
  const keep = (tags: readonly string[]): void =>
    void api
      .setTags(id, tags)
      .catch(tellFault)
      .finally(() => void own.refetch());
  return (
    <TagsInput tags={own.data ?? []} offered={tagsOf(used.data ?? [])} onOpen={() => setAsked(true)} onChange={keep} />
  );
});
