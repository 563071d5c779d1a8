'use client';
import Button from '@mui/material/Button';
import Switch from '@mui/material/Switch';
import { memo } from 'react';
import { inSentence, optionLabel, paramLabel, scaleSemitones, scaleTitle } from '@/core';
import type { GesturePoint, ParamSpec, ParamValue, ParamValues, Step } from '@/core';
import { saveFile } from '@/ui/parts/files';
import { paramSays } from '@/ui/parts/params';
import { SelectField } from '@/ui/parts/SelectField';
import { TextInput } from '@/ui/parts/TextInput';
import { useTyped } from '@/ui/parts/useTyped';
import { LinesField } from './LinesField';
import { pointsText, readPoints, readScale, readSteps, scaleText, stepsText } from './lines';
import { NumberSetting } from './NumberSetting';
import { SettingRow } from './SettingRow';

interface Props {
  readonly name: string;
  readonly spec: ParamSpec;
  readonly params: ParamValues;
  readonly onChange: (value: ParamValue, shown: string) => void;
}

/** A setting reads only its own value, and the limits that other parameters set. */
const same = (a: Props, b: Props): boolean =>
  a.name === b.name && a.spec === b.spec && a.params[a.name] === b.params[b.name] && !('limits' in a.spec);

/** A setting that is no knob: a choice, a switch, a text, a number that is set once. */
export const Setting = memo(function Setting({ name, spec, params, onChange }: Props) {
  const value = params[name] ?? null;
  const label = paramLabel(name, spec);
  switch (spec.type) {
    case 'choice':
      return (
        <SettingRow param={name} label={label} says={paramSays(name, spec)}>
          <SelectField
            label={label}
            value={String(value)}
            options={spec.options.map((o) => [String(o), optionLabel(spec, o)])}
            onChange={(key) => {
              const chosen = spec.options.find((o) => String(o) === key);
              if (chosen !== undefined) onChange(chosen, inSentence(optionLabel(spec, chosen)));
            }}
            sx={{ minWidth: 112, maxWidth: 170 }}
          />
        </SettingRow>
      );
    case 'flag':
      return (
        <SettingRow param={name} label={label} says={paramSays(name, spec)}>
          <Switch
            checked={value === true}
            onChange={(_, on) => onChange(on, on ? 'on' : 'off')}
            slotProps={{ input: { 'aria-label': label } }}
          />
        </SettingRow>
      );
    case 'number':
      return (
        <NumberSetting
          param={name}
          label={label}
          spec={spec}
          value={value as number | null}
          params={params}
          onChange={onChange}
        />
      );
    case 'text':
      return <TextSetting label={label} value={String(value)} longest={spec.longest} onChange={onChange} />;
    default:
      return <ListSetting type={spec.type} value={value} onChange={onChange} />;
  }
}, same);

interface ListProps {
  readonly type: 'points' | 'steps' | 'scale';
  readonly value: ParamValue;
  readonly onChange: (value: ParamValue, shown: string) => void;
}

/** A list as lines of text. */
function ListSetting({ type, value, onChange }: ListProps) {
  if (type === 'points')
    return (
      <LinesField
        label="Breakpoints: seconds, volts"
        text={pointsText(value as readonly GesturePoint[])}
        read={readPoints}
        onChange={(points) => onChange(points, `${points.length} points`)}
      />
    );
  if (type === 'steps')
    return (
      <LinesField
        label="Steps: volts, then “rest” or “tie”"
        text={stepsText(value as readonly Step[])}
        read={readSteps}
        onChange={(steps) => onChange(steps, `${steps.length} steps`)}
      />
    );
  const scale = value as string | readonly number[];
  const save = async (): Promise<void> => {
    const { printScl } = await import('@/core/formats/scala');
    const name = typeof scale === 'string' ? scaleTitle(scale) : 'scale';
    saveFile(`${name}.scl`, new Blob([printScl(name, scaleSemitones(scale))], { type: 'text/plain' }));
  };
  return (
    <>
      <LinesField
        label="Scale: name or semitones"
        text={scaleText(scale)}
        read={readScale}
        onChange={(next) => onChange(next, scaleText(next))}
      />
      <Button onClick={() => void save()}>Export as .scl</Button>
    </>
  );
}

interface TextProps {
  readonly label: string;
  readonly value: string;
  readonly longest: number;
  readonly onChange: (value: string, shown: string) => void;
}

function TextSetting({ label, value, longest, onChange }: TextProps) {
  const { field } = useTyped(value, (text) => {
    onChange(text, text);
    return null;
  });
  return (
    <SettingRow label={label}>
      <TextInput {...field} label={label} sx={{ width: 112 }} longest={longest} />
    </SettingRow>
  );
}
