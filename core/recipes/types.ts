import type { ParamValues } from '../kinds/params';
import type { Json, Settings, Target } from '../document/types';

export const RECIPE_GROUPS = ['Level', 'Pitch', 'Timbre', 'Space and time', 'Gates and control'] as const;

/** A small patch that works at once. */
export interface Recipe {
  readonly id: string;
  /** What it does, in plain words. */
  readonly title: string;
  readonly group: (typeof RECIPE_GROUPS)[number];
  /** What to turn, and what is heard then. */
  readonly turn: string;
  readonly document: { readonly [key: string]: Json };
}

type Stage = readonly [kind: string, label: string, params?: ParamValues];

interface Parts {
  readonly stages: Readonly<Record<string, Stage>>;
  /** `from > to` */
  readonly cables: readonly string[];
  readonly settings?: Partial<Settings>;
  readonly targets?: readonly Target[];
}

/** A recipe in short. */
export function recipe(
  [id, title, group, turn]: readonly [id: string, title: string, group: Recipe['group'], turn: string],
  { stages, cables, settings, targets }: Parts,
): Recipe {
  const document = {
    format: 'fenvo.patch',
    version: 1,
    name: title,
    notes: turn,
    ...(settings && { settings }),
    modules: Object.entries(stages).map(([name, [kind, label, params]]) => ({
      id: name,
      kind,
      label,
      ...(params && { params }),
    })),
    cables: cables.map((text) => {
      const [from, to] = text.split(' > ');
      return { from, to };
    }),
    ...(targets && { targets }),
  };
  return { id, title, group, turn, document: document as unknown as Recipe['document'] };
}

/** A drone to hear a movement by. */
export const tone = (baseHz: number, label = 'Tone'): Stage => ['oscillator', label, { baseHz }];
/** The way out, at a level for a mixer or an interface. */
export const out = (padDb = 12): Stage => ['lineOut', 'Output', { padDb, dcBlock: true }];
/** Notes of a line, volts. */
export const line = (...volts: readonly number[]): ParamValues => ({
  steps: volts.map((v) => ({ volts: v, gate: true, tie: false })),
});
