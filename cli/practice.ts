import { allSkills, exerciseOf, markOf, parseAnswer, readingsAt, skillNamed, worked } from '../core/practice';
import type { Exercise, Level } from '../core/practice';
import { buildGraph, printPatch, readingsDocument } from '../core';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';
import { must } from './documents';

/** What can be practised, in the order in which it builds up. */
const listed = (): unknown =>
  allSkills.map(({ name, group, text, needsSound }) => ({ skill: name, group, text, needsSound: needsSound === true }));

function asked({ skill, level, seed }: Arguments): {
  readonly skill: string;
  readonly level: Level;
  readonly seed: number;
} {
  if (skill === null) throw new Refusal(['practice needs --list, or --skill']);
  if (!skillNamed(skill)) throw new Refusal([`--skill: there is no skill ${skill}; practice --list names them`]);
  return { skill, level, seed };
}

/** The figures at a socket of the simulated rack of an exercise. */
function readings(exercise: Exercise, at: string): unknown {
  const { fault } = worked(exercise.skill, exercise.level, exercise.seed).drawn;
  if (!fault) throw new Refusal(['--read: only exercises about a fault have a rack to measure']);
  const sockets = buildGraph(exercise.patch).modules.flatMap((m) => [...m.inputs, ...m.outputs].map((s) => s.socket));
  if (!sockets.includes(at)) throw new Refusal([`--read ${at}: there is no such socket`]);
  return readingsDocument(readingsAt(exercise, fault, at));
}

/** Lists skills, draws an exercise without its truth, reads its rack, or marks an answer. */
export function practiceCommand(args: Arguments): unknown {
  if (args.files.length > 0) throw new Refusal(['practice takes no file']);
  if (args.list) return listed();
  const { skill, level, seed } = asked(args);
  const exercise = exerciseOf(skill, level, seed);
  if (args.read !== null) return readings(exercise, args.read);
  if (args.answer === null) return { ...exercise, patch: printPatch(exercise.patch) };
  let json: unknown;
  try {
    json = JSON.parse(args.answer);
  } catch (error) {
    throw new Refusal([`--answer is not JSON: ${error instanceof Error ? error.message : error}`]);
  }
  return markOf(exercise, must('--answer', parseAnswer(json, exercise)));
}
