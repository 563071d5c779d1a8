'use client';
import Button from '@mui/material/Button';
import { explain, issueTitle } from '@/core';
import { openIssues } from '@/ui/session/inspector';

/** What the issue means; all issues stand beside it. */
export function Why({ code }: { readonly code: string }) {
  return (
    <Button title={explain(code)} aria-label={`Explain ${issueTitle(code)}`} onClick={() => openIssues()}>
      Explain
    </Button>
  );
}
