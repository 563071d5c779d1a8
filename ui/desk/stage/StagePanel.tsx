'use client';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { HandsSection } from '../gesture/HandsSection';
import { inSentence, isBypassed, isSetup, paramLabel } from '@/core';
import type { GraphModule, ParamSpec, ParamValue } from '@/core';

import { Section } from '@/ui/parts/Section';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';
import type { Task } from '../commands/tasks';
import { GestureButton } from '../gesture/GestureButton';
import { Facts } from './Facts';
import { SeatSection } from '../rack/SeatSection';
import { HelpersSection } from './HelpersSection';
import { Knobs, paramsShown } from './Knobs';
import { NormalsSection } from './NormalsSection';
import { LoudnessSection } from './LoudnessSection';
import { ResponseSection } from './ResponseSection';
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

/** The chosen stage: what is done with it, its knobs, its sockets, and what is set up once. */
export function StagePanel({ desk, module, predicted, place, begin, onRemoved }: Props) {
  const { kind, params, id, label } = module;
  const { patch } = predicted.graph;
  const { edit } = desk.getState();
  const set = (name: string, value: ParamValue | undefined, shown: string, key?: string): void =>
    edit(
      `${label} ${inSentence(paramLabel(name, kind.params[name]))} ${shown}`,
      [{ do: 'set', module: id, param: name, value }],
      key,
    );
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
        between={kind.room === 'between'}
        bypassed={bypassed}
        output={module.outputs[0]?.socket ?? null}
        begin={begin}
        onRemoved={onRemoved}
      />
      {bypassed && <Alert severity="warning">Bypassed: this stage is out of the signal path.</Alert>}
      <Knobs desk={desk} id={id} label={label} kind={kind} set={set} />
      {settings.filter((name) => !isSetup(kind, name)).map(setting)}
      {kind.panel?.drawn && <GestureButton module={module} duration={patch.settings.duration} set={set} />}
      <HandsSection patch={patch} id={id} edit={edit} />
      <SocketTable module={module} patch={patch} predicted={predicted} edit={edit} begin={begin} />
      <Facts module={module} predicted={predicted} />
      <HelpersSection id={id} patch={patch} findings={predicted.prediction.findings} edit={edit} />
      <ResponseSection module={module} predicted={predicted} />
      {kind.stage?.amplifier && <LoudnessSection id={id} patch={patch} />}
      <SeatSection id={id} label={label} patch={patch} edit={edit} />
      {setUp.length > 0 && (
        <Section id="setup" title="Ranges and hardware">
          {setUp.map(setting)}
        </Section>
      )}
      <NormalsSection module={module} patch={patch} predicted={predicted} edit={edit} />
    </Box>
  );
}
