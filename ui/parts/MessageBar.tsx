'use client';
import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';
import SnackbarContent from '@mui/material/SnackbarContent';
import { useStore } from 'zustand';
import { ink } from '@/ui/theme/tokens';
import { messages } from './messages';

const close = (): void => messages.setState({ message: null });

export function MessageBar() {
  const message = useStore(messages, (s) => s.message);
  if (!message) return null;
  const { text, bad, action } = message;
  return (
    <Snackbar open autoHideDuration={action ? 12_000 : 8000} onClose={(_, reason) => reason !== 'clickaway' && close()}>
      <SnackbarContent
        role={bad ? 'alert' : 'status'}
        message={text}
        sx={{
          background: ink.raised,
          color: bad ? ink.error : ink.ink,
          border: `1px solid ${bad ? ink.error : ink.line}`,
          boxShadow: 'none',
        }}
        action={
          <>
            {action && (
              <Button color="primary" onClick={() => (action.run(), close())}>
                {action.label}
              </Button>
            )}
            <Button onClick={close}>Close</Button>
          </>
        }
      />
    </Snackbar>
  );
}
