import type { ParamValues } from '../params';
import { CLIP, num, unclipped } from './standIn';
import type { StandIn, Wanted } from './standIn';

/** A two-quadrant amplifier that does nothing but multiply its input by its control, as a plain product would. */
function isPlainProduct({ params: p, used, range }: Wanted): boolean {
  const [low, high] = range('cv');
  return (
    low >= 0 &&
    high <= num(p, 'maxGain') * num(p, 'unityVolts') &&
    p.response === 0 &&
    p.cvAmount === 1 &&
    p.bias === 0 &&
    p.boostDb === 0 &&
    p.coupling === 'dc' &&
    p.limitVolts === null &&
    num(p, 'bleed') + num(p, 'bleedTrim') === 0 &&
    !used('in2') &&
    !used('cv2') &&
    used('cv')
  );
}

/** A product of two signals without feedthrough, the inputs named as they are there. */
const productNeeds = {
  bleedA: 0,
  bleedB: 0,
  trimA: 0,
  trimB: 0,
  coupling: 'dc',
} as const;

const isPlainRing = ({ params: p }: Wanted): boolean =>
  p.coupling === 'dc' && num(p, 'bleedA') + num(p, 'trimA') === 0 && num(p, 'bleedB') + num(p, 'trimB') === 0;

const modulating = (unityVolts: number): ParamValues => ({
  gain: 1,
  biasAmount: 0,
  modulation: 1,
  curve: 0,
  unityVolts,
});

/** For what multiplies. */
export const multiplying: readonly StandIn[] = [
  {
    wanted: 'vca',
    by: 'ringMod',
    cost: 3,
    says: 'a DC-coupled ring modulator whose control never falls below 0 V is an amplifier',
    as: (w) =>
      isPlainProduct(w) && !w.used('chain')
        ? [
            {
              needs: { ...productNeeds, scaleVolts: num(w.params, 'unityVolts') },
              inputs: { in: 'a', cv: 'b' },
              outputs: { out: 'out' },
            },
          ]
        : [],
  },
  {
    wanted: 'vca',
    by: 'polarizer',
    cost: 3,
    says: 'a polarizer at full modulation works as a VCA',
    as: (w) =>
      isPlainProduct(w) && unclipped(w.range('in'), Math.max(1, w.range('cv')[1] / num(w.params, 'unityVolts')))
        ? [
            {
              needs: { ...modulating(num(w.params, 'unityVolts')), clipVolts: CLIP },
              inputs: { in: 'in', cv: 'cv', chain: 'chain' },
              outputs: { out: 'out' },
            },
          ]
        : [],
  },
  {
    wanted: 'vca',
    by: 'lowPassGate',
    cost: 5,
    says: 'a low-pass gate opens and shuts',
    differs: 'it gets darker as it closes, and responds more slowly',
    as: (w) =>
      isPlainProduct(w) && !w.used('chain')
        ? [
            {
              needs: { unityVolts: num(w.params, 'unityVolts') },
              inputs: { in: 'in', cv: 'cv' },
              outputs: { out: 'out' },
            },
          ]
        : [],
  },
  {
    wanted: 'ringMod',
    by: 'vca',
    cost: 1,
    says: 'a four-quadrant amplifier multiplies both ways',
    as: (w) => {
      const scale = num(w.params, 'scaleVolts');
      const [low, high] = w.range('b');
      return isPlainRing(w)
        ? [
            {
              needs: {
                cvAmount: 1,
                bias: 0,
                unityVolts: scale,
                response: 0,
                quadrants: 4,
                maxGain: Math.max(2, Math.max(-low, high) / scale),
                boostDb: 0,
                coupling: 'dc',
                bleed: 0,
                bleedTrim: 0,
                limitVolts: null,
              },
              inputs: { a: 'in', b: 'cv' },
              outputs: { out: 'out' },
            },
          ]
        : [];
    },
  },
  {
    wanted: 'ringMod',
    by: 'polarizer',
    cost: 2,
    says: 'a polarizer in full modulation multiplies both ways',
    as: (w) => {
      const scale = num(w.params, 'scaleVolts');
      const [low, high] = w.range('b');
      return isPlainRing(w) && unclipped(w.range('a'), Math.max(1, Math.max(-low, high) / scale))
        ? [
            {
              needs: { ...modulating(scale), clipVolts: CLIP },
              inputs: { a: 'in', b: 'cv' },
              outputs: { out: 'out' },
            },
          ]
        : [];
    },
  },
];
