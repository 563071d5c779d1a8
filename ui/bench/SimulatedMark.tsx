import Box from '@mui/material/Box';
import { ink } from '@/ui/theme/tokens';

/** Beside everything that comes from a rack that is not there. */
export const SimulatedMark = () => (
  <Box
    component="span"
    data-simulated
    sx={{
      ml: 1,
      px: 0.75,
      py: 0.125,
      fontSize: 12,
      fontWeight: 700,
      whiteSpace: 'nowrap',
      border: `1px dashed ${ink.softInk}`,
      borderRadius: 1,
      color: ink.softInk,
    }}
  >
    simulated
  </Box>
);
