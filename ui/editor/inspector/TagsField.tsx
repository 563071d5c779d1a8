'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Chip from '@mui/material/Chip';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { memo, useState } from 'react';
import { useStore } from 'zustand';
import { AddIcon } from '@/ui/parts/icons';
import { api } from '@/ui/parts/api';
import { tellFault } from '@/ui/parts/messages';
import { later } from '@/ui/parts/later';
import type { DeskStore } from '@/ui/session/desk';
import type { StoredPatch } from '@/wire/patches';

const TagsInput = later(() => import('@/ui/parts/TagsInput').then((m) => m.TagsInput));

/** The patch's tags, for the patches list; those in use are offered. */
export const TagsField = memo(function TagsField({ desk }: { readonly desk: DeskStore }) {
  const id = useStore(desk, (s) => s.id);
  const [asked, setAsked] = useState(false);
  const [typing, setTyping] = useState(false);
  const known = useQueryClient().getQueryState<StoredPatch>(['patch', id]);
  const own = useQuery({
    queryKey: ['tags', id],
    queryFn: () => api.get(id).then((p) => p.tags),
    // They came with the patch a moment ago.
    staleTime: 5000,
    initialData: known?.data?.tags,
    initialDataUpdatedAt: known?.dataUpdatedAt,
  });
  const used = useQuery({ queryKey: ['patches', 'about'], queryFn: api.about, enabled: asked });
  const keep = (tags: readonly string[]): void =>
    void api
      .setTags(id, tags)
      .catch(tellFault)
      .finally(() => void own.refetch());
  const tags = own.data ?? [];
  if (typing)
    return (
      <TagsInput asked tags={tags} offered={used.data?.tags ?? []} onOpen={() => setAsked(true)} onChange={keep} />
    );
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center', minHeight: 40 }}>
      {tags.map((tag) => (
        <Chip key={tag} size="small" label={tag} onDelete={() => keep(tags.filter((t) => t !== tag))} />
      ))}
      <Button size="small" startIcon={<AddIcon />} onClick={() => setTyping(true)}>
        Add a tag
      </Button>
    </Box>
  );
});
