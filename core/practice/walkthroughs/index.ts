import { amplifiers } from './amplifiers';
import type { BuiltWalkthrough } from './build';
import { colour } from './colour';
import { gates } from './gates';
import { loudness } from './loudness';
import { movement } from './movement';
import { pitch } from './pitch';
import { scaling } from './scaling';
import { space } from './space';

export { WALKTHROUGH_GROUPS } from './build';
export type { BuiltWalkthrough } from './build';

/** The walkthroughs that ship with Fenvo: what beginners stumble on, then what each recipe does. */
export const builtWalkthroughs: readonly BuiltWalkthrough[] = [
  ...scaling,
  ...amplifiers,
  ...movement,
  ...loudness,
  ...pitch,
  ...colour,
  ...space,
  ...gates,
];
