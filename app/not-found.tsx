import type { Metadata } from 'next';
import { LostPage } from '@/ui/parts/LostPage';

export const metadata: Metadata = { title: 'Nothing here' };

export default function NotFound() {
  return (
    <LostPage title="Page not found" says="Deleted patches can be restored from Patches, under Deleted patches." />
  );
}
