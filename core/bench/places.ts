import type { Patch } from '../document/types';
import type { Asset } from '../sheet/expect';
import { stream } from '../kinds/random';
import type { ChannelLimits } from '../rack/limits';
import { allReadings } from './everywhere';
import type { Fault } from './faults';
import { meterShare } from './figures';
import { hypothesesOf } from './hypotheses';
import { Looks } from './looks';
import type { ReadQuantity } from './quantities';
import { quantitiesAt } from './readings';

export interface PlaceToRead {
  readonly at: string;
  readonly quantities: readonly ReadQuantity[];
}

/** Every place of a patch where something can be read with all cables plugged, with what. */
export function placesToRead(patch: Patch, asset: Asset): PlaceToRead[] {
  const places = [...new Set(allReadings(patch, asset).map((r) => r.at))];
  return places.map((at) => ({ at, quantities: quantitiesAt(patch, at, asset) }));
}

/** A fault that shows in what can be read by this many sigmas. */
const SHOWS = 6;
const TRIES = 60;

/** A fault that can be seen by somebody who measures; the same for a seed. Null where none was found. */
export function surpriseFault(patch: Patch, seed: number, channels: ChannelLimits | null, asset: Asset): Fault | null {
  const random = stream(seed);
  const hypotheses = hypothesesOf(patch, channels);
  const looks = new Looks(patch, allReadings(patch, asset), { channels, quick: true, ...(asset && { asset }) });
  for (let n = 0; n < TRIES && hypotheses.length > 0; n++) {
    const h = hypotheses[Math.floor(random() * hypotheses.length)];
    const fault = h?.is === 'solved' ? h.at(random()) : h?.fault;
    if (!fault) continue;
    const seen = looks.predict([fault]);
    const shows = seen.some(
      (v, i) =>
        Math.abs(v - (looks.planned[i] ?? 0)) > SHOWS * looks.sigma(i, meterShare('low', looks.planned[i] ?? 0)),
    );
    if (shows) return fault;
  }
  return null;
}

/** Where a value that would be solved for is put, share of its span. */
const PUT_AT = 0.2;

/** Every fault that can be put into a patch, each once. */
export function faultsOf(patch: Patch, channels: ChannelLimits | null): Fault[] {
  return hypothesesOf(patch, channels).flatMap((h) => (h.is === 'solved' ? h.at(PUT_AT) : h.fault) ?? []);
}
