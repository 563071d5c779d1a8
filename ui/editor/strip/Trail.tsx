import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { placeName } from '@/core';
import type { Patch } from '@/core';

/** The way back from a joining path to the strip that it joins. */
export function Trail({
  trail,
  patch,
  onBack,
}: {
  trail: readonly string[];
  patch: Patch;
  onBack: (depth: number) => void;
}) {
  const name = (socket: string): string => placeName(patch.modules, socket);
  return (
    <Box component="nav" aria-label="Path" sx={{ display: 'flex', gap: 1, alignItems: 'center', px: 1.75, pt: 1 }}>
      {trail.map((socket, depth) =>
        depth === trail.length - 1 ? (
          <Box key={socket} component="span" aria-current="page" sx={{ fontWeight: 700 }}>
            {name(socket)}
          </Box>
        ) : (
          <Button key={socket} onClick={() => onBack(depth)}>{`← ${name(socket)}`}</Button>
        ),
      )}
    </Box>
  );
}
