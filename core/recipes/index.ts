import { colour } from './colour';
import { gates } from './gates';
import { loudness } from './loudness';
import { pitch } from './pitch';
import { space } from './space';
import type { Recipe } from './types';

export { RECIPE_GROUPS } from './types';
export type { Recipe } from './types';

/** All recipes, group by group. */
export const recipes: readonly Recipe[] = [...loudness, ...pitch, ...colour, ...space, ...gates];
