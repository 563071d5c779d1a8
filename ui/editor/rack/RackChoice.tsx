'use client';
import Box from '@mui/material/Box';
import { useChosenRack } from '@/ui/parts/chosenRack';
import { SafeLink } from '@/ui/parts/SafeLink';
import { SelectField } from '@/ui/parts/SelectField';

/** Which rack it is about; where there is none, the way to make one. */
export function RackChoice() {
  const { racks, id, choose } = useChosenRack();
  if (racks.length === 0)
    return (
      <Box>
        No racks yet. <SafeLink href="/racks">Create one</SafeLink> first.
      </Box>
    );
  return (
    <SelectField
      label="Rack"
      value={id}
      options={[['', 'Choose a rack…'] as const, ...racks.map((r) => [r.id, r.name] as const)]}
      onChange={choose}
      sx={{ width: '100%' }}
    />
  );
}
