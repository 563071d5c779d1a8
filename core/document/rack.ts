import { kindNamed } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { ParamValue } from '../kinds/params';
import { tooDeep } from './depth';
import { migrateRack } from './migrate';
import { readParam, readParams } from './params';
import { isObject, own, Reader, shown } from './reader';
import type { Fields } from './reader';
import { readChannelNormals } from './rackNormals';
import { modeSockets } from './rackSockets';
import { blankRack, RACK_LIMITS } from './rackTypes';
import type { Channel, ChannelMode, Measured, PanelScale, Rack, RackModule } from './rackTypes';
import { ID_PATTERN, LIMITS, OHMS } from './types';
import type { Json, PatchError, Result } from './types';

const TOP = ['format', 'version', 'name', 'notes', 'modules'];
const MODE = ['kind', 'fixed', 'ranges', 'choices'];
const CHANNEL = ['id', 'label', ...MODE, 'modes', 'normals', 'outputOhms', 'inputOhms', 'knobs', 'measured'];
const idPattern = new RegExp(ID_PATTERN);

/** Reads a rack document; the same refusals as for patches, each with its place. */
export function parseRack(json: unknown): Result<Rack, PatchError[]> {
  if (!isObject(json)) {
    return { ok: false, errors: [{ path: '', message: `must be a rack document (an object), got ${shown(json)}` }] };
  }
  const deep = tooDeep(json);
  if (deep !== null)
    return { ok: false, errors: [{ path: deep, message: `is nested deeper than ${LIMITS.depth} levels` }] };
  const r = new Reader();
  const doc = migrateRack(r, json);
  if (r.errors.length > 0) return { ok: false, errors: r.errors };
  const taken = new Set<string>();
  const text = (key: 'name' | 'notes'): string =>
    own(doc, key) === undefined ? blankRack[key] : r.text(own(doc, key), key, LIMITS[key]);
  const rack: Rack = {
    format: 'fenvo.rack',
    version: 1,
    name: text('name'),
    notes: text('notes'),
    modules: r
      .list(own(doc, 'modules'), 'modules', RACK_LIMITS.modules)
      .map((x, i) => readRackModule(r, x, `modules[${i}]`, taken)),
    extra: Object.fromEntries(Object.entries(doc).filter(([key]) => !TOP.includes(key))) as Record<string, Json>,
  };
  return r.errors.length > 0 ? { ok: false, errors: r.errors } : { ok: true, value: rack };
}

/** An id that is written as ids are and not there yet. */
function readId(r: Reader, x: unknown, path: string, taken: Set<string>): string {
  const id = r.text(x, path, 32);
  if (typeof x === 'string' && !idPattern.test(id))
    r.fail(path, `must be a small letter, then up to 31 of a-z 0-9 _ -, got ${shown(x)}`);
  else if (taken.has(id)) r.fail(path, `is used twice: ${id}`);
  taken.add(id);
  return id;
}

function readRackModule(r: Reader, x: unknown, path: string, taken: Set<string>): RackModule {
  const m = r.object(x, path);
  r.known(m, path, ['id', 'name', 'type', 'hp', 'row', 'at', 'channels']);
  const id = readId(r, own(m, 'id'), `${path}.id`, taken);
  const whole = (key: 'hp' | 'row' | 'at', min: number, max: number) =>
    own(m, key) === undefined ? {} : { [key]: r.whole(own(m, key), `${path}.${key}`, min, max) };
  const channelIds = new Set<string>();
  const channels = r
    .list(own(m, 'channels'), `${path}.channels`, RACK_LIMITS.channels)
    .map((c, i) => readChannel(r, c, `${path}.channels[${i}]`, channelIds));
  if (Array.isArray(own(m, 'channels')) === false || channels.length === 0)
    r.fail(`${path}.channels`, 'must have at least one channel');
  readChannelNormals(r, own(m, 'channels'), `${path}.channels`, channels);
  return {
    id,
    name: own(m, 'name') === undefined ? id : r.text(own(m, 'name'), `${path}.name`, LIMITS.label),
    ...(own(m, 'type') !== undefined && { type: r.text(own(m, 'type'), `${path}.type`, LIMITS.label) }),
    ...whole('hp', 1, RACK_LIMITS.hp),
    ...whole('row', 1, RACK_LIMITS.rows),
    ...whole('at', 0, RACK_LIMITS.place),
    channels,
  };
}

function readChannel(r: Reader, x: unknown, path: string, taken: Set<string>): Channel {
  const c = r.object(x, path);
  r.known(c, path, CHANNEL);
  const id = readId(r, own(c, 'id'), `${path}.id`, taken);
  const modes = readModes(r, c, path);
  const ohms = (side: 'outputOhms' | 'inputOhms', least: number): Record<string, number> => {
    const known = modes.flatMap((mode) => modeSockets(mode)[side === 'outputOhms' ? 'outputs' : 'inputs']);
    const given = own(c, side) === undefined ? {} : r.object(own(c, side), `${path}.${side}`);
    r.known(given, `${path}.${side}`, known);
    return Object.fromEntries(
      Object.entries(given).map(([k, v]) => [k, r.number(v, `${path}.${side}.${k}`, least, OHMS.max)]),
    );
  };
  return {
    id,
    ...(own(c, 'label') !== undefined && { label: r.text(own(c, 'label'), `${path}.label`, LIMITS.label) }),
    modes,
    normals: [],
    outputOhms: ohms('outputOhms', 0),
    inputOhms: ohms('inputOhms', 1),
    knobs: readKnobs(r, own(c, 'knobs'), `${path}.knobs`, modes),
    ...(own(c, 'measured') !== undefined && { measured: readMeasured(r, own(c, 'measured'), `${path}.measured`) }),
  };
}

function readModes(r: Reader, c: Fields, path: string): Channel['modes'] {
  const list = own(c, 'modes');
  if (list === undefined) return [readMode(r, c, path)];
  for (const key of MODE)
    if (own(c, key) !== undefined) r.fail(`${path}.${key}`, 'stands in the modes where there are modes');
  const modes = r.list(list, `${path}.modes`, RACK_LIMITS.modes).map((x, i) => {
    const at = `${path}.modes[${i}]`;
    const mode = r.object(x, at);
    r.known(mode, at, MODE);
    return readMode(r, mode, at);
  });
  const [first, ...others] = modes;
  if (first) return [first, ...others];
  r.fail(`${path}.modes`, 'must have at least one mode');
  return [{ kind: '', fixed: {}, ranges: {}, choices: {} }];
}

function readMode(r: Reader, x: Fields, path: string): ChannelMode {
  const name = r.text(own(x, 'kind'), `${path}.kind`, 40);
  const kind = kindNamed(name);
  if (!kind) {
    if (typeof own(x, 'kind') === 'string') r.fail(`${path}.kind`, `there is no kind ${shown(name)}`);
    return { kind: name, fixed: {}, ranges: {}, choices: {} };
  }
  const part = (key: string): Fields => (own(x, key) === undefined ? {} : r.object(own(x, key), `${path}.${key}`));
  const fixed = readParams(r, kind, part('fixed'), `${path}.fixed`);
  const ranges = Object.fromEntries(
    Object.entries(part('ranges')).map(([key, v]) => [key, readRange(r, kind, key, v, `${path}.ranges.${key}`)]),
  );
  const choices = Object.fromEntries(
    Object.entries(part('choices')).map(([key, v]) => [key, readChoices(r, kind, key, v, `${path}.choices.${key}`)]),
  );
  for (const key of [...Object.keys(ranges), ...Object.keys(choices)])
    if (Object.hasOwn(fixed, key)) r.fail(`${path}.fixed.${key}`, 'is fixed and has a range or choices too');
  return { kind: name, fixed, ranges, choices };
}

function readRange(r: Reader, kind: Kind, key: string, x: unknown, path: string): readonly [number, number] {
  const spec = Object.hasOwn(kind.params, key) ? kind.params[key] : undefined;
  if (spec?.type !== 'number') {
    r.fail(path, `is not a knob of ${kind.name}`);
    return [0, 0];
  }
  return readPair(r, x, path, spec.min, spec.max);
}

function readPair(r: Reader, x: unknown, path: string, min: number, max: number): readonly [number, number] {
  const list = r.list(x ?? null, path, 2);
  const low = r.number(list[0], `${path}[0]`, min, max);
  const high = r.number(list[1], `${path}[1]`, min, max);
  if (low >= high && list.length === 2 && low !== high) r.fail(path, `must rise, got ${low} and ${high}`);
  return [low, high];
}

function readChoices(r: Reader, kind: Kind, key: string, x: unknown, path: string): ParamValue[] {
  const spec = Object.hasOwn(kind.params, key) ? kind.params[key] : undefined;
  if (!spec) {
    r.fail(path, `is not a parameter of ${kind.name}`);
    return [];
  }
  const list = r.list(x ?? null, path, 32);
  if (list.length === 0) r.fail(path, 'must allow at least one');
  return list.map((v, i) => readParam(r, spec, v, `${path}[${i}]`));
}

function readKnobs(r: Reader, x: unknown, path: string, modes: Channel['modes']): Record<string, PanelScale> {
  const given = x === undefined ? {} : r.object(x, path);
  const known = modes.flatMap((mode) =>
    Object.entries(kindNamed(mode.kind)?.params ?? {}).flatMap(([name, spec]) =>
      spec.type === 'number' ? [name] : [],
    ),
  );
  r.known(given, path, [...new Set(known)]);
  return Object.fromEntries(Object.entries(given).map(([key, v]) => [key, readScale(r, v, `${path}.${key}`)]));
}

function readScale(r: Reader, x: unknown, path: string): PanelScale {
  const k = r.object(x, path);
  r.known(k, path, ['scale', 'points']);
  const scale = readPair(r, own(k, 'scale'), `${path}.scale`, -1e6, 1e6);
  if (own(k, 'points') === undefined) return { scale };
  const points = r.list(own(k, 'points'), `${path}.points`, RACK_LIMITS.points).map((p, i) => {
    const at = `${path}.points[${i}]`;
    const pair = r.list(p, at, 2);
    return [r.number(pair[0], `${at}[0]`, 0, 1), r.number(pair[1], `${at}[1]`, scale[0], scale[1])] as const;
  });
  points.forEach(([position, figure], i) => {
    const before = points[i - 1];
    if (before && (position <= before[0] || figure <= before[1]))
      r.fail(`${path}.points[${i}]`, 'position and figure must rise from point to point');
  });
  if (points.length === 1) r.fail(`${path}.points`, 'must have two points or more');
  return { scale, points };
}

function readMeasured(r: Reader, x: unknown, path: string): Measured {
  const m = r.object(x, path);
  r.known(m, path, ['gain', 'offsetVolts', 'spread', 'at']);
  const figure = (key: 'gain' | 'offsetVolts' | 'spread', min: number, max: number) =>
    own(m, key) === undefined ? {} : { [key]: r.number(own(m, key), `${path}.${key}`, min, max) };
  return {
    ...figure('gain', -10, 10),
    ...figure('offsetVolts', -12, 12),
    ...figure('spread', 0, 1),
    ...(own(m, 'at') !== undefined && { at: r.text(own(m, 'at'), `${path}.at`, 40) }),
  };
}
