'use client';
import { useId } from 'react';
import { readTyped } from '@/core';
import type { NumberSpec, ParamValues } from '@/core';
import { FieldFault } from '@/ui/parts/FieldFault';
import { showParam, travelOf } from '@/ui/parts/params';
import { TextInput } from '@/ui/parts/TextInput';
import { useTyped } from '@/ui/parts/useTyped';
import { SettingRow } from './SettingRow';

interface Props {
  readonly param: string;
  readonly label: string;
  readonly spec: NumberSpec | NumberSpec<number | null>;
  readonly value: number | null;
  readonly params: ParamValues;
  readonly onChange: (value: number | null, shown: string) => void;
}

/** A number that is set once, in its unit; what cannot be read stays, with the reason. */
export function NumberSetting({ param, label, spec, value, params, onChange }: Props) {
  const told = useId();
  const { fault, field } = useTyped(showParam(spec, value), (text) => {
    if (spec.nullable && /^(none)?$/.test(text)) onChange(null, 'none');
    else {
      const typed = readTyped(text, travelOf(spec, params), spec.unit);
      if (!typed.ok) return typed.message;
      if (typed.value !== value) onChange(typed.value, showParam(spec, typed.value));
    }
    return null;
  });
  return (
    <>
      <SettingRow param={param} label={label}>
        <TextInput
          {...field}
          faultId={fault === null ? undefined : told}
          label={label}
          figures
          sx={{ width: 112 }}
          onFocus={(e) => e.target.select()}
        />
      </SettingRow>
      <FieldFault id={told} fault={fault} right />
    </>
  );
}
