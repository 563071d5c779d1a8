'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormHelperText from '@mui/material/FormHelperText';
import { memo, useState } from 'react';
import { readQuantity, showQuantity, socketAt } from '@/core';
import type { EndSpec, GraphModule, ParamValues, Patch, Target } from '@/core';
import { TextInput } from '@/ui/parts/TextInput';
import { ink } from '@/ui/theme/tokens';
import type { EditDesk } from '@/ui/session/edit';

interface Props {
  readonly module: GraphModule;
  readonly patch: Patch;
  readonly edit: EditDesk;
}

/** What is wanted at each of a destination's inputs, in its own unit. */
export function WantedFields({ module, patch, edit }: Props) {
  return (
    <>
      {(module.kind.ends ?? []).map((end) => (
        <WantedRow
          key={`${module.id} ${end.socket}`}
          at={socketAt(module.id, end.socket)}
          end={end}
          params={module.params}
          target={patch.targets.find((t) => t.at === socketAt(module.id, end.socket)) ?? null}
          edit={edit}
        />
      ))}
    </>
  );
}

interface RowProps {
  readonly at: string;
  readonly end: EndSpec<ParamValues>;
  readonly params: ParamValues;
  readonly target: Target | null;
  readonly edit: EditDesk;
}

/** What it asks for hangs on the unit and on what is wanted, not on where the knobs stand. */
const same = (a: RowProps, b: RowProps): boolean =>
  a.at === b.at && a.end === b.end && a.target === b.target && a.end.unit(a.params) === b.end.unit(b.params);

const WantedRow = memo(function WantedRow({ at, end, params, target, edit }: RowProps) {
  const unit = target?.quantity === 'volts' ? 'V' : end.unit(params);
  const shown = (which: 'low' | 'high'): string => (target ? showQuantity(target[which], unit) : '');
  const [typed, setTyped] = useState<{ readonly low: string; readonly high: string } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const set = (): void => {
    if (!typed) return;
    const [low, high] = [readQuantity(typed.low, unit), readQuantity(typed.high, unit)];
    if (low === null || high === null) return setFault(`Type two figures in ${unit || 'its unit'}.`);
    if (low > high) return setFault('The first must not be above the second.');
    setFault(null);
    setTyped(null);
    const quantity = target?.quantity ?? end.quantity;
    edit(`wanted at ${at}`, [{ do: 'target', at, target: { at, quantity, low, high } }]);
  };
  const field = (which: 'low' | 'high') => (
    <TextInput
      label={`Wanted ${which === 'low' ? 'from' : 'to'} at ${end.socket}`}
      figures
      placeholder={which === 'low' ? 'from' : 'to'}
      value={typed?.[which] ?? shown(which)}
      onChange={(text) => setTyped({ low: shown('low'), high: shown('high'), ...typed, [which]: text })}
      onKeyDown={(e) => e.key === 'Escape' && (setTyped(null), setFault(null))}
      sx={{ width: 92 }}
    />
  );
  return (
    <Box
      component="form"
      sx={{ mt: 1, fontSize: 13 }}
      onSubmit={(e) => {
        e.preventDefault();
        set();
      }}
    >
      <Box
        sx={{ color: ink.softInk }}
        title={end.says}
      >{`Wanted at ${end.socket}: ${end.quantity}${unit ? ` in ${unit}` : ''}`}</Box>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', flexWrap: 'wrap' }}>
        {field('low')}…{field('high')}
        {typed && <Button type="submit">Set</Button>}
        {target && !typed && (
          <Button onClick={() => edit(`nothing wanted at ${at}`, [{ do: 'target', at, target: null }])}>Clear</Button>
        )}
      </Box>
      {fault && (
        <FormHelperText error role="alert">
          {fault}
        </FormHelperText>
      )}
    </Box>
  );
}, same);
