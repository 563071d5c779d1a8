import { exp2 } from '../law/fastmath';
import { StateVariable } from './filter';
import { always, control, kind, signal } from './kind';
import { lagShare } from './lag';
import { number, seconds } from './params';
import { briefSeconds } from '../units/show';

const LOWEST_HZ = 20;
/** Three decades, in octaves. */
const SPAN = Math.log2(1000);

export const lowPassGate = kind({
  name: 'lowPassGate',
  title: 'Low-pass gate',
  does: 'opens in loudness and brightness together',
  formula: 'u = clamp(cv/unityVolts, 0, 1) through an rc lag; out = u · lowpass at 20·1000^u Hz',
  room: 'between',
  audio: true,
  params: { unityVolts: number(5, 0.5, 12, 'V'), resonance: number(0.1, 0, 1), lag: seconds(0.02, 0, 1) },
  brief: (p) => `lag ${briefSeconds(p.lag)}`,
  inputs: () => [signal('in'), control('cv')],
  outputs: () => ['out'],
  memory: always,
  law: (_b, _p, io) => ({ out: io.symbol('out', -Infinity, Infinity) }),
  kernel(p, wiring) {
    const [input, cv, out] = [wiring.input('in'), wiring.input('cv'), wiring.output('out')];
    const filter = new StateVariable(wiring.sampleRate, p.resonance);
    const share = lagShare(p.lag, wiring.sampleRate);
    let u = 0;
    let tuned = NaN;
    return (from, to, k0) => {
      for (let i = from; i < to; i++) {
        const wanted = Math.min(1, Math.max(0, (cv[i] as number) / p.unityVolts));
        u = k0 + i === 0 ? wanted : u + (wanted - u) * share;
        if (u !== tuned) {
          tuned = u;
          filter.tune(LOWEST_HZ * exp2(SPAN * u));
        }
        filter.step(input[i] as number);
        out[i] = filter.low * u;
      }
    };
  },
});
