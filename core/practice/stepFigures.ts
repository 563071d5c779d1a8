import { figureOf } from './figures';
import type { FigureAt, FigureValue } from './figures';
import { Seen } from './seen';
import { patchesOf } from './walkthrough';
import type { Walkthrough } from './walkthrough';

/** A figure that a step points at or asks for. Without a unit: there is none at that place. */
export interface StepFigure extends FigureAt, FigureValue {
  /** From 0. */
  readonly step: number;
  readonly of: 'look' | 'question';
}

/** All figures of a walkthrough, each as predicted after its step; null where the destination is silent. */
export function stepFigures(walkthrough: Pick<Walkthrough, 'patch' | 'steps'>): StepFigure[] {
  const patches = patchesOf(walkthrough);
  return walkthrough.steps.flatMap(({ look, question }, step) => {
    const asked = [
      ...(look ? [['look', look] as const] : []),
      ...(question ? [['question', { at: question.at, figure: question.figure }] as const] : []),
    ];
    if (asked.length === 0) return [];
    const { prediction } = new Seen(patches[step + 1] ?? walkthrough.patch, { only: asked.map(([, { at }]) => at) });
    return asked.map(([of, place]): StepFigure => ({
      step,
      of,
      ...place,
      ...(figureOf(prediction, place) ?? { value: null, unit: '' }),
    }));
  });
}
