import { endsOf, flipsAt, stripTo } from '../strip';
import type { Frame } from '../strip';
import type { Finding, FindingRule } from './finding';

/** Whether the destination itself turns the voltage of its socket over. */
function flipsAtEnd(frame: Frame): boolean {
  const amounts: Readonly<Record<string, string>> = {
    cv: 'cvAmount',
    cutoff: 'cutoffAmount',
    cutoff2: 'cutoff2Amount',
    fm: 'fmAmount',
    time: 'timeAmount',
  };
  const param = amounts[frame.input?.spec.name ?? ''];
  return param !== undefined && Number(frame.module.params[param] ?? 1) < 0;
}

export const polarity: FindingRule = {
  code: 'polarity',
  when: 'the path to a destination is inverted all in all',
  find({ graph }) {
    return endsOf(graph).flatMap((socket): Finding[] => {
      const frames = stripTo(graph, socket)?.frames ?? [];
      const flips = frames.filter((f) => (f.output === null ? flipsAtEnd(f) : flipsAt(f)));
      if (flips.length % 2 === 0) return [];
      const end = frames.at(-1)?.module.label ?? socket;
      return [
        {
          code: 'polarity',
          severity: 'note',
          at: socket,
          message: `Net polarity is inverted at ${end}: as ${frames[0]?.module.label ?? 'its source'} rises, it falls. Fine if meant; else flip one stage.`,
          numbers: {},
        },
      ];
    });
  },
};
