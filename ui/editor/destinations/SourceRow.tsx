import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import { fonts, ink } from '@/ui/theme/tokens';

export const SourceRow = memo(function SourceRow({
  id,
  label,
  range,
  onSelect,
}: {
  id: string;
  label: string;
  range: string;
  onSelect: (id: string) => void;
}) {
  return (
    <ButtonBase
      onClick={() => onSelect(id)}
      sx={{
        display: 'flex',
        width: '100%',
        justifyContent: 'space-between',
        gap: 1,
        px: 1.75,
        py: 0.5,
        textAlign: 'left',
        font: 'inherit',
      }}
    >
      <Box component="span" title={label} sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
        {label}
      </Box>
      <Box component="span" sx={{ fontFamily: fonts.numbers, color: ink.softInk, fontSize: 12, whiteSpace: 'nowrap' }}>
        {range}
      </Box>
    </ButtonBase>
  );
});
