'use client';
import { useChosenRack } from './chosenRack';
import { SelectField } from './SelectField';

/** The rack in use; nothing where there is none yet. */
export function RackSelect({ width = 150 }: { readonly width?: number | string }) {
  const { racks, id, choose } = useChosenRack();
  if (racks.length === 0) return null;
  return (
    <SelectField
      label="Rack in use"
      value={id}
      options={[['', 'No rack'] as const, ...racks.map((r) => [r.id, r.name] as const)]}
      onChange={choose}
      sx={{ width }}
    />
  );
}
