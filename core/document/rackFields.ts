import { allKinds, kindNamed } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { ParamValue } from '../kinds/params';
import {
  byDefault,
  constant,
  either,
  id,
  list,
  map,
  number,
  optional,
  pair,
  record,
  text,
  typed,
  whole,
} from './fields';
import type { Declared, Field, ValueOf, ValuesOf } from './fields';
import { oneNormalEach } from './normals';
import { paramField, paramsField } from './paramFields';
import { isObject, own, shown } from './reader';
import type { Reader } from './reader';
import { onlyOnce } from './readField';
import { modeSockets } from './rackModes';
import type { ChannelMode } from './rackModes';
import { channelNormal, checkChannelNormals } from './rackNormals';
import type { PanelPoint } from '../units/knob';
import { LIMITS, NOISE, OHMS } from './limits';

/** What a rack document holds, each field declared once. */

export const RACK_LIMITS = {
  modules: 200,
  channels: 16,
  modes: 8,
  normals: 32,
  points: 64,
  choices: 32,
  hp: 200,
  rows: 40,
  place: 1000,
  measured: 64,
} as const;

const reachOf = (min: number, max: number) =>
  pair(number(min, max), number(min, max), {
    check(r, [low, high], path) {
      if (low > high) r.fail(path, `must rise, got ${low} and ${high}`);
    },
  });

/** A record with a field for each of a kind's parameters that has one. */
function perParam<T>(kind: Kind, member: string, fieldOf: (name: string) => Declared | null) {
  const fields = Object.keys(kind.params).flatMap((name) => {
    const field = fieldOf(name);
    return field ? [[name, optional(field)] as const] : [];
  });
  return typed<Readonly<Record<string, T>>>(
    record(Object.fromEntries(fields), { member: `${member} of ${kind.name}` }),
  );
}

/** What a channel can do while its switches stand one way, as a kind gives it. */
function modeFields(kind: Kind) {
  const specOf = (name: string) => kind.params[name];
  return {
    kind: constant(kind.name),
    fixed: byDefault(paramsField(kind), {}),
    ranges: byDefault(
      perParam<readonly [number, number]>(kind, 'a knob', (name) => {
        const spec = specOf(name);
        return spec?.type === 'number' ? reachOf(spec.min, spec.max) : null;
      }),
      {},
    ),
    choices: byDefault(
      perParam<readonly ParamValue[]>(kind, 'a parameter', (name) => {
        const spec = specOf(name);
        const least = { count: 1, words: 'must allow at least one' };
        return spec ? list(paramField(spec), RACK_LIMITS.choices, { least }) : null;
      }),
      {},
    ),
  };
}

/** What is fixed has no range and no choices beside. */
function checkMode(r: Reader, { fixed, ranges, choices }: ChannelMode, path: string): void {
  for (const key of [...Object.keys(ranges), ...Object.keys(choices)])
    if (Object.hasOwn(fixed, key)) r.fail(`${path}.fixed.${key}`, 'is fixed and has a range or choices too');
}

function unknownKind(r: Reader, given: Readonly<Record<string, unknown>>, path: string): ChannelMode {
  const name = r.text(own(given, 'kind'), `${path}.kind`, 40);
  if (typeof own(given, 'kind') === 'string') r.fail(`${path}.kind`, `there is no kind ${shown(name)}`);
  return { kind: name, fixed: {}, ranges: {}, choices: {} };
}

const mode = typed<ChannelMode>({
  type: 'tagged',
  key: 'kind',
  of: new Map(
    allKinds.map((kind) => [kind.name, record(modeFields(kind), { check: (r, m, path) => checkMode(r, m, path) })]),
  ),
  unknown: unknownKind,
});

const panelPoint = typed<PanelPoint>(
  list(number(-1e6, 1e6), 3, { least: { count: 2, words: 'must have a position and a figure' } }),
);

const panelScale = record(
  {
    scale: reachOf(-1e6, 1e6),
    points: optional(
      list(panelPoint, RACK_LIMITS.points, {
        least: { count: 2, words: 'must have two points or more' },
      }),
    ),
  },
  {
    says: 'printed ends of the panel, and which figure stands at which pointer position, 0..1; where the panel is off, with the value that the knob gives there',
    check(r, { scale, points = [] }, path) {
      points.forEach(([position, figure, value], i) => {
        r.number(position, `${path}.points[${i}][0]`, 0, 1);
        r.number(figure, `${path}.points[${i}][1]`, scale[0], scale[1]);
        const before = points[i - 1];
        if (before && (position <= before[0] || figure <= before[1]))
          r.fail(`${path}.points[${i}]`, 'position and figure must rise from point to point');
        if (before && (value === undefined) !== (before[2] === undefined))
          r.fail(`${path}.points[${i}]`, 'must have a value where the other points have one');
        if (value !== undefined && before?.[2] !== undefined && value <= before[2])
          r.fail(`${path}.points[${i}][2]`, 'value must rise from point to point');
      });
    },
  },
);
/** What a panel says about a knob: its printed ends, and which figure stands at which pointer position (0..1). */
export type PanelScale = ValueOf<typeof panelScale>;

/** What was learned of a channel by measuring it. */
const measured = record({
  gain: optional(number(-10, 10)),
  offsetVolts: optional(number(-12, 12)),
  /** By hand knob, how much further it stands than its pointer says, percent of its travel. */
  pointers: optional(map(number(-100, 100), { most: RACK_LIMITS.measured })),
  /** Where its control is fully open. */
  fullVolts: optional(number(0.1, 24)),
  timeScale: optional(number(0.01, 100)),
  rateScale: optional(number(0.01, 100)),
  centsPerOctave: optional(number(-600, 600)),
  /** One standard error of each of these; a pointer's under `pointer.<knob>`. */
  errors: optional(map(number(0, 1000), { most: RACK_LIMITS.measured })),
  /** The readings that it was told from. */
  readings: optional(whole(0, 1_000_000)),
  /** One sigma of its knobs, as a share of their travel. */
  spread: optional(number(0, 1)),
  at: optional(text(40)),
});

const common = {
  id,
  label: optional(text(LIMITS.label)),
  normals: byDefault(list(channelNormal, RACK_LIMITS.normals, { check: oneNormalEach }), []),
  outputOhms: byDefault(map(number(0, OHMS.max)), {}),
  inputOhms: byDefault(map(number(1, OHMS.max)), {}),
  /** What each of its outputs adds by itself, RMS. */
  noiseMicrovolts: optional(number(0, NOISE.most)),
  knobs: byDefault(map(panelScale), {}),
  measured: optional(measured),
};
type Modes = readonly [ChannelMode, ...ChannelMode[]];
type Common = ValuesOf<typeof common>;

export interface Channel extends Common {
  /** One, or what a switch turns it into; it plays one at a time. */
  readonly modes: Modes;
}

/** A channel as a document writes it: with one mode's fields beside its own, or with a list of modes. */
export type ChannelDoc = Common & (ChannelMode | { readonly modes: readonly ChannelMode[] });

const kindChannel = typed<Common & ChannelMode>({
  type: 'tagged',
  key: 'kind',
  of: new Map(
    allKinds.map((kind) => [
      kind.name,
      record({ ...common, ...modeFields(kind) }, { check: (r, c, path) => checkMode(r, c, path) }),
    ]),
  ),
  unknown: (r, given, path) => ({
    id: '',
    normals: [],
    outputOhms: {},
    inputOhms: {},
    knobs: {},
    ...unknownKind(r, given, path),
  }),
});
const switched = record(
  {
    ...common,
    modes: list(mode, RACK_LIMITS.modes, { least: { count: 1, words: 'must have at least one mode' } }),
  },
  { says: 'a switch turns it into one of these at a time' },
);
const channel: Field<ChannelDoc> = typed(
  either([kindChannel, switched], (x) => (isObject(x) && own(x, 'modes') !== undefined ? 1 : 0)),
);

/** The modes of a channel, of which there is one at least. */
export function modesOf(doc: ChannelDoc): Modes {
  if (!('modes' in doc)) {
    const { kind, fixed, ranges, choices } = doc;
    return [{ kind, fixed, ranges, choices }];
  }
  const [first, ...others] = doc.modes;
  return [first ?? { kind: '', fixed: {}, ranges: {}, choices: {} }, ...others];
}

/** The sockets and knobs that a channel names are among those of its modes. */
function checkNames(r: Reader, doc: ChannelDoc, path: string): void {
  const modes = modesOf(doc);
  const sockets = modes.map(modeSockets);
  r.known(
    doc.outputOhms,
    `${path}.outputOhms`,
    sockets.flatMap((s) => s.outputs),
  );
  r.known(
    doc.inputOhms,
    `${path}.inputOhms`,
    sockets.flatMap((s) => s.inputs),
  );
  const knobs = modes.flatMap((m) =>
    Object.entries(kindNamed(m.kind)?.params ?? {}).flatMap(([name, spec]) => (spec.type === 'number' ? [name] : [])),
  );
  r.known(doc.knobs, `${path}.knobs`, [...new Set(knobs)]);
  r.known(doc.measured?.pointers ?? {}, `${path}.measured.pointers`, [...new Set(knobs)]);
}

const rackModule = record({
  id,
  name: optional(text(LIMITS.label)),
  /** Of the catalogue. */
  type: optional(text(LIMITS.label)),
  hp: optional(whole(1, RACK_LIMITS.hp)),
  row: optional(whole(1, RACK_LIMITS.rows)),
  /** Where it begins in its row, in HP. */
  at: optional(whole(0, RACK_LIMITS.place)),
  channels: list(channel, RACK_LIMITS.channels, {
    least: { count: 1, words: 'must have at least one channel' },
    each: checkNames,
    check(r, channels, path) {
      onceEach(r, channels, path);
      const normalled = channels.map((doc) => ({ id: doc.id, normals: doc.normals, modes: modesOf(doc) }));
      checkChannelNormals(r, normalled, path);
    },
  }),
});
type RackModuleDoc = ValueOf<typeof rackModule>;
const onceEach = onlyOnce((x: { readonly id: string }) => x.id, '.id');

export interface RackModule extends Omit<RackModuleDoc, 'name' | 'channels'> {
  readonly name: string;
  readonly channels: readonly Channel[];
}

/** The document, but for what others left on top of it. */
export const rackField = record({
  name: byDefault(text(LIMITS.name), 'My rack'),
  notes: byDefault(text(LIMITS.notes), ''),
  modules: byDefault(list(rackModule, RACK_LIMITS.modules, { check: onceEach }), []),
});

/** A module as a document writes it, with its channels' modes as lists and its name. */
export const moduleFrom = ({ name, channels, ...m }: RackModuleDoc): RackModule => ({
  ...m,
  name: name ?? m.id,
  channels: channels.map((doc): Channel => {
    const { id, label, normals, outputOhms, inputOhms, noiseMicrovolts, knobs, measured: found } = doc;
    return {
      id,
      ...(label !== undefined && { label }),
      modes: modesOf(doc),
      normals,
      outputOhms,
      inputOhms,
      ...(noiseMicrovolts !== undefined && { noiseMicrovolts }),
      knobs,
      ...(found && { measured: found }),
    };
  }),
});
