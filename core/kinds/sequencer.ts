import type { Affine } from '../law/affine';
import { gateStateOf, keptGate } from './detect';
import { always, gate, kind } from './kind';
import { volts, setUp } from './params';
import type { StepsSpec } from './params';

const steps: StepsSpec = {
  type: 'steps',
  default: [{ volts: 0, gate: true, tie: false }],
  most: 64,
};

export const sequencer = kind({
  name: 'sequencer',
  title: 'Sequencer',
  does: 'steps through voltages on each clock',
  aliases: ['CV', 'notes', 'steps'],
  words: {
    params: { steps: 'Steps', gateVolts: 'Gate level' },
    says: { steps: 'volts, gate (on unless off), tie (off unless on)' },
  },
  formula:
    'a rising clock (1 V) plays the next step, the first at the first; gate follows the clock while the step’s gate is on, a tie keeps it high; a rising reset makes the next clock play step 1, till then cv holds and gate is low',
  category: 'source',
  source: {
    notes: (output) => output === 'cv',
    repeatsTimes: (p, input) => (input === 'clock' ? p.steps.length : 1),
  },
  params: { steps, gateVolts: setUp(volts(5)) },
  brief: (p) => `${p.steps.length} steps`,
  inputs: () => [gate('clock'), gate('reset')],
  outputs: () => ['cv', 'gate'],
  timing: {
    gates: ['gate'],
  },
  memory: always,
  law(b, p, io): Record<string, Affine> {
    const gateState = gateStateOf(io, 'clock', 1);
    const [first] = p.steps;
    if (gateState === 'low' || !first) return { cv: b.constant(0), gate: b.constant(0) };
    if (gateState === 'high') {
      // Its only step begins at the first sample; a reset after it lets the gate fall, not the voltage.
      const held = gateStateOf(io, 'reset', 1) !== 'moves' || !first.gate;
      const gateVolts = first.gate ? p.gateVolts : 0;
      const gate = held ? b.constant(gateVolts) : io.symbol('gate', Math.min(0, gateVolts), Math.max(0, gateVolts));
      return { cv: b.constant(first.volts), gate };
    }
    const at = p.steps.map((s) => s.volts);
    return {
      cv: io.symbol('cv', Math.min(0, ...at), Math.max(0, ...at)),
      gate: io.symbol('gate', Math.min(0, p.gateVolts), Math.max(0, p.gateVolts)),
    };
  },
  kernel(p, wiring) {
    const [cv, out] = [wiring.output('cv'), wiring.output('gate')];
    const [clockIn, resetIn] = [wiring.input('clock'), wiring.input('reset')];
    const clock = keptGate(wiring, 'clock', 1);
    const reset = keptGate(wiring, 'reset', 1);
    const state = wiring.keep('state', () => ({ index: -1, playing: false, volts: 0 }));
    return (from, to) => {
      for (let i = from; i < to; i++) {
        // On one sample the reset is read first.
        if (reset.rises(resetIn[i] as number)) {
          state.index = -1;
          state.playing = false;
        }
        if (clock.rises(clockIn[i] as number)) {
          state.index = (state.index + 1) % p.steps.length;
          state.playing = true;
          state.volts = p.steps[state.index]?.volts ?? 0;
        }
        const step = state.playing ? p.steps[state.index] : undefined;
        cv[i] = state.volts;
        out[i] = step?.gate && (clock.high || step.tie) ? p.gateVolts : 0;
      }
    };
  },
});
