import { constant, either, number, optional, record } from './fields';
import type { Declared } from './fields';
import { isObject, own } from './reader';
import { onlyOnce } from './readField';

/** What an empty input carries, in patches and in racks: a voltage, or what another socket does. */
export const normalBetween = <T extends Declared, F extends Declared>(to: T, from: F) =>
  either([record({ to, volts: number(-24, 24) }), record({ to, from, brokenBy: optional(constant('source')) })], (x) =>
    isObject(x) && own(x, 'from') !== undefined ? 1 : 0,
  );

/** An input has one normal. */
export const oneNormalEach = onlyOnce(
  (normal: { readonly to: string }) => normal.to,
  '.to',
  (to) => `${to} already has a normal`,
);
