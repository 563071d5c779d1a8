'use client';
import { LostPage } from '@/ui/parts/LostPage';

export default function ErrorPage({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <LostPage
      title="Something went wrong"
      says={`${error.message || 'The page could not be shown.'} Saved work is safe, and unsaved changes are kept in this browser.`}
      onAgain={reset}
    />
  );
}
