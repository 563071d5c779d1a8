'use client';
import { LostPage } from '@/ui/parts/LostPage';

export default function ErrorPage({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return (
    <LostPage
      title="This page failed"
      says={`${error.message || 'Something went wrong.'} What was saved is kept, and so is this browser’s draft of what was not.`}
      onAgain={reset}
    />
  );
}
