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

interface Electrical {
  readonly outputOhms?: Readonly<Record<string, number>>;
  readonly inputOhms?: Readonly<Record<string, number>>;
}
type Stage = readonly [kind: string, label: string, params?: ParamValues, electrical?: Electrical];

/** A patch in short. */
export interface Parts {
  readonly stages: Readonly<Record<string, Stage>>;
  /** `from > to` */
  readonly cables: readonly string[];
  readonly settings?: Partial<Settings>;
  readonly targets?: readonly Target[];
}

/** The document of a patch that is written in short. */
export function documentOf(
  name: string,
  notes: string,
  { stages, cables, settings, targets }: Parts,
): Recipe['document'] {
  const document = {
    format: 'fenvo.patch',
    version: 1,
    name,
    notes,
    ...(settings && { settings }),
    modules: Object.entries(stages).map(([id, [kind, label, params, electrical]]) => ({
      id,
      kind,
      label,
      ...(params && { params }),
      ...electrical,
    })),
    cables: cables.map((text) => {
      const [from, to] = text.split(' > ');
      return { from, to };
    }),
    ...(targets && { targets }),
  };
  return document as unknown as Recipe['document'];
}

/** A recipe in short. */
export const recipe = (
  [id, title, group, turn]: readonly [id: string, title: string, group: Recipe['group'], turn: string],
  parts: Parts,
): Recipe => ({ id, title, group, turn, document: documentOf(title, turn, parts) });

/** A drone to hear a movement by. */
export const tone = (baseHz: number, label = 'Tone'): Stage => ['oscillator', label, { baseHz }];
/** The way out, at a level for a mixer or an interface. */
export const out = (padDb = 12): Stage => ['lineOut', 'Output', { padDb, dcBlock: true }];
/** Notes of a line, volts. */
export const line = (...volts: readonly number[]): ParamValues => ({
  steps: volts.map((v) => ({ volts: v, gate: true, tie: false })),
});
