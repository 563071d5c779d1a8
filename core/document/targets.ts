import { own } from './reader';
import type { Fields, Reader } from './reader';
import { ID_PATTERN } from './types';
import { TARGET_LIMITS, TARGET_SHAPES, WANTS } from './wants';
import type { Target, TargetField, Want } from './wants';

/** What the reader must know of the modules: whether a socket or a module is there. */
export interface Places {
  socket(x: unknown, path: string): string;
  module(x: unknown, path: string): string;
  /** What a socket can be asked for; null where it is not known yet. */
  quantities(at: string): readonly string[] | null;
}

function readField(r: Reader, field: TargetField, x: unknown, path: string, places: Places): unknown {
  switch (field.type) {
    case 'quantity':
      // Which there are hangs on the socket: looked at once that is known.
      return r.text(x, path, TARGET_LIMITS.quantity);
    case 'number':
      if (field.none && x === null) return null;
      if (field.silent && x === 'silent') return x;
      return r.number(x, path, field.min, field.max);
    case 'socket':
      return places.socket(x, path);
    case 'module':
      return places.module(x, path);
    case 'steps':
      if (x === undefined) r.fail(path, 'must be a list of step numbers, 0 first, got nothing');
      return r
        .list(x, path, TARGET_LIMITS.steps)
        .map((step, i) => r.whole(step, `${path}[${i}]`, 0, TARGET_LIMITS.steps - 1));
    case 'shape':
      return r.oneOf(x, path, TARGET_SHAPES);
  }
}

/** What no single field can say. */
function checkTogether(r: Reader, target: Target, path: string): void {
  if (!('low' in target)) return;
  const { low, high } = target;
  if (low === null && high === null) r.fail(`${path}.low`, 'must not be null where high is: nothing would be wanted');
  if (typeof low === 'number' && high !== null && low > high)
    r.fail(`${path}.low`, `must not be above high, got ${low} and ${high}`);
}

/** A quantity that its socket does not have is refused, never read as another. */
function checkQuantity(
  r: Reader,
  { at, quantity }: Extract<Target, { quantity: string }>,
  path: string,
  places: Places,
): void {
  const known = places.quantities(at);
  if (known === null || known.includes(quantity)) return;
  const last = known.at(-1) ?? 'volts';
  const list = known.length > 1 ? `${known.slice(0, -1).join(', ')} or ${last}` : last;
  r.fail(`${path}.quantity`, `${at} has ${list}, got ${quantity}`);
}

/** A target as a document gives it; every error with its place. */
export function readTarget(r: Reader, x: unknown, path: string, places: Places): Target {
  const t = r.object(x, path);
  const given = own(t, 'want');
  const want = given === undefined ? 'range' : r.oneOf(given, `${path}.want`, Object.keys(WANTS) as Want[]);
  const fields = Object.entries(WANTS[want]);
  r.known(t, path, ['at', 'want', 'id', 'weight', ...fields.map(([name]) => name)]);
  const before = r.errors.length;
  const read = fields
    .filter(([name, { optional }]) => !optional || own(t, name) !== undefined)
    .map(([name, field]) => [name, readField(r, field, own(t, name), `${path}.${name}`, places)] as const);
  const at = places.socket(own(t, 'at'), `${path}.at`);
  const target = {
    at,
    ...(given !== undefined && { want }),
    ...readCommon(r, t, path),
    ...Object.fromEntries(read),
  } as unknown as Target;
  if (r.errors.length === before) checkTogether(r, target, path);
  if (r.errors.length === before && 'quantity' in target) checkQuantity(r, target, path, places);
  return target;
}

function readCommon(r: Reader, t: Fields, path: string): Pick<Target, 'id' | 'weight'> {
  const [id, weight] = [own(t, 'id'), own(t, 'weight')];
  const [least, most] = TARGET_LIMITS.weight;
  if (id !== undefined && !(typeof id === 'string' && new RegExp(ID_PATTERN).test(id)))
    r.fail(`${path}.id`, `must match ${ID_PATTERN}`);
  return {
    ...(id !== undefined && { id: String(id) }),
    ...(weight !== undefined && { weight: r.number(weight, `${path}.weight`, least, most) }),
  };
}

const figure = (x: number | 'silent' | null): string => (x === null ? 'any' : String(x));

/** A target in a line of plain words and figures. */
export function showTarget(t: Target): string {
  switch (t.want) {
    case undefined:
    case 'range':
      return `${figure(t.low)} to ${figure(t.high)} ${t.quantity}`;
    case 'within':
      return `within ${figure(t.low)} to ${figure(t.high)} ${t.quantity}`;
    case 'span':
      return `${t.span} wide${t.centre === null ? '' : ` about ${t.centre}`} ${t.quantity}`;
    case 'mean':
      return `mean ${t.value} ${t.quantity}`;
    case 'opposite':
      return `opposite to ${t.to}`;
    case 'same':
      return `the same as ${t.to}`;
    case 'steps':
      return `on at steps ${t.steps.map((s) => s + 1).join(', ') || 'none'} of ${t.of}`;
    case 'duty':
      return `on ${t.percent} % of the time`;
    case 'fall':
      return `falls ${t.db} dB in ${t.seconds} s`;
    case 'like':
      return `like a ${t.shape}`;
  }
}
