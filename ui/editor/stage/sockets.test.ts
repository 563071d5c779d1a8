import { describe, expect, it } from 'vitest';
import { applyEdits, BoundsEngine, buildGraph } from '@/core';
import type { Patch } from '@/core';
import { patchOf } from '@/core/testing/patch';
import { inputLines, outputLines, outputsOf, outputsText } from './sockets';

const patch = patchOf(
  {
    slow: ['lfo', { lowVolts: -2, highVolts: 3 }, { label: 'Slow' }],
    trim: ['attenuverter', { amount: 0.5 }, { label: 'Trim' }],
    sum: ['mixer', { inputs: 4 }, { label: 'Sum' }],
    tone: ['filter', {}, { label: 'Tone' }],
  },
  ['slow.out > trim.in', 'trim.out > sum.in1', 'trim.out > tone.cutoff', 'sum.out > sum.in2'],
  {},
  {
    normals: [
      { to: 'sum.in3', volts: 5 },
      { to: 'sum.in4', from: 'slow.inverted' },
    ],
  },
);
function linesOf(id: string, of: Patch = patch) {
  const graph = buildGraph(of);
  const bounds = new BoundsEngine().run(graph).get(id);
  const m = graph.modules.find((x) => x.id === id)!;
  return {
    inputs: inputLines(m, graph, bounds),
    outputs: outputLines(m, graph, bounds, (s) => (s === 'trim.out' ? [-1, 1.5] : undefined)),
  };
}

describe('the table of a stage’s sockets', () => {
  it('says what is plugged, the volts there, and where outputs go', () => {
    const { inputs, outputs } = linesOf('trim');
    expect(inputs).toEqual([
      {
        socket: 'trim.in',
        name: 'in',
        label: 'In',
        from: 'slow.out',
        empty: 'Nothing',
        volts: '\u22122.00 to +3.00',
        late: false,
      },
    ]);
    expect(outputs[0]).toMatchObject({
      name: 'out',
      volts: '\u22121.00 to +1.50',
      feeds: '2 inputs',
      settled: 'Settles to \u22121.00 to +1.50\u00a0V',
    });
    expect(linesOf('slow').outputs.find((o) => o.name === 'out')).toMatchObject({ feeds: 'Trim in', settled: '' });
    expect(linesOf('slow').outputs.find((o) => o.name === 'quadrature')!.feeds).toBe('');
  });
  it('says which normal an empty input gets, and where a cable closes a loop', () => {
    const by = new Map(linesOf('sum').inputs.map((l) => [l.name, l]));
    expect(by.get('in2')).toMatchObject({ from: 'sum.out', late: true });
    expect(by.get('in3')).toMatchObject({ from: '', empty: 'Normal: +5.00\u00a0V', late: false });
    expect(by.get('in4')).toMatchObject({ from: '', empty: 'Normal: Slow inverted out' });
    // An input that nothing reaches has no volts to show.
    expect(
      linesOf('tone')
        .inputs.filter((l) => l.volts !== '')
        .map((l) => l.name),
    ).toEqual(['cutoff']);
  });
  it('a plug breaks the normal, and taking it out brings it back', () => {
    const plugged = applyEdits(patch, [{ do: 'plug', cable: { from: 'slow.sine', to: 'sum.in4' } }]);
    expect(linesOf('sum', plugged).inputs[3]).toMatchObject({ from: 'slow.sine', empty: 'Nothing' });
  });
});

describe('the outputs that can be plugged', () => {
  it('pass as text and come back, in order, with the names people gave', () => {
    const { modules } = buildGraph(patch);
    const options = outputsOf(outputsText(modules));
    expect(options.map((o) => o.socket)).toEqual(modules.flatMap((m) => m.outputs.map((o) => o.socket)));
    expect(options[0]).toEqual({ socket: 'slow.out', name: 'Slow out' });
    expect(outputsOf('')).toEqual([]);
  });
});
