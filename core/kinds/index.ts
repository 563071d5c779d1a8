import { attenuator } from './attenuator';
import { attenuverter } from './attenuverter';
import { clock } from './clock';
import { constant } from './constant';
import { envelope } from './envelope';
import { filter } from './filter';
import { gesture } from './gesture';
import { inverter } from './inverter';
import type { Kind } from './kind';
import { lfo } from './lfo';
import { mixer } from './mixer';
import { offset } from './offset';
import { oscillator } from './oscillator';
import { parameter } from './parameter';
import { slew } from './slew';
import { vca } from './vca';

/** Every kind, in the order in which menus and docs list them. */
export const allKinds: readonly Kind[] = [
  lfo,
  constant,
  gesture,
  clock,
  envelope,
  oscillator,
  attenuator,
  attenuverter,
  offset,
  inverter,
  mixer,
  vca,
  slew,
  filter,
  parameter,
];

const byName = new Map(allKinds.map((k) => [k.name, k]));

export const kindNamed = (name: string): Kind | undefined => byName.get(name);
