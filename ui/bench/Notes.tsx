import Box from '@mui/material/Box';
import { useState } from 'react';
import { TextInput } from '@/ui/parts/TextInput';
import type { OpenSession } from './useSession';

/** What a person writes down of a session; kept when the field is left. */
export function Notes({ open }: { readonly open: OpenSession }) {
  const { notes } = open.session;
  const [typed, setTyped] = useState<string | null>(null);
  const settle = (): void => {
    if (typed === null || typed === notes) return;
    void open.change({ notes: typed }).then(() => setTyped(null));
  };
  return (
    <Box sx={{ pt: 1.5 }}>
      <TextInput
        label="Notes on this session"
        placeholder="What you noticed, changed or heard"
        fullWidth
        lines={[6, 20]}
        longest={20_000}
        value={typed ?? notes}
        onChange={setTyped}
        onBlur={settle}
      />
    </Box>
  );
}
