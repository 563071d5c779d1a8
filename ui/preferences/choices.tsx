import Switch from '@mui/material/Switch';
import { useStore } from 'zustand';
import { PREFERENCE_LIMITS } from '@/wire/usual';
import type { Preferences } from '@/wire/preferences';
import { QuantityField } from '@/ui/parts/QuantityField';
import { SelectField } from '@/ui/parts/SelectField';
import { setSetting, settings } from '@/ui/parts/settings';
import { Row } from './Row';

type Named<K extends keyof Preferences> = { readonly name: K; readonly title: string; readonly says?: string };
type TextName = 'theme' | 'pitches' | 'gains' | 'pointers';

/** One of a few. */
export function ChoiceRow<K extends TextName>({
  name,
  title,
  says,
  options,
}: Named<K> & { readonly options: readonly (readonly [Preferences[K], string])[] }) {
  const value = useStore(settings, (s) => s[name]) as Preferences[K] & string;
  return (
    <Row title={title} {...(says !== undefined && { says })}>
      <SelectField
        label={title}
        value={value}
        options={options as readonly (readonly [Preferences[K] & string, string])[]}
        onChange={(next) => setSetting(name, next as never)}
        sx={{ minWidth: 200 }}
      />
    </Row>
  );
}

/** A figure inside its limits. */
export function FigureField({ name, title, unit }: Named<keyof typeof PREFERENCE_LIMITS> & { readonly unit: string }) {
  const value = useStore(settings, (s) => s[name]);
  const [min, max] = PREFERENCE_LIMITS[name];
  return (
    <QuantityField
      label={title}
      unit={unit}
      {...{ value, min, max }}
      width={120}
      onChange={(next) => setSetting(name, next)}
    />
  );
}

/** On or off. */
export function SwitchRow({
  name,
  title,
  says,
}: {
  readonly name: 'singleKeys' | 'drafts' | 'background';
  readonly title: string;
  readonly says?: string;
}) {
  const on = useStore(settings, (s) => s[name]);
  return (
    <Row title={title} {...(says !== undefined && { says })}>
      <Switch
        checked={on}
        onChange={(_, next) => setSetting(name, next)}
        slotProps={{ input: { 'aria-label': title } }}
      />
    </Row>
  );
}
