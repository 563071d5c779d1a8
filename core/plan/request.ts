import { completeParams, readParams } from '../document/params';
import { blank, parsePatch } from '../document/parse';
import { quantitiesAt } from '../document/quantities';
import { isObject, own, Reader, shown } from '../document/reader';
import type { Fields } from '../document/reader';
import { partsOf, socketAt } from '../document/sockets';
import { readTarget } from '../document/targets';
import type { Cable, ModuleDoc, Patch, PatchError, Result, Target } from '../document/types';
import { freeId } from '../edit/work';
import { buildGraph } from '../graph/graph';
import { kindNamed } from '../kinds';
import type { Kind } from '../kinds/kind';
import type { ParamValues } from '../kinds/params';
import type { Direction } from './direction';
import { openedEnd } from './opened';

/** A target without its place. */
export type Wish = DistributiveOmit<Target, 'at'>;
type DistributiveOmit<T, K extends string> = T extends unknown ? Omit<T, K> : never;

export interface SourceKind {
  readonly kind: string;
  readonly params?: ParamValues;
}

/** What shall arrive where, from what. */
export interface PlanRequest {
  readonly patch?: Patch;
  /** An output of the patch; without one a source's kind. */
  readonly from: string | SourceKind;
  /** A destination of the patch; without one `kind.socket`. */
  readonly to: string;
  readonly target: Wish;
  readonly stages?: 1 | 2 | 3 | 4;
  /** Which way it goes while its source rises; left out: either. */
  readonly direction?: Direction;
}

const MOST_STAGES = 4;

function sourceOf(r: Reader, x: unknown, patch: Patch | null): PlanRequest['from'] {
  if (patch) {
    const from = r.text(x, 'from', 100);
    const outputs = buildGraph(patch).modules.flatMap((m) => m.outputs.map((o) => o.socket));
    if (typeof x === 'string' && !outputs.includes(from)) r.fail('from', `${shown(from)} is no output of the patch`);
    return from;
  }
  const name = isObject(x) ? own(x, 'kind') : x;
  const text = r.text(name, isObject(x) ? 'from.kind' : 'from', 40);
  const kind = kindNamed(text);
  if (typeof name === 'string' && kind?.room !== 'source') r.fail('from', `${shown(text)} is no kind of source`);
  if (!isObject(x) || !kind) return text;
  r.known(x, 'from', ['kind', 'params']);
  const given = own(x, 'params') === undefined ? {} : r.object(own(x, 'params'), 'from.params');
  return { kind: text, params: readParams(r, kind, given, 'from.params') };
}

function destinationOf(r: Reader, x: unknown, patch: Patch | null, path = 'to'): string {
  const to = r.text(x, path, 100);
  if (typeof x !== 'string') return to;
  const { id: name, name: socket } = partsOf(to);
  const inputs = patch
    ? (buildGraph(patch)
        .modules.find((m) => m.id === name)
        ?.inputs.map((s) => s.spec.name) ?? null)
    : inputsOfKind(kindNamed(name));
  if (!inputs) r.fail(path, patch ? `there is no module ${shown(name)}` : `there is no kind ${shown(name)}`);
  else if (!inputs.includes(socket))
    r.fail(path, `${shown(socket)} is not an input of ${name}; known are ${inputs.join(', ')}`);
  return to;
}

const inputsOfKind = (kind: Kind | undefined): string[] | null =>
  kind ? kind.inputs(completeParams(kind)).map((s) => s.name) : null;

function readStages(r: Reader, x: unknown): PlanRequest['stages'] {
  return x === undefined ? undefined : (r.whole(x, 'stages', 1, MOST_STAGES) as 1 | 2 | 3 | 4);
}

function readDirection(r: Reader, x: unknown, path: string): Direction | undefined {
  return x === undefined ? undefined : r.oneOf(x, path, ['with', 'against'] as const);
}

/** One of several destinations, with its own span and direction. */
export interface EndWish {
  readonly to: string;
  readonly target: Wish;
  readonly direction?: Direction;
}

/** Several destinations from one source. */
export interface EndsRequest {
  readonly patch: Patch;
  readonly from: string;
  readonly ends: readonly EndWish[];
  readonly stages?: PlanRequest['stages'];
}

const MOST_ENDS = 16;

/** Reads a request for several ends; every fault with its place. */
export function readEndsRequest(json: unknown): Result<EndsRequest, PatchError[]> {
  const r = new Reader();
  const x = r.object(json, '');
  r.known(x, '', ['patch', 'from', 'ends', 'stages']);
  const parsed = parsePatch(own(x, 'patch'));
  if (!parsed.ok)
    return { ok: false, errors: parsed.errors.map((e) => ({ ...e, path: e.path ? `patch.${e.path}` : 'patch' })) };
  const patch = parsed.value;
  const from = sourceOf(r, own(x, 'from'), patch);
  const ends = r.list(own(x, 'ends') ?? null, 'ends', MOST_ENDS).map((item, i): EndWish => {
    const path = `ends[${i}]`;
    const end = r.object(item, path);
    r.known(end, path, ['to', 'target', 'direction']);
    const direction = readDirection(r, own(end, 'direction'), `${path}.direction`);
    return {
      to: destinationOf(r, own(end, 'to'), patch, `${path}.to`),
      target: readWish(r, own(end, 'target'), patch, String(own(end, 'to')), `${path}.target`),
      ...(direction !== undefined && { direction }),
    };
  });
  const stages = readStages(r, own(x, 'stages'));
  if (r.errors.length > 0 || typeof from !== 'string') return { ok: false, errors: r.errors };
  return { ok: true, value: { patch, from, ends, ...(stages !== undefined && { stages }) } };
}

/** Reads a request; every fault with its place. */
export function readPlanRequest(json: unknown): Result<PlanRequest, PatchError[]> {
  const r = new Reader();
  const x = r.object(json, '');
  r.known(x, '', ['patch', 'from', 'to', 'target', 'stages', 'direction']);
  const parsed = own(x, 'patch') === undefined ? null : parsePatch(own(x, 'patch'));
  if (parsed && !parsed.ok) for (const e of parsed.errors) r.fail(`patch.${e.path}`, e.message);
  const patch = parsed?.ok ? parsed.value : null;
  if (parsed && !patch) return { ok: false, errors: r.errors };
  const from = sourceOf(r, own(x, 'from'), patch);
  const to = destinationOf(r, own(x, 'to'), patch);
  const target = readWish(r, own(x, 'target'), patch, to);
  const stages = readStages(r, own(x, 'stages'));
  const direction = readDirection(r, own(x, 'direction'), 'direction');
  if (r.errors.length > 0) return { ok: false, errors: r.errors };
  const value: PlanRequest = {
    ...(patch && { patch }),
    from,
    to,
    target,
    ...(stages !== undefined && { stages }),
    ...(direction !== undefined && { direction }),
  };
  return { ok: true, value };
}

/** What the destination of a request can be asked for; null where there is none such. */
function quantitiesTo(patch: Patch | null, to: string): string[] | null {
  const { id, name } = partsOf(to);
  const m = patch?.modules.find((x) => x.id === id);
  const kind = kindNamed(patch ? (m?.kind ?? '') : id);
  const params = kind && completeParams(kind, m?.params);
  return kind && params && kind.inputs(params).some((s) => s.name === name) ? quantitiesAt(kind, params, name) : null;
}

/** A target without its place: read as one, at a place of its own. */
function readWish(r: Reader, x: unknown, patch: Patch | null, to: string, path = 'target'): Wish {
  const given: Fields = r.object(x, path);
  if (own(given, 'at') !== undefined) r.fail(`${path}.at`, 'is the destination, which is named by "to"');
  const modules = new Set(patch?.modules.map((m) => m.id));
  const target = readTarget(r, { ...given, at: to }, path, {
    quantities: () => quantitiesTo(patch, to),
    socket: (v, path) => r.text(v, path, 100),
    module: (v, path) => {
      const id = r.text(v, path, 32);
      if (!modules.has(id)) r.fail(path, `there is no module ${shown(id)}`);
      return id;
    },
  });
  const { at: _at, ...wish } = target;
  return wish as Wish;
}

/** What drives a source that waits for a gate: a clock at its first gate. */
function clocked(id: string, kind: Kind, params: ParamValues | undefined): { modules: ModuleDoc[]; cables: Cable[] } {
  const complete = completeParams(kind, params);
  const waits =
    kind.contour?.gate ?? (kind.repeatsTimes ? kind.inputs(complete).find((s) => s.role === 'gate')?.name : undefined);
  if (waits === undefined || kind.runs?.(complete)) return { modules: [], cables: [] };
  return {
    modules: [{ id: 'beat', kind: 'clock', label: 'Clock', params: { beats: 2 } }],
    cables: [{ from: 'beat.out', to: socketAt(id, waits) }],
  };
}

/** The patch that a chain is put into, with where it begins and ends. */
export function startOf({ patch, from, to }: PlanRequest): {
  readonly patch: Patch;
  readonly from: string;
  readonly to: string;
} {
  if (patch) return { patch, from: typeof from === 'string' ? from : from.kind, to };
  const { kind: sourceName, params } = typeof from === 'string' ? { kind: from, params: undefined } : from;
  const { id: endName, name: socket } = partsOf(to);
  const [source, end] = [kindNamed(sourceName), kindNamed(endName)];
  if (!source || !end) return { patch: blank, from: '', to };
  const sourceId = freeId(blank, sourceName.toLowerCase());
  const given = params ?? source.starts;
  const mover: ModuleDoc = { id: sourceId, kind: sourceName, label: source.title, ...(given && { params: given }) };
  const beat = clocked(sourceId, source, given);
  const modules = [...beat.modules, mover];
  const endId = freeId({ modules }, endName.toLowerCase());
  const opened = openedEnd(endName, socket);
  modules.push({ id: endId, kind: endName, label: end.title, ...(opened && { params: opened }) });
  const output = source.outputs(completeParams(source, given))[0] ?? 'out';
  return {
    patch: { ...blank, name: `${end.title}, ${socket}`, modules, cables: beat.cables },
    from: socketAt(sourceId, output),
    to: socketAt(endId, socket),
  };
}
