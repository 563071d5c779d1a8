import { any, choice, constant, flag, list, number, optional, record, text, typed } from '../document/fields';
import { documentSchema } from '../document/schema';
import type { Schema } from '../document/schema';

/** What sheets and change sheets hold, declared for who reads them elsewhere. */

const ANY = 100_000;
const words = text(2000);
const figure = number(-Infinity, Infinity);
const maybe = { ...figure, none: true } as const;

const cable = record({ from: words, to: words });
const common = { id: words, part: words, text: words };
const knob = record({ param: words, value: figure, percent: figure, clock: words, panel: optional(figure) });
const meter = record({
  quantity: choice(['low', 'high', 'mean', 'steady', 'rms', 'percent', 'pulses']),
  value: figure,
  plusMinus: figure,
  unit: choice(['V', '%', '/s']),
});
const measured = record({
  at: words,
  meter: list(meter, 8),
  scope: record({ peakToPeak: figure, period: maybe }),
});
const heard = record({ at: words, ear: words, low: maybe, high: maybe, unit: words });
const broken = record({ to: words, volts: optional(figure), from: optional(words) });

const STEPS = {
  note: record({ ...common, do: constant('note') }),
  set: record({
    ...common,
    do: constant('set'),
    module: words,
    rack: any,
    channel: any,
    knobs: list(knob, ANY),
    setup: list(record({ param: words, value: any }), ANY),
  }),
  plug: record({ ...common, do: constant('plug'), cable, breaks: list(broken, ANY), split: flag }),
  unplug: record({ ...common, do: constant('unplug'), cable }),
  measure: record({ ...common, do: constant('measure'), expect: measured }),
  listen: record({ ...common, do: constant('listen'), expect: heard }),
};

const step = typed<unknown>({ type: 'tagged', key: 'do', of: new Map(Object.entries(STEPS)) });

export const sheetField = record({
  patch: words,
  rack: any,
  needs: record({
    modules: list(record({ module: words, label: words, kind: words, rack: any, channel: any, standIn: any }), ANY),
    cables: number(0, ANY, { whole: true }),
    splits: list(record({ at: words, ways: number(2, ANY, { whole: true }) }), ANY),
    short: list(record({ module: words, kind: words, why: words }), ANY),
  }),
  cautions: list(words, ANY),
  steps: list(step, ANY),
});

export const changeField = record({ from: words, to: words, steps: list(step, ANY) });

/** The JSON Schema of a patch sheet. */
export const sheetSchema = (): Schema => documentSchema('Fenvo patch sheet, version 1', 'fenvo.sheet', sheetField, {});

/** The JSON Schema of a change sheet. */
export const changeSchema = (): Schema =>
  documentSchema('Fenvo change sheet, version 1', 'fenvo.change', changeField, {});
