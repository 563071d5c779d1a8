import { isSocket, partsOf } from './sockets';
import type { Reader } from './reader';
import { own, shown } from './reader';
import { LIMITS } from './types';
import type { Places } from './targets';
import { quantitiesIn } from './quantities';
import type { Bypass, Cable, Dismissal, ModuleDoc, Normal, Probe } from './types';

/** The sockets of the modules read so far, by `moduleId`. */
export type Sockets = Map<string, { readonly inputs: ReadonlySet<string>; readonly outputs: ReadonlySet<string> }>;

/** A socket `moduleId.name` that exists, on the side asked for. */
function readSocket(r: Reader, x: unknown, path: string, sockets: Sockets, side: 'input' | 'output' | 'any'): string {
  const text = r.text(x, path, 100);
  if (typeof x !== 'string') return text;
  const { id, name } = partsOf(text);
  const found = sockets.get(id);
  if (!isSocket(text)) r.fail(path, `must be moduleId.socketName, got ${shown(text)}`);
  else if (!found) r.fail(path, `there is no module ${shown(id)}`);
  else {
    const fits = (side !== 'output' && found.inputs.has(name)) || (side !== 'input' && found.outputs.has(name));
    const known = side === 'any' ? [...found.inputs, ...found.outputs] : [...found[`${side}s`]];
    const what = side === 'any' ? 'a socket' : `an ${side}`;
    if (!fits) r.fail(path, `${shown(name)} is not ${what} of ${id}; known are ${known.join(', ') || 'none'}`);
  }
  return text;
}

export function readCables(r: Reader, x: unknown, sockets: Sockets): Cable[] {
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

export function readCable(r: Reader, x: unknown, path: string, sockets: Sockets): Cable {
  const c = r.object(x, path);
  r.known(c, path, ['from', 'to']);
  const from = readSocket(r, own(c, 'from'), `${path}.from`, sockets, 'output');
  return { from, to: readSocket(r, own(c, 'to'), `${path}.to`, sockets, 'input') };
}

export function readNormals(r: Reader, x: unknown, sockets: Sockets): Normal[] {
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

/** Where a target may hang: any socket, any module. */
export const placesOf = (r: Reader, sockets: Sockets, modules: readonly ModuleDoc[]): Places => ({
  quantities: (at) => quantitiesIn(modules, at),
  socket: (x, path) => readSocket(r, x, path, sockets, 'any'),
  module: (x, path) => readModule(r, x, path, sockets),
});

/** Inputs and modules that are there. */
export const namesOf = (r: Reader, sockets: Sockets) => ({
  input: (x: unknown, path: string): string => readSocket(r, x, path, sockets, 'input'),
  module: (x: unknown, path: string): string => readModule(r, x, path, sockets),
});

function readModule(r: Reader, x: unknown, path: string, sockets: Sockets): string {
  const id = r.text(x, path, 32);
  if (typeof x === 'string' && !sockets.has(id)) r.fail(path, `there is no module ${shown(id)}`);
  return id;
}

export function readProbe(r: Reader, x: unknown, path: string, sockets: Sockets): Probe {
  const p = r.object(x, path);
  r.known(p, path, ['at', 'label']);
  const at = readSocket(r, own(p, 'at'), `${path}.at`, sockets, 'any');
  return own(p, 'label') === undefined ? { at } : { at, label: r.text(own(p, 'label'), `${path}.label`, LIMITS.label) };
}

export function readDismissal(r: Reader, x: unknown, path: string): Dismissal {
  const d = r.object(x, path);
  r.known(d, path, ['code', 'at', 'reason']);
  return {
    code: r.text(own(d, 'code'), `${path}.code`, 40),
    at: r.text(own(d, 'at'), `${path}.at`, 100),
    reason: r.text(own(d, 'reason'), `${path}.reason`, 500),
  };
}

export function readBypass(r: Reader, x: unknown, path: string, sockets: Sockets): Bypass {
  const b = r.object(x, path);
  r.known(b, path, ['module', 'cables']);
  const id = readModule(r, own(b, 'module'), `${path}.module`, sockets);
  const cables = r
    .list(own(b, 'cables'), `${path}.cables`, LIMITS.cables)
    .map((item, i) => readCable(r, item, `${path}.cables[${i}]`, sockets));
  return { module: id, cables };
}

export function readOrder(r: Reader, x: unknown, sockets: Sockets): string[] {
  return r.list(x, 'order', LIMITS.modules).map((item, i) => readModule(r, item, `order[${i}]`, sockets));
}
