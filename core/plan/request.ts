import { socketPlace } from '../document/names';
import { any, byDefault, choice, list, optional, record, socket, text, typed, whole } from '../document/fields';
import { paramsField } from '../document/paramFields';
import { completeParams } from '../document/params';
import { blank, parsePatch } from '../document/parse';
import { noteModules } from '../document/patch';
import { isObject, own, Reader, shown } from '../document/reader';
import { readField } from '../document/readField';
import { idOf, partsOf, socketAt } from '../document/sockets';
import { targetField } from '../document/targets';
import type { Cable, ModuleDoc, Patch, PatchError, Result, Target } from '../document/types';
import { freeId } from '../edit/editSequence';
import { allKinds, kindNamed } from '../kinds';
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

/** What should arrive where, from which source. */
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

const stages = typed<1 | 2 | 3 | 4>(whole(1, 4));
const direction = choice(['with', 'against'] as const);
const sourceKind = record({ kind: text(40), params: byDefault(any, {}) });

/** What a request is read by: its patch, or where it has none each kind as a module of its own name. */
function readerFor(patch: Patch | null): Reader {
  const r = new Reader();
  noteModules(r, patch?.modules ?? allKinds.map(({ name }) => ({ id: name, kind: name })));
  return r;
}

function sourceOf(r: Reader, x: unknown, patch: Patch | null): PlanRequest['from'] {
  if (patch) return readField(r, socket('output'), x, 'from');
  const given = isObject(x) ? readField(r, sourceKind, x, 'from') : { kind: r.text(x, 'from', 40), params: undefined };
  const kind = kindNamed(given.kind);
  if (kind?.category !== 'source')
    r.fail(isObject(x) ? 'from.kind' : 'from', `${shown(given.kind)} is no kind of source`);
  if (!isObject(x) || !kind) return given.kind;
  return { kind: kind.name, params: readField(r, paramsField(kind), given.params, 'from.params') };
}

function destinationOf(r: Reader, x: unknown, patch: Patch | null, path = 'to'): string {
  const missing = typeof x === 'string' && !patch && !kindNamed(idOf(x));
  if (missing) r.fail(path, `there is no kind ${shown(idOf(x))}`);
  return missing ? x : readField(r, socket('input'), x, path);
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
const endsRequest = record({
  patch: any,
  from: socket('output'),
  ends: list(record({ to: any, target: any, direction: optional(direction) }), MOST_ENDS),
  stages: optional(stages),
});

/** Reads a request for several ends; every fault with its place. */
export function readEndsRequest(json: unknown): Result<EndsRequest, PatchError[]> {
  const parsed = parsePatch(isObject(json) ? own(json, 'patch') : undefined);
  if (!parsed.ok) return { ok: false, errors: inPatch(parsed.errors) };
  const patch = parsed.value;
  const r = readerFor(patch);
  return r.settle((): EndsRequest => {
    const { from, ends, stages } = readField(r, endsRequest, json, '');
    const wishes = ends.map((end, i): EndWish => {
      const to = destinationOf(r, end.to, patch, `ends[${i}].to`);
      const target = readWish(r, end.target, to, `ends[${i}].target`);
      return { to, target, ...(end.direction && { direction: end.direction }) };
    });
    return { patch, from, ends: wishes, ...(stages && { stages }) };
  });
}

const planRequest = record({
  patch: optional(any),
  from: any,
  to: any,
  target: any,
  stages: optional(stages),
  direction: optional(direction),
});

/** Reads a request; every fault with its place. */
export function readPlanRequest(json: unknown): Result<PlanRequest, PatchError[]> {
  const given = isObject(json) ? own(json, 'patch') : undefined;
  const parsed = given === undefined ? null : parsePatch(given);
  if (parsed && !parsed.ok) return { ok: false, errors: inPatch(parsed.errors) };
  const patch = parsed?.value ?? null;
  const r = readerFor(patch);
  return r.settle((): PlanRequest => {
    const x = readField(r, planRequest, json, '');
    const from = sourceOf(r, x.from, patch);
    const to = destinationOf(r, x.to, patch);
    const target = readWish(r, x.target, to, 'target');
    const { stages, direction } = x;
    return { ...(patch && { patch }), from, to, target, ...(stages && { stages }), ...(direction && { direction }) };
  });
}

const inPatch = (errors: readonly PatchError[]): PatchError[] =>
  errors.map((e) => ({ ...e, path: e.path ? `patch.${e.path}` : 'patch' }));

/** A target without its place: read as one, at the destination. */
function readWish(r: Reader, x: unknown, to: string, path: string): Wish {
  const given = r.object(x, path);
  // A destination that is not there was reported where it is named.
  if (r.errors.length > 0) return given as unknown as Wish;
  if (own(given, 'at') !== undefined) r.fail(`${path}.at`, 'is the destination, which is named by "to"');
  const { at: _at, ...wish } = readField(r, targetField, { ...given, at: to }, path);
  return wish as Wish;
}

/** What drives a source that waits for a gate: a clock at its first gate. */
function clocked(id: string, kind: Kind, params: ParamValues | undefined): { modules: ModuleDoc[]; cables: Cable[] } {
  const complete = completeParams(kind, params);
  const waits =
    kind.timing?.contour?.gate ??
    (kind.source?.repeatsTimes ? kind.inputs(complete).find((s) => s.role === 'gate')?.name : undefined);
  if (waits === undefined || kind.source?.runs?.(complete)) return { modules: [], cables: [] };
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
  const given = params ?? source.panel?.starts;
  const mover: ModuleDoc = { id: sourceId, kind: sourceName, label: source.title, ...(given && { params: given }) };
  const beat = clocked(sourceId, source, given);
  const modules = [...beat.modules, mover];
  const endId = freeId({ modules }, endName.toLowerCase());
  const opened = openedEnd(endName, socket);
  modules.push({ id: endId, kind: endName, label: end.title, ...(opened && { params: opened }) });
  const output = source.outputs(completeParams(source, given))[0] ?? 'out';
  return {
    patch: { ...blank, name: socketPlace({ label: end.title, kind: end }, socket), modules, cables: beat.cables },
    from: socketAt(sourceId, output),
    to: socketAt(endId, socket),
  };
}
