import { describe, expect, it } from 'vitest';
import type { Target } from '../document/targets';
import { patchOf } from '../testing/patch';
import { buildGraph } from './graph';
import { placeOf, placeOfTarget, unitOf } from './place';

const graph = buildGraph(
  patchOf({ turn: ['lfo'], row: ['sequencer'], amp: ['vca'], drone: ['oscillator'], tone: ['filter'] }, [
    'turn.out > tone.cutoff2',
    'drone.saw > tone.in',
    'tone.lowpass > amp.in',
  ]),
);
const indexOf = (id: string): number => graph.modules.find((m) => m.id === id)?.index ?? -1;

/** What a place is, short: the socket of the destination, or which side of the module. */
function said(socket: string, quantity?: string): string {
  const place = placeOf(graph, socket, quantity);
  if (!place) return 'nowhere';
  const m = graph.modules[place.module]!;
  if (place.at.is === 'end') return `end ${m.id}.${place.at.spec.socket}`;
  return place.at.is === 'input'
    ? `in ${m.inputs[place.at.index]?.socket}`
    : `out ${m.outputs[place.at.index]?.socket}`;
}

describe('where a target is looked at', () => {
  it.each([
    ['tone.cutoff', undefined, 'end tone.cutoff'],
    // What only adds to a destination stands for all of it, unless its own volts are asked for.
    ['tone.cutoff2', undefined, 'end tone.cutoff'],
    ['tone.pitch', 'frequency', 'end tone.cutoff'],
    ['tone.cutoff2', 'volts', 'in tone.cutoff2'],
    // The destination itself, in volts, is still all that counts there.
    ['tone.cutoff', 'volts', 'end tone.cutoff'],
    ['tone.in', undefined, 'in tone.in'],
    ['turn.out', undefined, 'out turn.out'],
    ['drone.pitch', undefined, 'end drone.pitch'],
    ['tone.nothing', undefined, 'nowhere'],
    ['nobody.out', undefined, 'nowhere'],
  ] as const)('%s in %s: %s', (socket, quantity, is) => {
    expect(said(socket, quantity)).toBe(is);
  });

  it('is the socket’s own voltage for crossings and shapes, also at a destination', () => {
    const like: Target = { at: 'amp.cv', want: 'like', shape: 'triangle' };
    expect(placeOf(graph, 'amp.cv')?.at.is).toBe('end');
    const place = placeOfTarget(graph, like);
    expect(place).toMatchObject({ module: indexOf('amp'), at: { is: 'input' } });
    expect(unitOf(graph, like)).toBe('V');
  });

  it('has the unit of its figures: the destination’s own, or volts', () => {
    const at = (socket: string, quantity: string): Target => ({ at: socket, quantity, low: 200, high: 400 });
    expect(unitOf(graph, at('tone.cutoff', 'frequency'))).toBe('Hz');
    expect(unitOf(graph, at('tone.cutoff', 'volts'))).toBe('V');
    expect(unitOf(graph, at('turn.out', 'volts'))).toBe('V');
    expect(unitOf(graph, at('nobody.in', 'volts'))).toBe('V');
  });
});
