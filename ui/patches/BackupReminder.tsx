'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useStore } from 'zustand';
import { counted } from '@/ui/parts/counted';
import { libraryApi } from '@/ui/parts/libraryApi';
import { tellFault } from '@/ui/parts/messages';
import { setSetting, settings } from '@/ui/parts/settings';

/** Put off, it comes again after so long, milliseconds. */
const LATER = 7 * 86_400_000;

/** Says that the library has not been backed up for long, and does it. */
export function BackupReminder() {
  const { data, refetch } = useQuery({ queryKey: ['library'], queryFn: libraryApi.state });
  const until = useStore(settings, (s) => s.backupLater);
  // As the page is opened: no reminder turns up in the midst of something.
  const [now] = useState(() => new Date().toISOString());
  if (!data?.due || until > now) return null;
  const backUp = (): void =>
    void libraryApi
      .backUp()
      .then(() => refetch())
      .catch(tellFault);
  const later = (): void => setSetting('backupLater', new Date(Date.now() + LATER).toISOString());
  const ago =
    data.lastBackup === null ? 'has never been backed up' : `was last backed up ${counted(data.days, 'day')} ago`;
  return (
    <Alert
      severity="warning"
      data-backup-due
      sx={{ mt: 2 }}
      action={
        <>
          <Button onClick={later}>Later</Button>
          <Button onClick={backUp} sx={{ whiteSpace: 'nowrap' }}>
            Back up
          </Button>
        </>
      }
    >
      {`This library ${ago}; ${counted(data.saves, 'save')} since.`}
    </Alert>
  );
}
