import type { ParamValues } from '../params';
import { CLIP, num, unclipped } from './standIn';
import type { Served, StandIn, Wanted } from './standIn';

const through = { inputs: { in: 'in' }, outputs: { out: 'out' } } as const;

/** Nothing is lost at a clip level, and the voltage stays a plain multiple. */
const polarizerNeeds = (gain: number): ParamValues => ({ gain, biasAmount: 0, modulation: 0 });

function byPolarizer({ params, range, used }: Wanted, gain: number): Served[] {
  if (num(params, 'normalVolts') !== 0 && !used('in')) return [];
  return unclipped(range('in'), gain) ? [{ ...through, needs: { ...polarizerNeeds(gain), clipVolts: CLIP } }] : [];
}

/** `gain` times one input of a mixer, plus a bias; straight, by its negated output, or by an inverting one. */
function byMixer(gain: number, bias = 0): Served[] {
  return [false, true].flatMap((inverting) =>
    (['out', 'inverted'] as const).flatMap((output): Served[] => {
      const flips = inverting !== (output === 'inverted');
      const sign = flips ? -1 : 1;
      const needs = { gain1: sign * gain || 0, biasVolts: sign * bias || 0, inverting };
      return [{ needs, inputs: { in: 'in1' }, outputs: { out: output } }];
    }),
  );
}

const carriesNothing = ({ params, used }: Wanted): boolean => used('in') || num(params, 'normalVolts') === 0;
const isActive = ({ params }: Wanted): boolean => params.build !== 'passive';

const offsetNeeds = (amount: number, volts: number): Served[] =>
  volts === 0
    ? [{ ...through, needs: { amount, volts } }]
    : [
        { ...through, needs: { amount, volts, order: 'scaleThenShift' } },
        ...(amount === 0 ? [] : [{ ...through, needs: { amount, volts: volts / amount, order: 'shiftThenScale' } }]),
      ];

/** A mixer that can invert by its own knob, whichever way that stands. */
function bipolar(served: Served): Served {
  return { ...served, needs: { ...served.needs, bipolar: true } };
}

/** For what scales, inverts, offsets or stays. */
export const scaling: readonly StandIn[] = [
  {
    wanted: 'attenuator',
    by: 'attenuverter',
    cost: 1,
    says: 'an attenuverter set clockwise of noon attenuates',
    as: (w) =>
      isActive(w)
        ? [{ ...through, needs: { amount: num(w.params, 'amount'), normalVolts: num(w.params, 'normalVolts') } }]
        : [],
  },
  {
    wanted: 'attenuator',
    by: 'offset',
    cost: 1,
    says: 'a scale and offset with its offset at 0 V attenuates',
    as: (w) => (isActive(w) && carriesNothing(w) ? offsetNeeds(num(w.params, 'amount'), 0) : []),
  },
  {
    wanted: 'attenuator',
    by: 'mixer',
    cost: 2,
    says: 'a mixer with one input used attenuates',
    as: (w) => (isActive(w) && carriesNothing(w) ? byMixer(num(w.params, 'amount')) : []),
  },
  {
    wanted: 'attenuator',
    by: 'polarizer',
    cost: 2,
    says: 'a polarizer without modulation attenuates',
    as: (w) => (isActive(w) ? byPolarizer(w, num(w.params, 'amount')) : []),
  },
  {
    wanted: 'attenuverter',
    by: 'offset',
    cost: 1,
    says: 'a scale and offset with its lift at 0 V shrinks and flips',
    as: (w) => (carriesNothing(w) ? offsetNeeds(num(w.params, 'amount'), 0) : []),
  },
  {
    wanted: 'attenuverter',
    by: 'polarizer',
    cost: 2,
    says: 'a polarizer without modulation shrinks and flips',
    as: (w) => byPolarizer(w, num(w.params, 'amount')),
  },
  {
    wanted: 'attenuverter',
    by: 'mixer',
    cost: 2,
    says: 'a bipolar mixer of which one input is used shrinks and flips',
    as: (w) => (carriesNothing(w) ? byMixer(num(w.params, 'amount')).map(bipolar) : []),
  },
  {
    wanted: 'offset',
    by: 'mixer',
    cost: 2,
    says: 'a mixer with a bias scales and lifts',
    as: ({ params: p }) => {
      const amount = num(p, 'amount');
      const volts = num(p, 'volts') * (p.order === 'shiftThenScale' ? amount : 1);
      return byMixer(amount, volts);
    },
  },
  {
    wanted: 'inverter',
    by: 'attenuverter',
    cost: 1,
    says: 'an attenuverter at −1 inverts',
    as: () => [{ ...through, needs: { amount: -1, normalVolts: 0 } }],
  },
  {
    wanted: 'inverter',
    by: 'offset',
    cost: 1,
    says: 'a scale and offset at −1 inverts',
    as: () => offsetNeeds(-1, 0),
  },
  {
    wanted: 'inverter',
    by: 'mixer',
    cost: 2,
    says: 'a mixer’s inverted output, or an inverting mixer, inverts',
    as: () => byMixer(-1),
  },
  {
    wanted: 'constant',
    by: 'offset',
    cost: 1,
    says: 'a scale and offset with nothing plugged in is a constant voltage',
    as: ({ params: p }) =>
      [
        { volts: num(p, 'volts'), amount: 0, order: 'scaleThenShift' },
        { volts: num(p, 'volts'), amount: 1, order: 'shiftThenScale' },
      ].map((needs) => ({ needs, inputs: {}, outputs: { out: 'out' } })),
  },
  {
    wanted: 'constant',
    by: 'attenuverter',
    cost: 1,
    says: 'an attenuverter with nothing plugged in scales its normal',
    as: ({ params: p }) => [
      {
        needs: {},
        inputs: {},
        outputs: { out: 'out' },
        fromNormal: { to: 'in', param: 'amount', volts: num(p, 'volts') },
      },
    ],
  },
];
