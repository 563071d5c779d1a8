'use client';
import FormHelperText from '@mui/material/FormHelperText';
import { useState } from 'react';
import { readTyped } from '@/core';
import type { NumberSpec, ParamValues } from '@/core';
import { showParam, travelOf } from '@/ui/parts/params';
import { TextInput } from '@/ui/parts/TextInput';
import { SettingRow } from './SettingRow';

interface Props {
  readonly label: string;
  readonly spec: NumberSpec | NumberSpec<number | null>;
  readonly value: number | null;
  readonly params: ParamValues;
  readonly onChange: (value: number | null, shown: string) => void;
}

/** A number that is set once, in its unit; what cannot be read stays, with the reason. */
export function NumberSetting({ label, spec, value, params, onChange }: Props) {
  const [text, setText] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const leave = (): void => {
    setText(null);
    setFault(null);
  };
  const finish = (): void => {
    if (text === null) return;
    if (spec.nullable && /^(none)?$/.test(text.trim())) onChange(null, 'none');
    else {
      const typed = readTyped(text, travelOf(spec, params), spec.unit);
      if (!typed.ok) return setFault(typed.message);
      if (typed.value !== value) onChange(typed.value, showParam(spec, typed.value));
    }
    leave();
  };
  return (
    <>
      <SettingRow label={label}>
        <TextInput
          label={label}
          figures
          sx={{ width: 112 }}
          value={text ?? showParam(spec, value)}
          error={fault !== null}
          onFocus={(e) => e.target.select()}
          onChange={setText}
          onBlur={finish}
          onKeyDown={(e) => {
            if (e.key === 'Enter') finish();
            if (e.key === 'Escape') leave();
          }}
        />
      </SettingRow>
      {fault && (
        <FormHelperText error role="alert" sx={{ textAlign: 'right' }}>
          {fault}
        </FormHelperText>
      )}
    </>
  );
}
