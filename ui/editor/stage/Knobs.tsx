'use client';
import { useMemo, useState } from 'react';
import { useStore } from 'zustand';
import { completeParams, idOf, inSentence, isSetup, paramLabel, socketAt } from '@/core';
import type { GraphModule } from '@/core';
import { Knob } from '@/ui/parts/Knob';
import { isKnob, narrowed, paramSays, showParam, travelOf } from '@/ui/parts/params';
import { channels } from '@/ui/session/channels';
import type { DeskStore } from '@/ui/session/desk';
import { useHandPlaces } from '@/ui/session/handPlaces';
import { previews, shownPreview } from '@/ui/session/previews';
import { HandNotice } from './HandNotice';
import type { SetParam } from './setParam';
import { useSolving } from '@/ui/session/solving';

type Kind = GraphModule['kind'];

/** The parameters of a kind that there are with these settings, and which of them are knobs. */
export function paramsShown(kind: Kind, params: GraphModule['params']) {
  const names = Object.keys(kind.params).filter((name) => kind.params[name]?.exists?.(params) ?? true);
  const knobs = names.flatMap((name) => {
    const spec = kind.params[name];
    return spec && isKnob(spec) && !isSetup(kind, name) && params[name] !== null ? [{ name, spec }] : [];
  });
  return { knobs, settings: names.filter((name) => !knobs.some((k) => k.name === name)) };
}

interface Props {
  readonly desk: DeskStore;
  readonly id: string;
  readonly label: string;
  readonly kind: Kind;
  readonly set: SetParam;
}

const knobsStyle = { display: 'flex', flexWrap: 'wrap', gap: 8, margin: '8px 0' } as const;

/** A stage's knobs: of the patch as it is this moment, whatever else in the editor waits. */
export function Knobs({ desk, id, label, kind, set }: Props) {
  const doc = useStore(desk, (s) => s.patch.modules.find((m) => m.id === id));
  const bpm = useStore(desk, (s) => s.patch.settings.bpm);
  const params = useMemo(() => completeParams(kind, doc?.params, bpm), [kind, doc, bpm]);
  const solving = useSolving();
  const live = useStore(solving, (s) => s.live);
  const previewed = useStore(previews, (s) => shownPreview(s)?.knobs ?? null);
  const limits = useStore(channels, (s) => s.limits);
  const places = useHandPlaces(desk, id);
  const hands = useStore(desk, (s) => s.patch.hands);
  const automated = hands.filter((h) => idOf(h.at) === id);
  const [under, setUnder] = useState<string | null>(null);
  const { edit } = desk.getState();
  const lock = (name: string): void =>
    edit(
      `${doc?.locked?.includes(name) ? 'Unlock' : 'Lock'} ${label} ${inSentence(paramLabel(name, kind.params[name]))}`,
      [{ do: 'lock', module: id, param: name, locked: !doc?.locked?.includes(name) }],
    );
  const turn = (name: string, value: number, shown: string): void => {
    const before = desk.getState().patch;
    if (automated.some((h) => h.at === socketAt(id, name))) setUnder(socketAt(id, name));
    set(name, value, shown, socketAt(id, name));
    solving.getState().knobTurned(id, name, before);
  };
  const knobs = (
    <div style={knobsStyle}>
      {paramsShown(kind, params).knobs.map(({ name, spec }) => (
        <Knob
          key={`${id} ${name}`}
          label={paramLabel(name, spec)}
          param={name}
          spec={spec}
          travel={narrowed(travelOf(spec, params), limits, socketAt(id, name))}
          value={Number(params[name])}
          shown={showParam(spec, Number(params[name]))}
          says={paramSays(name, spec)}
          locked={doc?.locked?.includes(name) ?? false}
          onChange={(v) => turn(name, v, showParam(spec, v))}
          ghost={previewed?.get(socketAt(id, name)) ?? places.get(socketAt(id, name)) ?? null}
          automated={automated.some((h) => h.at === socketAt(id, name))}
          short={
            live?.feasible === false ? (live.limits.find((l) => l.at === socketAt(id, name))?.needs ?? null) : null
          }
          onDefault={() => set(name, undefined, 'to its default')}
          onLock={() => lock(name)}
        />
      ))}
    </div>
  );
  return (
    <>
      {knobs}
      {under !== null && idOf(under) === id && <HandNotice desk={desk} at={under} onDone={() => setUnder(null)} />}
    </>
  );
}
