'use client';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { RackSelect } from '@/ui/parts/RackSelect';
import { ink } from '@/ui/theme/tokens';
import { ChoiceRow, FigureField, SwitchRow } from './choices';
import { DeviceRow } from './DeviceRow';
import { LibrarySection } from './LibrarySection';
import { Row } from './Row';

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mt: 4 }}>
      <Box component="h2" sx={{ fontSize: 18, mb: 1, mt: 0 }}>
        {title}
      </Box>
      {children}
    </Box>
  );
}

function Display() {
  return (
    <Part title="Display">
      <ChoiceRow
        name="theme"
        title="Theme"
        options={[
          ['system', 'Follow the system'],
          ['light', 'Light'],
          ['dark', 'Dark'],
        ]}
      />
      <ChoiceRow
        name="pitches"
        title="Frequencies"
        says="With notes first, hertz stand below."
        options={[
          ['hertz', 'Hertz'],
          ['notes', 'Notes first'],
        ]}
      />
      <ChoiceRow
        name="gains"
        title="Gains"
        options={[
          ['decibels', 'Decibels'],
          ['percent', 'Percent of unity'],
        ]}
      />
      <ChoiceRow
        name="pointers"
        title="Knob positions"
        options={[
          ['both', 'Clock and percent'],
          ['clock', 'Clock'],
          ['percent', 'Percent of travel'],
        ]}
      />
    </Part>
  );
}

function NewPatches() {
  return (
    <Part title="New patches">
      <Row title="Supply rails">
        <FigureField name="railVolts" title="Supply rails" unit="V" />
      </Row>
      <Row title="Tempo">
        <FigureField name="bpm" title="Tempo" unit="BPM" />
      </Row>
      <Row title="Rack in use" says="For rack checks, plans and patch sheets.">
        <RackSelect width={200} />
      </Row>
    </Part>
  );
}

function Instrument() {
  return (
    <Part title="Instrument">
      <Row
        title="DC error"
        says="What your meter or scope is off by: of the reading, and in volts. Patch sheets expect readings within it."
      >
        <FigureField name="meterPercent" title="DC error, of the reading" unit="%" />
        <span>and</span>
        <FigureField name="meterVolts" title="DC error, in volts" unit="V" />
      </Row>
      <Row title="AC error">
        <FigureField name="meterAcPercent" title="AC error, of the reading" unit="%" />
      </Row>
    </Part>
  );
}

function Sounding() {
  return (
    <Part title="Sound">
      <DeviceRow />
      <Row title="Start level" says="Listening starts here each time; turn up from there.">
        <FigureField name="startDb" title="Start level" unit="dB" />
      </Row>
      <SwitchRow name="background" title="Play in a hidden tab" />
    </Part>
  );
}

function Editing() {
  return (
    <Part title="Editing">
      <SwitchRow name="singleKeys" title="Single-key shortcuts" />
      <SwitchRow
        name="drafts"
        title="Local drafts"
        says="Unsaved changes stay in this browser until they are saved. Without drafts they are lost when the page closes while the server is gone."
      />
    </Part>
  );
}

/** What one chooses once, and the library as a whole. */
export function PreferencesScreen() {
  return (
    <Box sx={{ maxWidth: 860, mx: 'auto', px: 2 }}>
      <Box component="h1" sx={{ fontSize: 24, mt: 3, mb: 0.5 }}>
        Preferences
      </Box>
      <Box component="p" sx={{ m: 0, color: ink.softInk }}>
        Preferences are kept with the library and are part of its backup.
      </Box>
      <Display />
      <NewPatches />
      <Instrument />
      <Sounding />
      <Editing />
      <Part title="Library">
        <LibrarySection />
      </Part>
    </Box>
  );
}
