import { readHands } from './hands';
import { LISTS } from './state';
import { macrosByLabels, readMacros } from './macros';
import { kindNamed } from '../kinds';
import type { Kind } from '../kinds/kind';
import { tooDeep } from './depth';
import { migrate } from './migrate';
import { completeParams, readParams } from './params';
import { Reader, isObject, own, shown } from './reader';
import type { Fields } from './reader';
import { SharedLists, withSharedLists } from './shared';
import { STATE_KEYS, stateOf } from './state';
import { ID_PATTERN, LIMITS, OHMS, SETTINGS } from './types';
import type { Json, ModuleDoc, Patch, PatchError, Result, Settings, Variant } from './types';
import { readTarget } from './targets';
import { namesOf, placesOf, readBypass, readCables, readDismissal, readNormals, readOrder, readProbe } from './wiring';
import type { Sockets } from './wiring';

const TOP: readonly string[] = ['format', 'version', 'name', 'notes', 'settings', ...LISTS];
const idPattern = new RegExp(ID_PATTERN);

/**
 * Reads a patch document.
 *
 * @returns the patch, or every error with its place (`modules[2].params.rateHz`); never throws.
 */
export function parsePatch(json: unknown): Result<Patch, PatchError[]> {
  const r = new Reader();
  if (!isObject(json)) {
    return { ok: false, errors: [{ path: '', message: `must be a patch document (an object), got ${shown(json)}` }] };
  }
  const deep = tooDeep(json);
  if (deep !== null) {
    return { ok: false, errors: [{ path: deep, message: `is nested deeper than ${LIMITS.depth} levels` }] };
  }
  return readPatch(r, json);
}

function readPatch(r: Reader, json: Fields): Result<Patch, PatchError[]> {
  const doc = migrate(r, json);
  if (r.errors.length > 0) return { ok: false, errors: r.errors };
  const settings = readSettings(r, own(doc, 'settings'));
  const sockets: Sockets = new Map();
  const modules = r.list(own(doc, 'modules'), 'modules', LIMITS.modules).map((x, i) => readModule(r, x, i, sockets));
  const cables = readCables(r, own(doc, 'cables'), sockets);
  const patch: Patch = {
    format: 'fenvo.patch',
    version: 1,
    name: own(doc, 'name') === undefined ? 'Untitled' : r.text(own(doc, 'name'), 'name', LIMITS.name),
    notes: own(doc, 'notes') === undefined ? '' : r.text(own(doc, 'notes'), 'notes', LIMITS.notes),
    settings,
    modules,
    cables,
    normals: readNormals(r, own(doc, 'normals'), sockets),
    targets: r
      .list(own(doc, 'targets'), 'targets', LIMITS.targets)
      .map((x, i) => readTarget(r, x, `targets[${i}]`, placesOf(r, sockets, modules))),
    hands: readHands(r, own(doc, 'hands'), modules),
    macros:
      own(doc, 'macros') === undefined
        ? macrosByLabels(modules, cables)
        : readMacros(r, own(doc, 'macros'), modules, namesOf(r, sockets)),
    probes: r.list(own(doc, 'probes'), 'probes', LIMITS.probes).map((x, i) => readProbe(r, x, `probes[${i}]`, sockets)),
    order: readOrder(r, own(doc, 'order'), sockets),
    dismissed: r.list(own(doc, 'dismissed'), 'dismissed', 2000).map((x, i) => readDismissal(r, x, `dismissed[${i}]`)),
    bypassed: r
      .list(own(doc, 'bypassed'), 'bypassed', LIMITS.modules)
      .map((x, i) => readBypass(r, x, `bypassed[${i}]`, sockets)),
    variants: readVariants(r, own(doc, 'variants'), modules),
    extra: readExtra(doc),
  };
  return r.errors.length > 0 ? { ok: false, errors: r.errors } : { ok: true, value: patch };
}

function readExtra(doc: Fields): Record<string, Json> {
  const entries = Object.entries(doc).filter(([key]) => !TOP.includes(key));
  return Object.fromEntries(entries) as Record<string, Json>;
}

function readSettings(r: Reader, x: unknown): Settings {
  const s = x === undefined ? {} : r.object(x, 'settings');
  r.known(s, 'settings', Object.keys(SETTINGS));
  const within = (key: 'railVolts' | 'duration' | 'bpm'): number => {
    const { default: fallback, min, max } = SETTINGS[key];
    return own(s, key) === undefined ? fallback : r.number(own(s, key), `settings.${key}`, min, max);
  };
  const rate = own(s, 'sampleRate');
  const { min, max } = SETTINGS.sampleRate;
  const seed = own(s, 'seed');
  return {
    railVolts: within('railVolts'),
    sampleRate: rate === undefined || rate === 'auto' ? 'auto' : r.number(rate, 'settings.sampleRate', min, max),
    duration: within('duration'),
    seed: seed === undefined ? 1 : r.whole(seed, 'settings.seed', SETTINGS.seed.min, SETTINGS.seed.max),
    loading:
      own(s, 'loading') === undefined
        ? 'electrical'
        : r.oneOf(own(s, 'loading'), 'settings.loading', SETTINGS.loading.options),
    bpm: within('bpm'),
  };
}

function readModule(r: Reader, x: unknown, index: number, sockets: Sockets): ModuleDoc {
  const path = `modules[${index}]`;
  const m = r.object(x, path);
  r.known(m, path, ['id', 'kind', 'label', 'params', 'locked', 'outputOhms', 'inputOhms', 'rack']);
  const id = r.text(own(m, 'id'), `${path}.id`, 32);
  if (typeof own(m, 'id') === 'string' && !idPattern.test(id)) {
    r.fail(`${path}.id`, `must be a small letter, then up to 31 of a-z 0-9 _ -, got ${shown(own(m, 'id'))}`);
  } else if (sockets.has(id)) r.fail(`${path}.id`, `is used twice: ${id}`);
  const name = r.text(own(m, 'kind'), `${path}.kind`, 40);
  const kind = kindNamed(name);
  if (!kind) {
    if (typeof own(m, 'kind') === 'string') r.fail(`${path}.kind`, `there is no kind ${shown(name)}`);
    sockets.set(id, { inputs: new Set(), outputs: new Set() });
    return { id, kind: name };
  }
  return { id, kind: name, ...readModuleParts(r, m, path, kind, id, sockets) };
}

function readModuleParts(
  r: Reader,
  m: Fields,
  path: string,
  kind: Kind,
  id: string,
  sockets: Sockets,
): Partial<ModuleDoc> {
  const given = own(m, 'params');
  const params =
    given === undefined ? undefined : readParams(r, kind, r.object(given, `${path}.params`), `${path}.params`);
  const complete = completeParams(kind, params);
  const inputs = new Set(kind.inputs(complete).map((s) => s.name));
  const outputs = new Set(kind.outputs(complete));
  if (!sockets.has(id)) sockets.set(id, { inputs, outputs });
  const parts: { -readonly [K in keyof ModuleDoc]?: ModuleDoc[K] } = {};
  if (own(m, 'label') !== undefined) parts.label = r.text(own(m, 'label'), `${path}.label`, LIMITS.label);
  if (params) parts.params = params;
  if (own(m, 'locked') !== undefined) {
    parts.locked = r
      .list(own(m, 'locked'), `${path}.locked`, 64)
      .map((p, i) => r.oneOf(p, `${path}.locked[${i}]`, Object.keys(kind.params)));
  }
  if (own(m, 'outputOhms') !== undefined)
    parts.outputOhms = readOhms(r, own(m, 'outputOhms'), `${path}.outputOhms`, outputs, 0);
  if (own(m, 'inputOhms') !== undefined)
    parts.inputOhms = readOhms(r, own(m, 'inputOhms'), `${path}.inputOhms`, inputs, 1);
  if (own(m, 'rack') !== undefined) parts.rack = r.text(own(m, 'rack'), `${path}.rack`, 200);
  return parts;
}

function readOhms(
  r: Reader,
  x: unknown,
  path: string,
  known: ReadonlySet<string>,
  min: number,
): Record<string, number> {
  const fields = r.object(x, path);
  r.known(fields, path, [...known]);
  const entries = Object.entries(fields).map(
    ([key, v]) => [key, r.number(v, `${path}.${key}`, min, OHMS.max)] as const,
  );
  return Object.fromEntries(entries);
}

/** Each variant is read as a patch of its own, so that it can be put on the desk at any time. */
function readVariants(r: Reader, x: unknown, modules: readonly ModuleDoc[]): Variant[] {
  const lists = new SharedLists();
  lists.add(modules, 'modules', 0);
  const taken = new Set<string>();
  return r.list(x, 'variants', LIMITS.variants).map((item, i) => {
    const path = `variants[${i}]`;
    const v = r.object(item, path);
    r.known(v, path, ['name', ...STATE_KEYS]);
    const name = r.text(own(v, 'name'), `${path}.name`, LIMITS.label);
    if (taken.has(name)) r.fail(`${path}.name`, `is used twice: ${shown(name)}`);
    taken.add(name);
    const entries = STATE_KEYS.map((key) => [key, own(v, key)] as const).filter(([, value]) => value !== undefined);
    const linked = withSharedLists(r, own(v, 'modules'), `${path}.modules`, lists);
    const doc = { format: 'fenvo.patch', version: 1, ...Object.fromEntries(entries), modules: linked };
    const state = readPatch(new Reader(r.trusted), doc);
    if (!state.ok) {
      for (const e of state.errors) r.fail(`${path}.${e.path}`, e.message);
      return { name, ...stateOf(blank) };
    }
    lists.add(state.value.modules, `${path}.modules`, 0);
    return { name, ...stateOf(state.value) };
  });
}

/** A patch with nothing in it. */
export const blank: Patch = {
  format: 'fenvo.patch',
  version: 1,
  name: 'Untitled',
  notes: '',
  settings: readSettings(new Reader(), undefined),
  modules: [],
  cables: [],
  normals: [],
  targets: [],
  hands: [],
  macros: [],
  probes: [],
  order: [],
  dismissed: [],
  bypassed: [],
  variants: [],
  extra: {},
};
