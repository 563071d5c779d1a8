import Box from '@mui/material/Box';
import Button from '@mui/material/Button';

/** The head of what takes the stage panel's place for a while. */
export function PanelHead({ title, onClose }: { title: string; onClose: () => void }) {
  return (
    <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', mb: 1 }}>
      <Box component="h2" sx={{ fontSize: 15, m: 0 }}>
        {title}
      </Box>
      <Button onClick={onClose}>Close</Button>
    </Box>
  );
}
