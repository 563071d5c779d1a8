import { diagnose } from '../bench/diagnose';
import { allReadings } from '../bench/everywhere';
import type { Fault } from '../bench/faults';
import { meterShare } from '../bench/figures';
import type { Reading } from '../bench/figures';
import { Looks } from '../bench/looks';
import type { BenchReading } from '../bench/readings';
import { readingUnit } from '../bench/quantities';
import { quantitiesAt } from '../bench/readings';
import { SimulatedRack } from '../bench/simulated';
import { buildGraph } from '../graph/graph';
import { endsOf } from '../graph/strip';
import type { Answer, Exercise } from './types';

/** Two faults are one where no figure of the patch differs by more, in sigmas. */
const ALIKE = 1;
/** Asking what to measure next goes on for so long at most. */
const MOST_READINGS = 12;

/** The simulated rack of an exercise: its fault, its modules’ errors, its meter’s noise. */
const rackOf = ({ patch, seed }: Exercise, fault: Fault): SimulatedRack =>
  new SimulatedRack(patch, { seed, faults: [fault] });

/** Every figure that can be read at a socket of the rack. @throws where nothing can be read there. */
export function readingsAt(exercise: Exercise, fault: Fault, at: string): BenchReading[] {
  const places = quantitiesAt(exercise.patch, at).map((quantity): Reading => ({ at, quantity, knobs: [] }));
  const values = rackOf(exercise, fault).readAll(places);
  return places.map(({ quantity }, i) => ({
    at,
    quantity,
    value: values[i] as number,
    unit: readingUnit(quantity),
    knobs: [],
  }));
}

const samePlace = (a: Fault, b: Fault): boolean => {
  const bare = (f: Fault): string => JSON.stringify({ ...f, value: 0, gain: 0, volts: 0, ohms: 0 });
  return bare(a) === bare(b);
};

/** Whether a fault does the same as another wherever it can be measured. */
function isAlike(exercise: Exercise, a: Fault, b: Fault): boolean {
  if (samePlace(a, b)) return true;
  const { patch } = exercise;
  const looks = new Looks(patch, allReadings(patch, undefined), { quick: true });
  const [one, two] = [looks.predict([a]), looks.predict([b])];
  return one.every((v, i) => {
    const plan = looks.planned[i] ?? 0;
    return Math.abs(v - (two[i] as number)) <= ALIKE * looks.sigma(i, meterShare('low', plan));
  });
}

/** Sockets that are measured until the fault is found, from the destination on, always where it tells most. */
export function socketsNeeded(exercise: Exercise, fault: Fault): number {
  const { patch } = exercise;
  const [end] = endsOf(buildGraph(patch));
  const sockets = new Set(end === undefined ? [] : [end]);
  const readings: BenchReading[] = end === undefined ? [] : readingsAt(exercise, fault, end);
  for (let found = diagnose(patch, readings); found.next && sockets.size < MOST_READINGS;) {
    const { at } = found.next;
    const more = readingsAt(exercise, fault, at);
    // The same place again tells nothing new.
    if (sockets.has(at)) break;
    sockets.add(at);
    readings.push(...more);
    found = diagnose(patch, readings);
  }
  return sockets.size;
}

/** Half of the score is for the fault; the rest for measuring no more than is needed. */
export function markFault(
  exercise: Exercise,
  fault: Fault,
  answer: Answer,
): { readonly right: boolean; readonly score: number; readonly distance: number } {
  const named = 'faults' in answer ? answer.faults : [];
  const [only] = named;
  const right = named.length === 1 && only !== undefined && isAlike(exercise, only, fault);
  if (!right) return { right, score: 0, distance: 1 };
  const readings = 'faults' in answer ? answer.readings : undefined;
  const score =
    readings === undefined ? 1 : Math.min(1, Math.max(0.5, socketsNeeded(exercise, fault) / Math.max(1, readings)));
  return { right, score, distance: 0 };
}
