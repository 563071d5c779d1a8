import { placeName, showVoltRange, showVolts, socketLabel, socketPlace } from '@/core';
import type { Graph, GraphInput, GraphModule, ModuleBounds } from '@/core';

/** What the table of a stage's sockets says, worked out from the patch. */

export interface Option {
  readonly socket: string;
  readonly name: string;
}

/** Every output, by name, a line each. */
export const outputsText = (modules: readonly GraphModule[]): string =>
  modules
    .map((m) => m.outputs.map((o) => `${o.socket}\t${socketPlace(m, o.name)}`).join('\n'))
    .filter(Boolean)
    .join('\n');

export const outputsOf = (text: string): Option[] =>
  text
    .split('\n')
    .filter(Boolean)
    .map((line) => {
      const [socket = '', name = ''] = line.split('\t');
      return { socket, name };
    });

type Wired = Pick<Graph, 'patch' | 'wiring'>;

/** What an input without a plug gets. */
function emptyText({ driver, socket, plugged }: GraphInput, { patch, wiring }: Wired): string {
  if (plugged) return 'Nothing';
  const normal = wiring.normalOf(socket);
  if (driver.type === 'output')
    return normal && 'from' in normal ? `Normal: ${placeName(patch.modules, normal.from)}` : 'Nothing';
  if (normal && 'from' in normal) return 'Nothing (normal broken)';
  return driver.volts === 0 ? 'Nothing' : `Normal: ${showVolts(driver.volts)}`;
}

/** A range without its unit, which stands in the head. */
const bare = (range: readonly [number, number]): string => showVoltRange(...range).replace(/\s*V$/, '');

export interface InputLine {
  readonly socket: string;
  readonly name: string;
  readonly label: string;
  readonly from: string;
  readonly empty: string;
  readonly volts: string;
  /** It closes a loop, one sample late. */
  readonly late: boolean;
}

export function inputLines({ inputs, kind }: GraphModule, graph: Wired, bounds: ModuleBounds | undefined): InputLine[] {
  return inputs.map((input, i) => {
    const range = bounds?.inputs[i];
    return {
      socket: input.socket,
      name: input.spec.name,
      label: socketLabel(kind, input.spec.name),
      from: graph.wiring.cableInto(input.socket)?.from ?? '',
      empty: emptyText(input, graph),
      volts: input.connected && range ? bare(range) : '',
      late: input.driver.type === 'output' && input.driver.delayed,
    };
  });
}

export interface OutputLine {
  readonly socket: string;
  readonly name: string;
  readonly label: string;
  readonly volts: string;
  readonly feeds: string;
  readonly settled: string;
}

export function outputLines(
  { outputs, kind }: GraphModule,
  { patch, wiring }: Wired,
  bounds: ModuleBounds | undefined,
  settled: (socket: string) => readonly [number, number] | undefined,
): OutputLine[] {
  return outputs.map((output, i) => {
    const fed = wiring.cablesFrom(output.socket);
    const end = settled(output.socket);
    return {
      socket: output.socket,
      name: output.name,
      label: socketLabel(kind, output.name),
      volts: bare(bounds?.outputs[i] ?? [0, 0]),
      feeds: fed.length > 1 ? `${fed.length} inputs` : fed[0] ? placeName(patch.modules, fed[0].to) : '',
      settled: end ? `Settles to ${showVoltRange(...end)}` : '',
    };
  });
}
