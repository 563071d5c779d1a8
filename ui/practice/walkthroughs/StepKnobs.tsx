import Box from '@mui/material/Box';
import { useStore } from 'zustand';
import { completeParams, idOf, kindNamed, knobPlace, nameOf } from '@/core';
import type { Patch } from '@/core';
import { Knob } from '@/ui/parts/Knob';
import { isKnob, paramSays, showParam, travelOf } from '@/ui/parts/params';
import type { DeskStore } from '@/ui/session/desk';
import { ink } from '@/ui/theme/tokens';

interface Props {
  readonly desk: DeskStore;
  /** `trim.amount` */
  readonly knobs: readonly string[];
}

/** The knobs that a step turns: they move by themselves, and can be turned. */
export function StepKnobs({ desk, knobs }: Props) {
  const patch = useStore(desk, (s) => s.patch);
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }} data-step-knobs>
      {knobs.map((at) => (
        <OneKnob key={at} desk={desk} patch={patch} at={at} />
      ))}
    </Box>
  );
}

function OneKnob({ desk, patch, at }: { readonly desk: DeskStore; readonly patch: Patch; readonly at: string }) {
  const [module, param] = [idOf(at), nameOf(at)];
  const doc = patch.modules.find((m) => m.id === module);
  const kind = doc && kindNamed(doc.kind);
  const spec = kind?.params[param];
  if (!kind || !spec || !isKnob(spec)) return null;
  const params = completeParams(kind, doc.params, patch.settings.bpm);
  if (params[param] === null) return null;
  const label = knobPlace(patch.modules, at);
  const edits = (value: number | undefined) => [{ do: 'set', module, param, value }] as const;
  const { edit } = desk.getState();
  return (
    <Knob
      param={param}
      label={label}
      spec={spec}
      travel={travelOf(spec, params)}
      value={Number(params[param])}
      shown={showParam(spec, Number(params[param]))}
      says={paramSays(param, spec)}
      locked={doc.locked?.includes(param) ?? false}
      onChange={(value) => edit(label, edits(value), at)}
      onDefault={() => edit(label, edits(undefined))}
      onLock={() => edit(`Lock ${label}`, [{ do: 'lock', module, param, locked: !doc.locked?.includes(param) }])}
    />
  );
}

interface ChangesProps {
  readonly changes: readonly { readonly what: string; readonly here: string; readonly there: string }[];
}

/** What else a step changes, at once. */
export const StepChanges = ({ changes }: ChangesProps) => (
  <Box component="ul" sx={{ m: 0, pl: 2.5, color: ink.softInk, fontSize: 14 }} data-step-changes>
    {changes.map(({ what, here, there }) => (
      <li key={what}>{`${what}: ${here} → ${there}`}</li>
    ))}
  </Box>
);
