import { expose } from 'comlink';
import { faultsOf, faultText } from '../core';
import { exampleOf, figureOf, givenAt, markOf, OwnPatch, readingsAt, Seen, worked } from '../core/practice';
import type { PracticeWorker } from '../wire/practiceJobs';

/** The patch of one’s own that is asked about. */
let own: OwnPatch | null = null;

const worker: PracticeWorker = {
  exercise(skill, level, seed) {
    const { exercise, drawn } = worked(skill, level, seed);
    const { patch } = exercise;
    const faults = drawn.fault
      ? faultsOf(patch, null).map((fault) => ({ text: faultText(patch.modules, fault), fault }))
      : [];
    return Promise.resolve({ exercise, given: givenAt(patch, exercise.ask.knobs ?? []), faults });
  },
  mark(of, answer) {
    const { slips } = worked(of.skill, of.level, of.seed);
    return Promise.resolve({ mark: markOf(of, answer), slips });
  },
  example(skill, level) {
    const { exercise, truth } = exampleOf(skill, level);
    const given = givenAt(exercise.patch, exercise.ask.knobs ?? []);
    return Promise.resolve({ shown: { exercise, given, faults: [] }, mark: markOf(exercise, truth) });
  },
  figure: (patch, at) => Promise.resolve(figureOf(new Seen(patch).prediction, at)),
  own(patch) {
    own = new OwnPatch(patch);
    return Promise.resolve({ questions: own.questions, given: givenAt(patch, []) });
  },
  markOwn: (index, answer) =>
    own ? Promise.resolve(own.mark(index, answer)) : Promise.reject(new Error('No patch is being practised.')),
  read(of, at) {
    const { exercise, drawn } = worked(of.skill, of.level, of.seed);
    if (!drawn.fault) return Promise.reject(new Error('Only exercises about a fault have a rack to measure.'));
    return Promise.resolve(readingsAt(exercise, drawn.fault, at));
  },
};

expose(worker);
