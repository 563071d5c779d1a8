import { colour } from './colour';
import { gates } from './gates';
import { loudness } from './loudness';
import { pitch } from './pitch';
import { space } from './space';
import type { Recipe } from './types';

export { ROOMS } from './types';
export type { Recipe } from './types';

/** All recipes, room by room. */
export const recipes: readonly Recipe[] = [...loudness, ...pitch, ...colour, ...space, ...gates];
