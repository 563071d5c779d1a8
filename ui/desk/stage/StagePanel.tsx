'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import Tooltip from '@mui/material/Tooltip';
import { memo, useState } from 'react';
import type { ReactNode } from 'react';
import { bypassStages, duplicateStages, isBypassed, putBack, removeStages, showVoltRange } from '@/core';
import type { GraphModule, ParamValue } from '@/core';
import { isSetup, showSeconds } from '@/core';
import { Term } from '@/ui/parts/Term';
import { paramName } from '@/ui/parts/params';
import type { DeskStore } from '@/ui/session/desk';
import { fonts, ink } from '@/ui/theme/tokens';
import { GestureButton } from '../gesture/GestureButton';
import type { Task } from '../commands/tasks';
import type { Predicted } from '@/ui/session/usePrediction';
import { Knobs, paramsShown } from './Knobs';
import { Setting } from './Setting';
import { SocketList } from './SocketList';
import { WantedFields } from './WantedFields';

interface Props {
  readonly desk: DeskStore;
  readonly module: GraphModule;
  readonly predicted: Predicted;
  readonly place: string;
  readonly begin: (task: Task | null) => void;
  readonly onRemoved: () => void;
}

/** The chosen stage: its knobs, its settings, its sockets. */
export function StagePanel({ desk, module, predicted, place, begin, onRemoved }: Props) {
  const { kind, params, id } = module;
  const { patch } = predicted.graph;
  const { edit } = desk.getState();
  const set = (name: string, value: ParamValue | undefined, shown: string, key?: string): void =>
    edit(
      `${module.label} ${paramName(name, kind.params[name])} ${shown}`,
      [{ do: 'set', module: id, param: name, value }],
      key,
    );
  const { settings } = paramsShown(kind, params);
  const setting = (name: string) => (
    <Setting
      key={`${id} ${name}`}
      name={name}
      spec={kind.params[name] as NonNullable<(typeof kind.params)[string]>}
      params={params}
      onChange={(value, shown) => set(name, value, shown)}
    />
  );
  const setUp = settings.filter((name) => isSetup(kind, name));
  const atHand = settings.filter((name) => !isSetup(kind, name));
  return (
    <Box component="section" aria-label="Stage" data-stage={id}>
      <Typography sx={{ fontSize: 12, fontWeight: 700, color: ink.softInk }}>{place}</Typography>
      <StageName
        key={id}
        label={module.label}
        title={kind.title}
        onRename={(label) => edit(`name ${label}`, [{ do: 'label', module: id, label }])}
      />
      <KindLine kind={kind} />
      {isBypassed(patch, id) && (
        <Box sx={{ my: 1, p: 1, border: `1px solid ${ink.warning}`, borderRadius: 1 }}>
          Bypassed: it is out of its path for now.{' '}
          <Button onClick={() => edit(`put ${module.label} back`, putBack(desk.getState().patch, id))}>Put back</Button>
        </Box>
      )}
      <Knobs desk={desk} id={id} label={module.label} kind={kind} set={set} />
      {atHand.map(setting)}
      {setUp.length > 0 && (
        <Box component="details" sx={{ '& summary': { fontSize: 13, color: ink.softInk, cursor: 'pointer' } }}>
          <summary>Set-up: ranges and build</summary>
          {setUp.map(setting)}
        </Box>
      )}
      {kind.name === 'gesture' && <GestureButton module={module} duration={patch.settings.duration} set={set} />}
      <WantedFields module={module} patch={patch} edit={edit} />
      <SocketList module={module} patch={patch} predicted={predicted} edit={edit} begin={begin} />
      <Facts module={module} predicted={predicted} />
      <StageActions
        id={id}
        label={module.label}
        between={kind.room === 'between'}
        bypassed={isBypassed(patch, id)}
        desk={desk}
        begin={begin}
        onRemoved={onRemoved}
      />
    </Box>
  );
}

interface ActionProps extends Pick<Props, 'desk' | 'begin' | 'onRemoved'> {
  readonly id: string;
  readonly label: string;
  readonly between: boolean;
  readonly bypassed: boolean;
}

/** What is done always speaks of the same stage. */
const sameActions = (a: ActionProps, b: ActionProps): boolean =>
  a.id === b.id && a.label === b.label && a.between === b.between && a.bypassed === b.bypassed;

const StageActions = memo(function StageActions({ id, label, between, bypassed, desk, begin, onRemoved }: ActionProps) {
  const { edit } = desk.getState();
  return (
    <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 1 }}>
      <Button onClick={() => begin({ do: 'replace', id })}>Replace</Button>
      {!bypassed && between && (
        <Button onClick={() => edit(`bypass ${label}`, bypassStages(desk.getState().patch, [id]))}>Bypass</Button>
      )}
      <Button onClick={() => edit(`duplicate ${label}`, duplicateStages(desk.getState().patch, [id]))}>
        Duplicate
      </Button>
      <Button
        onClick={() => {
          edit(`remove ${label}`, removeStages(desk.getState().patch, [id]));
          onRemoved();
        }}
      >
        Remove
      </Button>
    </Box>
  );
}, sameActions);

/** What the stage does, in a line, with its law on hover. */
const KindLine = memo(function KindLine({ kind }: { kind: GraphModule['kind'] }) {
  return (
    <Tooltip title={`Law: ${kind.formula}`}>
      <Box tabIndex={0} sx={{ fontSize: 13, color: ink.softInk, cursor: 'help' }}>
        {kind.does.charAt(0).toUpperCase() + kind.does.slice(1)}
      </Box>
    </Tooltip>
  );
});

const sameName = (a: NameProps, b: NameProps): boolean => a.label === b.label && a.title === b.title;

interface NameProps {
  readonly label: string;
  readonly title: string;
  readonly onRename: (label: string) => void;
}

const StageName = memo(function StageName({ label, title, onRename }: NameProps) {
  const [text, setText] = useState(label);
  return (
    <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
      <Box
        component="input"
        aria-label="Name of the stage"
        value={text}
        maxLength={80}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => text.trim() && text !== label && onRename(text.trim())}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        sx={{
          font: `700 17px ${fonts.text}`,
          color: ink.ink,
          border: 0,
          borderBottom: '1px solid transparent',
          background: 'none',
          p: 0,
          minWidth: 60,
          width: `${Math.max(6, text.length + 1)}ch`,
          '&:hover, &:focus': { borderColor: ink.line },
        }}
      />
      <Typography sx={{ fontSize: 13, color: ink.softInk }}>{title === label ? '' : title}</Typography>
    </Box>
  );
}, sameName);

function Facts({ module, predicted }: { module: GraphModule; predicted: Predicted }) {
  const output = module.outputs[0];
  const p = output && predicted.prediction.outputs[output.socket];
  if (!p) return null;
  const rows: [ReactNode, string][] = [
    [
      <Term key="bound" word="bound">
        never leaves
      </Term>,
      showVoltRange(...p.bound),
    ],
  ];
  if (p.seen)
    rows.push([
      <Term key="seen" word="seen">
        {p.exact ? 'seen, exactly' : 'seen'}
      </Term>,
      showVoltRange(...p.seen),
    ]);
  if (p.repeatsEvery !== null) rows.push(['repeats every', showSeconds(p.repeatsEvery)]);
  return (
    <Box
      component="dl"
      sx={{ m: 0, mt: 1, display: 'grid', gridTemplateColumns: 'auto 1fr', rowGap: 0.25, fontSize: 13 }}
    >
      {rows.map(([name, value], i) => (
        <Box key={i} sx={{ display: 'contents' }}>
          <Box component="dt" sx={{ color: ink.softInk }}>
            {name}
          </Box>
          <Box component="dd" sx={{ m: 0, textAlign: 'right', fontFamily: fonts.numbers }}>
            {value}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
