'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import { memo } from 'react';
import { hangsOn, placeName, readingFor, unitOf } from '@/core';
import type { Patch, TargetStanding } from '@/core';
import { Group } from '@/ui/parts/Group';
import { SelectField } from '@/ui/parts/SelectField';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import { ink } from '@/ui/theme/tokens';
import { focusOn } from '../commands/given';
import { TargetRow } from './TargetRow';
import { choicesAt, missOf, named, rowKey } from './words';

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The socket whose path is shown. */
  readonly shown: string;
}

/** What is asked of the destination shown; below it, in brief, what is asked of the others. */
export function TargetsGroup({ desk, predicted, shown }: Props) {
  const { graph, missed, prediction } = predicted;
  const { targets, modules } = graph.patch;
  const { edit } = desk.getState();
  const here = targets.filter((t) => t.at === shown);
  return (
    <Group title="Targets">
      {here.map((t) => (
        <TargetRow
          key={rowKey(t)}
          target={t}
          place={placeName(modules, t.at)}
          unit={unitOf(graph, t)}
          other={placeName(modules, hangsOn(t).socket ?? hangsOn(t).module ?? '')}
          missed={missOf(missed, t)}
          reading={readingFor(prediction.readings, t)}
          edit={edit}
          modules={modules}
        />
      ))}
      <Add desk={desk} predicted={predicted} shown={shown} />
      <Others {...{ desk, missed, shown }} targets={targets} modules={modules} />
    </Group>
  );
}

/** What can be asked for at the destination shown; a kind of target that is there already is changed, not doubled. */
function Add({ desk, predicted, shown }: Props) {
  const { graph, prediction } = predicted;
  const { targets, modules } = graph.patch;
  const place = placeName(modules, shown);
  const choices = choicesAt(graph, shown, prediction.readings, (socket) => placeName(modules, socket));
  const add = (key: string): void => {
    const choice = choices.find((c) => c.key === key);
    if (!choice) return;
    const target = named(targets, choice.target);
    const id = target.id === undefined ? {} : { id: target.id };
    desk.getState().edit(`Set target at ${place}: ${choice.title}`, [{ do: 'target', at: target.at, ...id, target }]);
    focusOn(`[data-target="${rowKey(target)}"] input`);
  };
  return (
    <SelectField
      label={`Add a target for ${place}`}
      value=""
      options={[['', 'Add target…'], ...choices.map((c) => [c.key, c.title] as const)]}
      onChange={add}
      sx={{ width: '100%', mt: 1 }}
    />
  );
}

interface OthersProps {
  readonly desk: DeskStore;
  readonly shown: string;
  readonly targets: Patch['targets'];
  readonly modules: Patch['modules'];
  readonly missed: readonly TargetStanding[];
}

/** Targets at other destinations, a line each; a click shows their path. */
const Others = memo(function Others({ desk, shown, targets, modules, missed }: OthersProps) {
  const places = [...new Set(targets.map((t) => t.at))].filter((at) => at !== shown);
  if (places.length === 0) return null;
  return (
    <Box sx={{ mt: 1, fontSize: 13 }}>
      {places.map((at) => {
        const met = missed.filter((m) => m.target.at === at).every((m) => m.met);
        return (
          <ButtonBase
            key={at}
            data-other-target={at}
            onClick={() => desk.getState().showEnd(at)}
            sx={{ display: 'flex', width: '100%', justifyContent: 'space-between', py: 0.5, font: 'inherit' }}
          >
            <span>{placeName(modules, at)}</span>
            <Box component="span" sx={{ color: met ? ink.good : ink.error }}>
              {met ? 'Target met' : 'Target missed'}
            </Box>
          </ButtonBase>
        );
      })}
    </Box>
  );
});
