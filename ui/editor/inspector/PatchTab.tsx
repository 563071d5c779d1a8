'use client';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { useStore } from 'zustand';
import { SETTINGS } from '@/core';
import type { Patch, Settings } from '@/core';
import { counted } from '@/ui/parts/counted';
import { QuantityField } from '@/ui/parts/QuantityField';
import { Group } from '@/ui/parts/Group';
import { Section } from '@/ui/parts/Section';
import { SelectField } from '@/ui/parts/SelectField';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';
import { HandsSection } from '../gesture/HandsSection';
import { MacroSection } from '../macro/MacroSection';
import { TonightSection } from '../rack/TonightSection';
import { SettingRow } from '../stage/SettingRow';
import { NotesField } from './NotesField';
import { PatchName } from './PatchName';
import { TagsField } from './TagsField';

/** Choices of the sample rate: by what sounds, or given, Hz. */
const RATES = ['auto', '8000', '44100', '48000', '96000', '192000'] as const;

interface Props {
  readonly desk: DeskStore;
  readonly patch: Patch;
  /** How many destinations it has. */
  readonly destinations: number;
  readonly cables: number;
}

/** What holds for the whole patch: drawn again when that changes. */
const SettingsFields = memo(function SettingsFields({ desk }: Pick<Props, 'desk'>) {
  const s = useStore(desk, (state) => state.patch.settings);
  const { edit } = desk.getState();
  const set = (what: string, settings: Partial<Settings>): void => edit(what, [{ do: 'settings', settings }]);
  const figure = (label: string, key: 'duration' | 'bpm' | 'railVolts' | 'seed', unit: string) => (
    <SettingRow label={label}>
      <QuantityField
        label={label}
        unit={unit}
        value={s[key]}
        min={SETTINGS[key].min}
        max={SETTINGS[key].max}
        width={128}
        onChange={(value) =>
          set(`Set ${label.toLowerCase()} to ${value}`, { [key]: key === 'seed' ? Math.round(value) : value })
        }
      />
    </SettingRow>
  );
  const rates = RATES.includes(String(s.sampleRate) as (typeof RATES)[number]) ? RATES : [...RATES, `${s.sampleRate}`];
  return (
    <>
      {figure('Simulation length', 'duration', 's')}
      {figure('Tempo', 'bpm', 'BPM')}
      {figure('Supply rails (±)', 'railVolts', 'V')}
      <SettingRow label="Loading">
        <SelectField
          label="Loading"
          value={s.loading}
          options={[
            ['electrical', 'Model impedances'],
            ['ideal', 'Ideal'],
          ]}
          onChange={(loading) => set('Set loading', { loading })}
          sx={{ width: 160 }}
        />
      </SettingRow>
      <SettingRow label="Sample rate">
        <SelectField
          label="Sample rate"
          value={String(s.sampleRate)}
          options={rates.map((r) => [r, r === 'auto' ? 'Auto' : `${r}\u00a0Hz`] as const)}
          onChange={(r) => set(`Set sample rate to ${r}`, { sampleRate: r === 'auto' ? 'auto' : Number(r) })}
          sx={{ width: 128 }}
        />
      </SettingRow>
      {figure('Random seed', 'seed', '')}
    </>
  );
});

/** The patch as a whole: its details, whether the rack can build it, and what holds for all of it. */
export const PatchTab = memo(function PatchTab({ desk, patch, destinations, cables }: Props) {
  const { edit } = desk.getState();
  const { name, notes, modules } = patch;
  const id = useStore(desk, (s) => s.id);
  return (
    <Box component="section" aria-label="Patch">
      <PatchName label="Name of this patch" name={name} size={17} edit={edit} />
      <Box sx={{ fontSize: 13, color: ink.softInk }}>
        {`${counted(modules.length, 'module')}, ${counted(cables, 'cable')}, ${counted(destinations, 'destination')}`}
      </Box>
      <Group title="Details">
        <TagsField key={id} desk={desk} />
        <NotesField notes={notes} edit={edit} />
      </Group>
      <TonightSection desk={desk} />
      <MacroSection patch={patch} edit={edit} />
      <HandsSection patch={patch} edit={edit} />
      <Section id="patch settings" title="Simulation settings">
        <SettingsFields desk={desk} />
      </Section>
    </Box>
  );
});
