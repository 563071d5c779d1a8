'use client';
import Box from '@mui/material/Box';
import { memo, useState } from 'react';
import type { ReactNode } from 'react';
import { readTyped, scaleNames } from '@/core';
import type { GesturePoint, NumberSpec, ParamSpec, ParamValue, ParamValues, Step } from '@/core';
import { paramName, paramSays, showParam, travelOf } from '@/ui/parts/params';
import { fieldStyle } from '@/ui/parts/fieldStyle';
import { ink } from '@/ui/theme/tokens';
import { LinesField } from './LinesField';
import { pointsText, readPoints, readScale, readSteps, scaleText, stepsText } from './lines';

interface Props {
  readonly name: string;
  readonly spec: ParamSpec;
  readonly params: ParamValues;
  readonly onChange: (value: ParamValue, shown: string) => void;
}

function Row({ label, says, children }: { label: string; says?: string | undefined; children: ReactNode }) {
  return (
    <Box
      component="label"
      sx={{
        display: 'flex',
        justifyContent: 'space-between',
        alignItems: 'center',
        gap: 1,
        minHeight: 26,
        fontSize: 13,
      }}
    >
      <Box component="span" title={says} sx={{ color: ink.softInk }}>
        {label}
      </Box>
      {children}
    </Box>
  );
}

/** A setting reads only its own value, and the limits that other parameters set. */
const same = (a: Props, b: Props): boolean =>
  a.name === b.name && a.spec === b.spec && a.params[a.name] === b.params[b.name] && !('limits' in a.spec);

/** A setting that is no knob: a choice, a switch, a text, a number that is set once. */
export const Setting = memo(function Setting({ name, spec, params, onChange }: Props) {
  const value = params[name] ?? null;
  const label = paramName(name, spec);
  switch (spec.type) {
    case 'choice':
      return (
        <Row label={label} says={paramSays(name, spec)}>
          <Box
            component="select"
            sx={fieldStyle}
            value={String(value)}
            onChange={(e) => {
              const chosen = spec.options.find((o) => String(o) === e.target.value);
              if (chosen !== undefined) onChange(chosen, String(chosen));
            }}
          >
            {spec.options.map((o) => (
              <option key={o} value={String(o)}>
                {typeof o === 'string' ? paramName(o) : o}
              </option>
            ))}
          </Box>
        </Row>
      );
    case 'flag':
      return (
        <Row label={label} says={paramSays(name, spec)}>
          <input
            type="checkbox"
            checked={value === true}
            onChange={(e) => onChange(e.target.checked, e.target.checked ? 'on' : 'off')}
          />
        </Row>
      );
    case 'number':
      return (
        <NumberField label={label} spec={spec} value={value as number | null} params={params} onChange={onChange} />
      );
    case 'text':
      return <TextField label={label} value={String(value)} longest={spec.longest} onChange={onChange} />;
    case 'points':
      return (
        <LinesField
          label="points: seconds and volts"
          text={pointsText(value as readonly GesturePoint[])}
          read={readPoints}
          onChange={(points) => onChange(points, `${points.length} points`)}
        />
      );
    case 'steps':
      return (
        <LinesField
          label="steps: volts, then rest or tie"
          text={stepsText(value as readonly Step[])}
          read={readSteps}
          onChange={(steps) => onChange(steps, `${steps.length} steps`)}
        />
      );
    case 'scale':
      return (
        <LinesField
          label="scale: a name, or semitones"
          text={scaleText(value as string | readonly number[])}
          read={(text) => readScale(text, scaleNames)}
          onChange={(scale) => onChange(scale, scaleText(scale))}
        />
      );
  }
}, same);

interface NumberProps {
  readonly label: string;
  readonly spec: NumberSpec | NumberSpec<number | null>;
  readonly value: number | null;
  readonly params: ParamValues;
  readonly onChange: (value: number | null, shown: string) => void;
}

function NumberField({ label, spec, value, params, onChange }: NumberProps) {
  const shown = showParam(spec, value);
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const finish = (): void => {
    if (text === null) return;
    if (spec.nullable && /^(none)?$/.test(text.trim())) onChange(null, 'none');
    else {
      const typed = readTyped(text, travelOf(spec, params), spec.unit);
      if (!typed.ok) return setFault(typed.message);
      if (typed.value !== value) onChange(typed.value, showParam(spec, typed.value));
    }
    setText(null);
    setFault(null);
  };
  return (
    <>
      <Row label={label}>
        <Box
          component="input"
          sx={{ ...fieldStyle, width: 96, textAlign: 'right' }}
          value={text ?? shown}
          aria-invalid={fault !== null}
          onFocus={(e) => e.target.select()}
          onChange={(e) => setText(e.target.value)}
          onBlur={finish}
          onKeyDown={(e) => {
            if (e.key === 'Enter') finish();
            if (e.key === 'Escape') {
              setText(null);
              setFault(null);
            }
          }}
        />
      </Row>
      {fault && (
        <Box role="alert" sx={{ fontSize: 12, color: ink.error, textAlign: 'right' }}>
          {fault}
        </Box>
      )}
    </>
  );
}

function TextField({
  label,
  value,
  longest,
  onChange,
}: {
  label: string;
  value: string;
  longest: number;
  onChange: (v: string, shown: string) => void;
}) {
  const [text, setText] = useState(value);
  return (
    <Row label={label}>
      <Box
        component="input"
        sx={{ ...fieldStyle, width: 96 }}
        value={text}
        maxLength={longest}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => text !== value && onChange(text, text)}
      />
    </Row>
  );
}
