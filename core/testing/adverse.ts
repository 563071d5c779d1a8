/** Documents near the limits that are wrong in as many places as they can be: what a refusal must be quick at. */

const doc = (more: object): object => ({ format: 'fenvo.patch', version: 1, ...more });
const times = <T>(n: number, make: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => make(i));

const modules = times(400, (i) => ({ id: `m${i}`, kind: 'filter' }));
const points = (n: number, t: (i: number) => unknown) => times(n, (i) => ({ t: t(i), volts: 0 }));

/** By what is wrong with them; each as text, under the limit of a file. */
export const adverse: Readonly<Record<string, () => object>> = {
  'unknown keys of one object': () =>
    doc({ settings: Object.fromEntries(times(400_000, (i) => [`k${i}`, 0] as const)) }),
  'unknown keys of every module': () =>
    doc({
      modules: modules.map((m) => ({ ...m, params: Object.fromEntries(times(900, (i) => [`k${i}`, 0] as const)) })),
    }),
  'keys of a channel’s ohms': () =>
    doc({
      modules: modules.map((m) => ({ ...m, outputOhms: Object.fromEntries(times(900, (i) => [`k${i}`, 1] as const)) })),
    }),
  'points that do not rise': () =>
    doc({ modules: times(25, (i) => ({ id: `g${i}`, kind: 'gesture', params: { points: points(10_000, () => 1) } })) }),
  'points without a figure': () =>
    doc({
      modules: times(25, (i) => ({ id: `g${i}`, kind: 'gesture', params: { points: points(10_000, () => 'x') } })),
    }),
  'points with unknown keys': () =>
    doc({
      modules: times(12, (i) => ({
        id: `g${i}`,
        kind: 'gesture',
        params: { points: times(10_000, (n) => ({ t: n, volts: 0, a: 0, b: 0, c: 0 })) },
      })),
    }),
  'cables to nowhere': () => doc({ modules, cables: times(2000, (i) => ({ from: `m${i}.none`, to: 'm0.none' })) }),
  'targets of other quantities': () =>
    doc({ modules, targets: times(400, (i) => ({ at: `m${i}.cutoff`, quantity: 'seconds', low: 0, high: 1 })) }),
  'hands on no knob': () =>
    doc({ modules, hands: times(400, (i) => ({ at: `m${i}.none`, points: points(200, (n) => n) })) }),
  'hands beyond their knob': () =>
    doc({
      modules,
      hands: times(25, (i) => ({ at: `m${i}.resonance`, points: times(6000, (t) => ({ t, value: 99 })) })),
    }),
  'macros on each other’s stages': () =>
    doc({
      modules,
      macros: times(64, (i) => ({
        fader: `m${i}`,
        rows: times(64, () => ({ end: 'm0.cutoff', curve: 'none', stages: times(8, () => 'm1') })),
      })),
    }),
  'variants, each with every module': () =>
    doc({
      modules,
      variants: times(40, (i) => ({
        name: `v${i}`,
        modules: modules.map((m) => ({ ...m, params: { cutoffHz: -1 } })),
      })),
    }),
  'variants with cables to nowhere': () =>
    doc({
      modules: modules.slice(0, 2),
      variants: times(40, (i) => ({
        name: `v${i}`,
        modules: modules.slice(0, 200),
        cables: times(1000, (n) => ({ from: `m${n}.out`, to: 'm0.x' })),
      })),
    }),
  'lists that are too long': () => doc({ modules: times(300_000, () => ({})), cables: times(300_000, () => 0) }),
  'dismissals of numbers': () => doc({ dismissed: times(2000, () => times(1000, () => 0)) }),
  'one module twice over': () => doc({ modules: times(400, () => ({ id: 'a', kind: 'lfo' })) }),
  'an order of nobody': () => doc({ order: times(400, (i) => `n${i}`) }),
};
