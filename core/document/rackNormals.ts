import { partsOf } from './sockets';
import { shown } from './reader';
import type { Reader } from './reader';
import { modeSockets } from './rackSockets';
import { modesOf } from './rackFields';
import type { ChannelDoc, ChannelNormal } from './rackFields';

const inputsOf = (channel: ChannelDoc): Set<string> => new Set(modesOf(channel).flatMap((m) => modeSockets(m).inputs));
const outputsOf = (channel: ChannelDoc): Set<string> =>
  new Set(modesOf(channel).flatMap((m) => modeSockets(m).outputs));

/** Checks that the normals of a module's channels lie between sockets that these channels have. */
export function checkChannelNormals(r: Reader, channels: readonly ChannelDoc[], path: string): void {
  channels.forEach((channel, i) =>
    channel.normals.forEach((normal, n) => checkNormal(r, normal, `${path}[${i}].normals[${n}]`, channel, channels)),
  );
}

function checkNormal(
  r: Reader,
  normal: ChannelNormal,
  path: string,
  channel: ChannelDoc,
  channels: readonly ChannelDoc[],
): void {
  const inputs = inputsOf(channel);
  const { to } = normal;
  if (!inputs.has(to)) r.fail(`${path}.to`, `${shown(to)} is not an input of it; known are ${[...inputs].join(', ')}`);
  if (!('from' in normal)) return;
  const { id, name } = partsOf(normal.from);
  const other = channels.find((c) => c.id === id);
  if (!other) r.fail(`${path}.from`, `there is no channel ${shown(id)} in its module`);
  else if (!inputsOf(other).has(name) && !outputsOf(other).has(name))
    r.fail(`${path}.from`, `${shown(name)} is not a socket of ${id}`);
}
