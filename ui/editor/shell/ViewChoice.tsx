import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { memo } from 'react';
import { showMap } from '@/ui/session/inspector';

/** The path to one destination, or the map of all. */
export const ViewChoice = memo(function ViewChoice({ map }: { readonly map: boolean }) {
  return (
    <ToggleButtonGroup
      exclusive
      value={map ? 'map' : 'path'}
      aria-label="View"
      onChange={(_, next: 'map' | 'path' | null) => next && showMap(next === 'map')}
    >
      <ToggleButton value="path">Path</ToggleButton>
      <ToggleButton value="map">Map</ToggleButton>
    </ToggleButtonGroup>
  );
});
