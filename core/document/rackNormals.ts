import { text } from './fields';
import type { ValueOf } from './fields';
import { normalBetween } from './normals';
import { modeSockets } from './rackModes';
import type { ChannelMode } from './rackModes';
import { shown } from './reader';
import type { Reader } from './reader';
import { partsOf } from './sockets';

const socketName = text(40, { pattern: { shape: /^[A-Za-z0-9]+$/, words: 'the name of a socket' } });
export const channelNormal = normalBetween(socketName, text(80));
/** What an empty socket of a channel carries: a voltage, or a socket of another channel of its module. */
export type ChannelNormal = ValueOf<typeof channelNormal>;

/** A channel as far as its normals go. */
interface Normalled {
  readonly id: string;
  readonly modes: readonly ChannelMode[];
  readonly normals: readonly ChannelNormal[];
}

const inputsOf = ({ modes }: Normalled): Set<string> => new Set(modes.flatMap((m) => modeSockets(m).inputs));
const outputsOf = ({ modes }: Normalled): Set<string> => new Set(modes.flatMap((m) => modeSockets(m).outputs));

/** Checks that the normals of a module's channels lie between sockets that these channels have. */
export function checkChannelNormals(r: Reader, channels: readonly Normalled[], path: string): void {
  channels.forEach((channel, i) =>
    channel.normals.forEach((normal, n) => checkNormal(r, normal, `${path}[${i}].normals[${n}]`, channel, channels)),
  );
}

function checkNormal(
  r: Reader,
  normal: ChannelNormal,
  path: string,
  channel: Normalled,
  channels: readonly Normalled[],
): void {
  const inputs = inputsOf(channel);
  const { to } = normal;
  if (!inputs.has(to))
    r.fail(`${path}.to`, `${shown(to)} is not an input of it; expected one of ${[...inputs].join(', ')}`);
  if (!('from' in normal)) return;
  const { id, name } = partsOf(normal.from);
  const other = channels.find((c) => c.id === id);
  if (!other) r.fail(`${path}.from`, `there is no channel ${shown(id)} in its module`);
  else if (!inputsOf(other).has(name) && !outputsOf(other).has(name))
    r.fail(`${path}.from`, `${shown(name)} is not a socket of ${id}`);
}
