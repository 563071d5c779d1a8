import { byDefault, choice, list, number, optional, record, socket, text } from '../document/fields';
import type { ValueOf } from '../document/fields';
import { noteModules } from '../document/patch';
import { documentFields } from '../document/depth';
import { own, Reader, shown } from '../document/reader';
import { documentSchema } from '../document/schema';
import type { Schema } from '../document/schema';
import { readDeclaredFields } from '../document/readField';
import { idOf, nameOf, SOCKET_PATTERN } from '../document/sockets';
import type { Patch, PatchError, Result } from '../document/types';
import { knobsIn } from '../document/knobs';
import type { Edit } from '../edit/edit';
import { buildGraph } from '../graph/graph';
import { actId, Order } from '../sheet/order';
import type { Cable } from '../document/types';
import { figuresAt, pluggedSoFar, READ_OF } from '../sheet/expect';
import type { Asset } from '../sheet/expect';
import { READ_QUANTITIES, READING_LIMITS } from './quantities';
import type { ReadQuantity } from './quantities';

const knobSet = record({
  at: text(100, { pattern: { shape: new RegExp(SOCKET_PATTERN), words: 'moduleId.parameter' } }),
  value: number(-READING_LIMITS.value, READING_LIMITS.value),
});

export const readingFields = {
  /** An output, or an input: then what arrives there. */
  at: socket('any'),
  quantity: choice(READ_QUANTITIES),
  value: number(-READING_LIMITS.value, READING_LIMITS.value),
  unit: optional(text(8)),
  /** One instrument's share; left out: a usual one's. */
  plusMinus: optional(number(0, READING_LIMITS.value)),
  /** The step of the sheet at which it was read; left out: with every cable plugged. */
  step: optional(text(READING_LIMITS.step)),
  /** Hand knobs that stood otherwise than planned, on purpose. */
  knobs: byDefault(list(knobSet, READING_LIMITS.knobs), []),
};
const reading = record(readingFields, { says: 'a figure that was read at a socket' });
export type BenchReading = ValueOf<typeof reading>;

/** Readings of one patch, as a document. */
const readingsField = record({ readings: byDefault(list(reading, READING_LIMITS.most), []) });

/** The JSON Schema of readings. */
export const readingsSchema = (): Schema =>
  documentSchema('Fenvo readings, version 1', 'fenvo.readings', readingsField, {});

export interface ReadingsDocument {
  readonly format: 'fenvo.readings';
  readonly version: 1;
  readonly readings: readonly BenchReading[];
}

export const readingsDocument = (readings: readonly BenchReading[]): ReadingsDocument => ({
  format: 'fenvo.readings',
  version: 1,
  readings,
});

/** The cables that the sheet of a patch has plugged before each of its steps. */
export function pluggedBefore(patch: Patch): ReadonlyMap<string, readonly Cable[]> {
  const plugged: Cable[] = [];
  const before = new Map<string, readonly Cable[]>();
  for (const act of new Order(buildGraph(patch)).run()) {
    before.set(actId(act), [...plugged]);
    if (act.do === 'plug') plugged.push(act.cable);
  }
  return before;
}

/** The cables that are plugged at a step; all of them without one. */
export const pluggedAt = (
  patch: Patch,
  before: ReadonlyMap<string, readonly Cable[]>,
  step: string | undefined,
): readonly Cable[] => (step === undefined ? undefined : before.get(step)) ?? buildGraph(patch).wiring.cables;

/** Hand knobs that stood elsewhere, as edits. */
export const knobEdits = (knobs: BenchReading['knobs']): Edit[] =>
  knobs.map(({ at, value }): Edit => ({ do: 'set', module: idOf(at), param: nameOf(at), value }));

/** Readings with the same key were taken at one moment: of one step, with the same knobs elsewhere. */
export const momentKey = ({ step, knobs }: Pick<BenchReading, 'step' | 'knobs'>): string =>
  `${step ?? ''} ${knobs.map((k) => `${k.at}=${k.value}`).join()}`;

/** What can be read at a socket of a patch as it is plugged, by the sort of voltage that is there. */
export function quantitiesAt(patch: Patch, at: string, asset?: Asset): readonly ReadQuantity[] {
  const { modules } = buildGraph(patch);
  const driver = modules.find((m) => m.id === idOf(at))?.inputs.find((s) => s.socket === at)?.driver;
  if (driver?.type === 'volts') return READ_OF.steady;
  const source = driver ? modules[driver.module] : modules.find((m) => m.id === idOf(at));
  const socketRead = driver ? (source?.outputs[driver.output]?.socket ?? at) : at;
  const { sort } = figuresAt(patch, socketRead, asset);
  return source?.kind.sound?.audible && sort === 'audio' ? [...READ_OF.audio, 'hz'] : READ_OF[sort];
}

/**
 * Reads a document of readings of a patch.
 *
 * @returns every fault with its place, `readings[1].at`, where it is refused.
 */
export function parseReadings(json: unknown, patch: Patch, asset?: Asset): Result<ReadingsDocument, PatchError[]> {
  const fields = documentFields(json, 'readings');
  if (!fields.ok) return fields;
  const r = new Reader();
  noteModules(r, patch.modules);
  r.oneOf(own(fields.value, 'format'), 'format', ['fenvo.readings']);
  r.oneOf(own(fields.value, 'version'), 'version', [1]);
  return r.settle((): ReadingsDocument => {
    const read = readDeclaredFields(r, readingsField, fields.value, '');
    if (r.errors.length === 0) checkReadings(r, read.readings, patch, 'readings', asset);
    return { format: 'fenvo.readings', version: 1, readings: read.readings };
  });
}

/**
 * What no field alone can say of readings: their steps, their knobs, and what can be read where.
 *
 * @param known what can be read at sockets of this patch, as far as it was looked at before.
 */
export function checkReadings(
  r: Reader,
  readings: readonly BenchReading[],
  patch: Patch,
  path: string,
  asset?: Asset,
  known = new Map<string, readonly ReadQuantity[]>(),
): void {
  const before = pluggedBefore(patch);
  const knobs = new Map(patch.modules.flatMap((m) => knobsIn(m, patch.settings.bpm)).map((k) => [k.at, k]));
  readings.forEach(({ at, quantity, step, knobs: set }, i) => {
    const place = `${path}[${i}]`;
    const plugged = step === undefined || before.has(step) ? pluggedAt(patch, before, step) : null;
    if (!plugged) r.fail(`${place}.step`, `there is no step ${shown(step)} on the sheet of this patch`);
    set.forEach((k, j) => {
      const knob = knobs.get(k.at);
      if (!knob) r.fail(`${place}.knobs[${j}].at`, `must be a hand knob, as trim.amount; got ${shown(k.at)}`);
      else r.number(k.value, `${place}.knobs[${j}].value`, knob.min, knob.max);
    });
    if (!plugged) return;
    const key = `${at} ${step ?? ''}`;
    const there = known.get(key) ?? quantitiesAt(pluggedSoFar(patch, plugged), at, asset);
    known.set(key, there);
    if (!there.includes(quantity))
      r.fail(`${place}.quantity`, `${nameOf(at)} of ${idOf(at)} has ${there.join(', ')} there; got ${shown(quantity)}`);
  });
}
