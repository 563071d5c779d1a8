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
import type {
  Bypass,
  Cable,
  Dismissal,
  Json,
  ModuleDoc,
  Normal,
  Patch,
  PatchError,
  Probe,
  Result,
  Settings,
  Target,
  Variant,
} from './types';

const TOP = [
  'format',
  'version',
  'name',
  'notes',
  'settings',
  'modules',
  'cables',
  'normals',
  'targets',
  'probes',
  'order',
  'dismissed',
  'bypassed',
  'variants',
];
const idPattern = new RegExp(ID_PATTERN);

/** The sockets of the modules read so far, by `moduleId`. */
type Sockets = Map<string, { readonly inputs: ReadonlySet<string>; readonly outputs: ReadonlySet<string> }>;

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
  const patch: Patch = {
    format: 'fenvo.patch',
    version: 1,
    name: own(doc, 'name') === undefined ? 'Untitled' : r.text(own(doc, 'name'), 'name', LIMITS.name),
    notes: own(doc, 'notes') === undefined ? '' : r.text(own(doc, 'notes'), 'notes', LIMITS.notes),
    settings,
    modules,
    cables: readCables(r, own(doc, 'cables'), sockets),
    normals: readNormals(r, own(doc, 'normals'), sockets),
    targets: r
      .list(own(doc, 'targets'), 'targets', LIMITS.targets)
      .map((x, i) => readTarget(r, x, `targets[${i}]`, sockets)),
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

/** A socket `moduleId.name` that exists, on the side asked for. */
function readSocket(r: Reader, x: unknown, path: string, sockets: Sockets, side: 'input' | 'output' | 'any'): string {
  const text = r.text(x, path, 100);
  if (typeof x !== 'string') return text;
  const [id = '', name = '', ...rest] = text.split('.');
  const found = sockets.get(id);
  if (rest.length > 0 || !name) r.fail(path, `must be moduleId.socketName, got ${shown(text)}`);
  else if (!found) r.fail(path, `there is no module ${shown(id)}`);
  else {
    const fits = (side !== 'output' && found.inputs.has(name)) || (side !== 'input' && found.outputs.has(name));
    const known = side === 'any' ? [...found.inputs, ...found.outputs] : [...found[`${side}s`]];
    const what = side === 'any' ? 'a socket' : `an ${side}`;
    if (!fits) r.fail(path, `${shown(name)} is not ${what} of ${id}; known are ${known.join(', ') || 'none'}`);
  }
  return text;
}

function readCables(r: Reader, x: unknown, sockets: Sockets): Cable[] {
  const taken = new Set<string>();
  return r.list(x, 'cables', LIMITS.cables).map((item, i) => {
    const path = `cables[${i}]`;
    const cable = readCable(r, item, path, sockets);
    if (taken.has(cable.to))
      r.fail(`${path}.to`, `${cable.to} already has a cable; an input takes one (add a mixer or a junction)`);
    taken.add(cable.to);
    return cable;
  });
}

function readCable(r: Reader, x: unknown, path: string, sockets: Sockets): Cable {
  const c = r.object(x, path);
  r.known(c, path, ['from', 'to']);
  const from = readSocket(r, own(c, 'from'), `${path}.from`, sockets, 'output');
  return { from, to: readSocket(r, own(c, 'to'), `${path}.to`, sockets, 'input') };
}

function readNormals(r: Reader, x: unknown, sockets: Sockets): Normal[] {
  const taken = new Set<string>();
  return r.list(x, 'normals', LIMITS.normals).map((item, i) => {
    const path = `normals[${i}]`;
    const n = r.object(item, path);
    const to = readSocket(r, own(n, 'to'), `${path}.to`, sockets, 'input');
    if (taken.has(to)) r.fail(`${path}.to`, `${to} already has a normal`);
    taken.add(to);
    if (own(n, 'from') === undefined) {
      r.known(n, path, ['to', 'volts']);
      return { to, volts: r.number(own(n, 'volts'), `${path}.volts`, -24, 24) };
    }
    r.known(n, path, ['to', 'from', 'brokenBy']);
    const from = readSocket(r, own(n, 'from'), `${path}.from`, sockets, 'any');
    if (own(n, 'brokenBy') === undefined) return { to, from };
    return { to, from, brokenBy: r.oneOf(own(n, 'brokenBy'), `${path}.brokenBy`, ['source'] as const) };
  });
}

function readTarget(r: Reader, x: unknown, path: string, sockets: Sockets): Target {
  const t = r.object(x, path);
  r.known(t, path, ['at', 'quantity', 'low', 'high']);
  const low = r.number(own(t, 'low'), `${path}.low`, -1e9, 1e9);
  const high = r.number(own(t, 'high'), `${path}.high`, -1e9, 1e9);
  if (low > high) r.fail(`${path}.low`, `must not be above high, got ${low} and ${high}`);
  const at = readSocket(r, own(t, 'at'), `${path}.at`, sockets, 'any');
  return { at, quantity: r.text(own(t, 'quantity'), `${path}.quantity`, 40), low, high };
}

function readProbe(r: Reader, x: unknown, path: string, sockets: Sockets): Probe {
  const p = r.object(x, path);
  r.known(p, path, ['at', 'label']);
  const at = readSocket(r, own(p, 'at'), `${path}.at`, sockets, 'any');
  return own(p, 'label') === undefined ? { at } : { at, label: r.text(own(p, 'label'), `${path}.label`, LIMITS.label) };
}

function readDismissal(r: Reader, x: unknown, path: string): Dismissal {
  const d = r.object(x, path);
  r.known(d, path, ['code', 'at', 'reason']);
  return {
    code: r.text(own(d, 'code'), `${path}.code`, 40),
    at: r.text(own(d, 'at'), `${path}.at`, 100),
    reason: r.text(own(d, 'reason'), `${path}.reason`, 500),
  };
}

function readBypass(r: Reader, x: unknown, path: string, sockets: Sockets): Bypass {
  const b = r.object(x, path);
  r.known(b, path, ['module', 'cables']);
  const id = r.text(own(b, 'module'), `${path}.module`, 32);
  if (typeof own(b, 'module') === 'string' && !sockets.has(id))
    r.fail(`${path}.module`, `there is no module ${shown(id)}`);
  const cables = r
    .list(own(b, 'cables'), `${path}.cables`, LIMITS.cables)
    .map((item, i) => readCable(r, item, `${path}.cables[${i}]`, sockets));
  return { module: id, cables };
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
  probes: [],
  order: [],
  dismissed: [],
  bypassed: [],
  variants: [],
  extra: {},
};

function readOrder(r: Reader, x: unknown, sockets: Sockets): string[] {
  return r.list(x, 'order', LIMITS.modules).map((item, i) => {
    const id = r.text(item, `order[${i}]`, 32);
    if (typeof item === 'string' && !sockets.has(id)) r.fail(`order[${i}]`, `there is no module ${shown(id)}`);
    return id;
  });
}
