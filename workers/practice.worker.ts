import { expose } from 'comlink';
import { faultsOf, faultText } from '../core';
import { givenAt, markOf, readingsAt, worked } from '../core/practice';
import type { PracticeWorker } from '../wire/practiceJobs';

const worker: PracticeWorker = {
  exercise(skill, level, seed) {
    const { exercise, drawn } = worked(skill, level, seed);
    const { patch } = exercise;
    const faults = drawn.fault
      ? faultsOf(patch, null).map((fault) => ({ text: faultText(patch.modules, fault), fault }))
      : [];
    return Promise.resolve({ exercise, given: givenAt(patch, exercise.ask.knobs ?? []), faults });
  },
  mark: (of, answer) => Promise.resolve(markOf(of, answer)),
  read(of, at) {
    const { exercise, drawn } = worked(of.skill, of.level, of.seed);
    if (!drawn.fault) return Promise.reject(new Error('Only exercises about a fault have a rack to measure.'));
    return Promise.resolve(readingsAt(exercise, drawn.fault, at));
  },
};

expose(worker);
