import type { Metadata } from 'next';
import { LostPage } from '@/ui/parts/LostPage';

export const metadata: Metadata = { title: 'Nothing here' };

export default function NotFound() {
  return (
    <LostPage
      title="Nothing is here"
      says="There is no page at this address. A patch that was deleted can be restored from the shelf, under Deleted."
    />
  );
}
