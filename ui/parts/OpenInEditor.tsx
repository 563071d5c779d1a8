'use client';
import Button from '@mui/material/Button';
import { useRouter } from 'next/navigation';
import { printPatch } from '@/core';
import type { Patch } from '@/core';
import { api } from './api';
import { tellFault } from './messages';

/** Keeps a patch that is nobody’s yet in the library, as it stands when it is pressed, and goes there. */
export function OpenInEditor({ patch }: { readonly patch: () => Patch }) {
  const router = useRouter();
  const open = (): void =>
    void api
      .create(printPatch(patch()))
      .then(({ id }) => router.push(`/patches/${id}`))
      .catch(tellFault);
  return <Button onClick={open}>Open in editor</Button>;
}
