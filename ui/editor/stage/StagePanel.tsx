'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { isBypassed, isSetup } from '@/core';
import type { GraphModule, ParamSpec } from '@/core';

import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Task } from '../commands/tasks';
import { GestureButton } from '../gesture/GestureButton';
import { Group } from '@/ui/parts/Group';
import { Controls } from './Controls';
import { Facts } from './Facts';
import { HardwareSection } from './HardwareSection';
import { Knobs, paramsShown } from './Knobs';
import { ResponseSection } from './ResponseSection';
import { setParamOf } from './setParam';
import { Setting } from './Setting';
import { SocketTable } from './SocketTable';
import { StageActions } from './StageActions';
import { StageHead } from './StageHead';

interface Props {
  readonly desk: DeskStore;
  readonly module: GraphModule;
  readonly predicted: Predicted;
  readonly place: string;
  readonly begin: (task: Task | null) => void;
  readonly onRemoved: () => void;
}

/** The chosen stage: what is done with it, its controls, its connections, its response, and the hardware that it is. */
export function StagePanel({ desk, module, predicted, place, begin, onRemoved }: Props) {
  const { kind, params, id, label } = module;
  const { patch } = predicted.graph;
  const { edit } = desk.getState();
  const set = setParamOf(desk, module);
  // A recording is told by its file's name, not by what its content is stored under.
  const settings = paramsShown(kind, params).settings.filter((name) => name !== kind.panel?.plays);
  const setting = (name: string) => (
    <Setting
      key={`${id} ${name}`}
      name={name}
      spec={kind.params[name] as ParamSpec}
      params={params}
      onChange={(value, shown) => set(name, value, shown)}
    />
  );
  const setUp = settings.filter((name) => isSetup(kind, name));
  const bypassed = isBypassed(patch, id);
  return (
    <Box component="section" aria-label="Stage" data-stage={id}>
      <StageHead
        id={id}
        place={place}
        label={label}
        kind={kind}
        onRename={(next) => edit(`Rename to ${next}`, [{ do: 'label', module: id, label: next }])}
      />
      <StageActions
        desk={desk}
        id={id}
        label={label}
        between={kind.category === 'between'}
        bypassed={bypassed}
        output={module.outputs[0]?.socket ?? null}
        begin={begin}
        onRemoved={onRemoved}
      />
      {bypassed && <Alert severity="warning">Bypassed: this stage is out of the signal path.</Alert>}
      <Controls desk={desk} module={module} predicted={predicted}>
        <Knobs desk={desk} id={id} label={label} kind={kind} set={set} />
        {settings.filter((name) => !isSetup(kind, name)).map(setting)}
        {kind.panel?.drawn && <GestureButton module={module} duration={patch.settings.duration} set={set} />}
      </Controls>
      <Group title="Connections">
        <SocketTable module={module} patch={patch} predicted={predicted} edit={edit} begin={begin} />
        <Facts module={module} predicted={predicted} />
      </Group>
      <ResponseSection module={module} predicted={predicted} />
      <HardwareSection desk={desk} module={module} predicted={predicted} ranges={setUp.map(setting)} />
    </Box>
  );
}
