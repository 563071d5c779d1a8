import Button from '@mui/material/Button';
import { showSeconds } from '@/core';
import { tellFault } from '@/ui/parts/messages';
import { SelectField } from '@/ui/parts/SelectField';
import { edgesOf } from './view';
import type { Trace } from './view';

/** The view stands on an edge of one trace; times are counted from it. */
export interface Trigger {
  readonly socket: string;
  readonly rising: boolean;
  readonly at: number;
}

interface TriggerProps {
  readonly traces: readonly Trace[];
  readonly sampleRate: number;
  readonly trigger: Trigger | null;
  readonly onTrigger: (trigger: Trigger | null) => void;
}

/** What the view is triggered by, and the edges before and after. */
export function TriggerFields({ traces, sampleRate, trigger, onTrigger }: TriggerProps) {
  const trace = traces.find((t) => t.socket === trigger?.socket);
  const edges = (t: Trace, rising: boolean): number[] =>
    edgesOf(t.probe.trace, sampleRate, (t.probe.measures.min + t.probe.measures.max) / 2, rising);
  const begin = (key: string): void => {
    const [socket = '', way = ''] = key.split(' ');
    const chosen = traces.find((t) => t.socket === socket);
    const rising = way === 'rising';
    const [first] = chosen ? edges(chosen, rising) : [];
    if (!chosen) return onTrigger(null);
    if (first === undefined) return tellFault(`No ${way} edge of ${chosen.label} in this window.`);
    onTrigger({ socket, rising, at: first });
  };
  const step = (by: number): void => {
    if (!trigger || !trace) return;
    const all = edges(trace, trigger.rising);
    const at = all.findIndex((t) => Math.abs(t - trigger.at) < 0.5 / sampleRate);
    const next = all[Math.min(all.length - 1, Math.max(0, at + by))];
    if (next !== undefined) onTrigger({ ...trigger, at: next });
  };
  const options: (readonly [string, string])[] = [
    ['', 'no trigger'],
    ...traces.flatMap((t) => [
      [`${t.socket} rising`, `${t.label} rises`] as const,
      [`${t.socket} falling`, `${t.label} falls`] as const,
    ]),
  ];
  const value = trigger && trace ? `${trigger.socket} ${trigger.rising ? 'rising' : 'falling'}` : '';
  return (
    <>
      <SelectField label="Trigger" value={value} options={options} onChange={begin} sx={{ maxWidth: 150 }} />
      {trigger && trace && (
        <>
          <Button aria-label="Edge before" onClick={() => step(-1)}>
            ‹
          </Button>
          <span>{showSeconds(trigger.at)}</span>
          <Button aria-label="Edge after" onClick={() => step(1)}>
            ›
          </Button>
        </>
      )}
    </>
  );
}
