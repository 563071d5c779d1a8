'use client';
import type { GraphModule } from '@/core';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { Predicted } from '@/ui/session/usePrediction';
import { responsesOf } from './response';

const ResponseChart = later(() => import('./ResponseChart').then((m) => m.ResponseChart));

interface Props {
  readonly module: GraphModule;
  readonly predicted: Predicted;
}

/** What a stage's destinations make of their voltages, as curves; drawn when it is opened. */
export function ResponseSection({ module, predicted }: Props) {
  if ((module.kind.ends ?? []).length === 0) return null;
  return (
    <Section id="response" title="Response curve">
      <Curves module={module} predicted={predicted} />
    </Section>
  );
}

function Curves({ module, predicted }: Props) {
  return responsesOf(module, predicted.bounds.get(module.id)).map((r) => <ResponseChart key={r.socket} response={r} />);
}
