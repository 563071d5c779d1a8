'use client';
import type { GraphModule } from '@/core';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { Predicted } from '@/ui/session/usePrediction';
import { responsesOf } from './response';

const ResponseChart = later(() => import('./ResponseChart').then((m) => m.ResponseChart));
const LoudnessChart = later(() => import('./LoudnessChart').then((m) => m.LoudnessChart));

interface Props {
  readonly module: GraphModule;
  readonly predicted: Predicted;
}

/** What a stage's destinations make of their voltages, as curves, and a VCA's level over time; drawn when opened. */
export function ResponseSection({ module, predicted }: Props) {
  if ((module.kind.ends ?? []).length === 0) return null;
  return (
    <Section id="response" title="Response">
      <Curves module={module} predicted={predicted} />
      {module.kind.stage?.amplifier && <LoudnessChart id={module.id} patch={predicted.graph.patch} />}
    </Section>
  );
}

function Curves({ module, predicted }: Props) {
  return responsesOf(module, predicted.bounds.get(module.id)).map((r) => <ResponseChart key={r.socket} response={r} />);
}
