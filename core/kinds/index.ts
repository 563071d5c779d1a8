import { attenuator } from './attenuator';
import { attenuverter } from './attenuverter';
import { clock } from './clock';
import { comparator } from './comparator';
import { constant } from './constant';
import { crossfade } from './crossfade';
import { delay } from './delay';
import { divider } from './divider';
import { envelope } from './envelope';
import { filter } from './filter';
import { follower } from './follower';
import { gesture } from './gesture';
import { inverter } from './inverter';
import { junction } from './junction';
import type { Kind } from './kind';
import { lfo } from './lfo';
import { lineIn } from './lineIn';
import { lineOut } from './lineOut';
import { logic } from './logic';
import { lowPassGate } from './lowPassGate';
import { mixer } from './mixer';
import { mult } from './mult';
import { noise } from './noise';
import { offset } from './offset';
import { oscillator } from './oscillator';
import { parameter } from './parameter';
import { polarizer } from './polarizer';
import { quantizer } from './quantizer';
import { recording } from './recording';
import { rectifier } from './rectifier';
import { ringMod } from './ringMod';
import { sampleHold } from './sampleHold';
import { sequencer } from './sequencer';
import { shaper } from './shaper';
import { slew } from './slew';
import { vca } from './vca';

/** Every kind, in the order in which menus and docs list them. */
export const allKinds: readonly Kind[] = [
  lfo,
  constant,
  gesture,
  clock,
  sequencer,
  envelope,
  noise,
  oscillator,
  recording,
  attenuator,
  attenuverter,
  offset,
  inverter,
  mixer,
  vca,
  ringMod,
  polarizer,
  crossfade,
  slew,
  rectifier,
  follower,
  comparator,
  sampleHold,
  quantizer,
  divider,
  logic,
  shaper,
  delay,
  filter,
  lowPassGate,
  mult,
  junction,
  lineIn,
  parameter,
  lineOut,
];

const byName = new Map(allKinds.map((k) => [k.name, k]));

export const kindNamed = (name: string): Kind | undefined => byName.get(name);

/** What a kind is called; its id where there is no such kind. */
export const kindTitle = (name: string): string => kindNamed(name)?.title ?? name;

/** What a new fader is. */
export const FADER = constant.name;
export const isFaderKind = (name: string): boolean => kindNamed(name)?.panel?.fader !== undefined;

/** What people type to find a kind: its name, what it does, and what else it goes by. */
export const searchWords = (kind: Kind | undefined): string[] =>
  kind ? [kind.title, kind.does, ...(kind.aliases ?? [])] : [];
