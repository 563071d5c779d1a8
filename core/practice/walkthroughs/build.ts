import type { Json } from '../../document/types';
import type { ParamValue } from '../../kinds/params';
import { documentOf } from '../../recipes/types';
import type { Parts } from '../../recipes/types';
import { recipes } from '../../recipes';
import type { FigureName } from '../figures';
import type { TASKS } from '../walkthrough';

export const WALKTHROUGH_GROUPS = ['Basics', 'Recipes'] as const;

/** A walkthrough that ships with Fenvo, as its document. */
export interface BuiltWalkthrough {
  readonly id: string;
  readonly group: (typeof WALKTHROUGH_GROUPS)[number];
  readonly title: string;
  readonly about: string;
  readonly document: { readonly [key: string]: Json };
}

interface StepInShort {
  /** Settings by their place, `trim.amount`. */
  readonly set?: Readonly<Record<string, ParamValue>>;
  readonly seconds?: number;
  readonly at?: string;
  readonly pins?: readonly string[];
  readonly look?: readonly [at: string, figure: FigureName];
  readonly ask?: readonly [text: string, at: string, figure: FigureName];
  readonly task?: (typeof TASKS)[number];
}

type StepDocument = { readonly [key: string]: Json };

/** A step in short. */
export function step(text: string, { set = {}, look, ask, ...rest }: StepInShort = {}): StepDocument {
  const document = {
    text,
    ...(Object.keys(set).length > 0 && { set: Object.entries(set).map(([at, value]) => ({ at, value })) }),
    ...(look && { look: { at: look[0], figure: look[1] } }),
    ...(ask && { question: { text: ask[0], at: ask[1], figure: ask[2] } }),
    ...rest,
  };
  return document as unknown as StepDocument;
}

type Head = Pick<BuiltWalkthrough, 'id' | 'group' | 'title' | 'about'>;

const built = (head: Head, patch: Json, steps: readonly StepDocument[]): BuiltWalkthrough => ({
  ...head,
  document: { format: 'fenvo.walkthrough', version: 1, title: head.title, about: head.about, patch, steps },
});

/** What a recipe does, knob by knob. @throws where there is no such recipe. */
export function ofRecipe(id: string, steps: readonly StepDocument[]): BuiltWalkthrough {
  const recipe = recipes.find((r) => r.id === id);
  if (!recipe) throw new Error(`there is no recipe ${id}`);
  return built({ id, group: 'Recipes', title: recipe.title, about: recipe.turn }, recipe.document, steps);
}

/** Something of the craft, with a patch of its own. */
export const basics = (
  [id, title, about]: readonly [id: string, title: string, about: string],
  parts: Parts,
  steps: readonly StepDocument[],
): BuiltWalkthrough => built({ id, group: 'Basics', title, about }, documentOf(title, about, parts), steps);
