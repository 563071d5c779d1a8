import { parseWalkthrough, stepFigures } from '../core/practice';
import { Refusal } from './arguments';
import type { Arguments } from './arguments';
import { must, readJson } from './documents';

/** Checks a walkthrough, and says what the figures come to that its steps point at and ask for. */
export function walkthroughCommand({ files }: Arguments): unknown {
  const [verb, file, ...more] = files;
  if (verb !== 'check' || file === undefined || more.length > 0)
    throw new Refusal(['expected: walkthrough check FILE']);
  const walkthrough = must(file, parseWalkthrough(readJson(file)));
  const figures = stepFigures(walkthrough);
  const missing = figures.filter((f) => f.value === null && f.unit === '');
  if (missing.length > 0)
    throw new Refusal(missing.map((f) => `${file}: steps[${f.step}].${f.of}: there is no ${f.figure} at ${f.at}`));
  return { ok: true, title: walkthrough.title, steps: walkthrough.steps.length, figures };
}
