'use client';
import { later } from '@/ui/parts/later';
import { Section } from '@/ui/parts/Section';
import type { DeskStore } from '@/ui/session/desk';
import type { Predicted } from '@/ui/session/usePrediction';

const Route = later(() => import('./Route').then((m) => m.Route));

interface Props {
  readonly desk: DeskStore;
  readonly predicted: Predicted;
  /** The socket whose path is shown. */
  readonly shown: string;
}

/** Routes to the destination shown. */
export function RouteSection({ desk, predicted, shown }: Props) {
  const begins = predicted.strip?.frames[0]?.output ?? null;
  return (
    <Section id="route" title="Route">
      <Route desk={desk} begins={begins} shown={shown} />
    </Section>
  );
}
