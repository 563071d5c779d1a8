import { partsOf } from './sockets';
import { isObject, own, shown } from './reader';
import type { Reader } from './reader';
import { modeSockets } from './rackSockets';
import { RACK_LIMITS } from './rackTypes';
import type { Channel, ChannelNormal } from './rackTypes';

const inputsOf = ({ modes }: Channel): Set<string> => new Set(modes.flatMap((m) => modeSockets(m).inputs));
const outputsOf = ({ modes }: Channel): Set<string> => new Set(modes.flatMap((m) => modeSockets(m).outputs));

/** Reads the normals of a module's channels, once all of its channels are known, into those channels. */
export function readChannelNormals(r: Reader, list: unknown, path: string, channels: Channel[]): void {
  if (!Array.isArray(list)) return;
  channels.forEach((channel, i) => {
    const item: unknown = list[i];
    if (!isObject(item) || own(item, 'normals') === undefined) return;
    const at = `${path}[${i}].normals`;
    const taken = new Set<string>();
    const normals = r.list(own(item, 'normals'), at, RACK_LIMITS.normals).map((x, n): ChannelNormal => {
      const normal = readNormal(r, x, `${at}[${n}]`, channel, channels);
      if (taken.has(normal.to)) r.fail(`${at}[${n}].to`, `${normal.to} already has a normal`);
      taken.add(normal.to);
      return normal;
    });
    channels[i] = { ...channel, normals };
  });
}

function readNormal(
  r: Reader,
  x: unknown,
  path: string,
  channel: Channel,
  channels: readonly Channel[],
): ChannelNormal {
  const n = r.object(x, path);
  const to = r.text(own(n, 'to'), `${path}.to`, 40);
  const inputs = inputsOf(channel);
  if (!inputs.has(to)) r.fail(`${path}.to`, `${shown(to)} is not an input of it; known are ${[...inputs].join(', ')}`);
  if (own(n, 'from') === undefined) {
    r.known(n, path, ['to', 'volts']);
    return { to, volts: r.number(own(n, 'volts'), `${path}.volts`, -24, 24) };
  }
  r.known(n, path, ['to', 'from', 'brokenBy']);
  const from = r.text(own(n, 'from'), `${path}.from`, 80);
  const { id, name } = partsOf(from);
  const other = channels.find((c) => c.id === id);
  if (!other) r.fail(`${path}.from`, `there is no channel ${shown(id)} in its module`);
  else if (!inputsOf(other).has(name) && !outputsOf(other).has(name))
    r.fail(`${path}.from`, `${shown(name)} is not a socket of ${id}`);
  if (own(n, 'brokenBy') === undefined) return { to, from };
  return { to, from, brokenBy: r.oneOf(own(n, 'brokenBy'), `${path}.brokenBy`, ['source'] as const) };
}
