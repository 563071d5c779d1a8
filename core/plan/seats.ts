import { placesOf, placeTitle } from '../document/rackTypes';
import type { Rack } from '../document/rackTypes';
import type { Patch } from '../document/types';
import type { Edit } from '../edit/edit';
import { Servers } from './serve';
import { seatEdits } from './seatEdits';

/** A channel that a module could sit on. */
export interface SeatOffer {
  /** `moduleId/channelId` */
  readonly rack: string;
  readonly name: string;
  /** What stands in, in words; null for its own kind. */
  readonly standIn: string | null;
  readonly cost: number;
  /** The module that sits there already. */
  readonly takenBy: string | null;
  readonly edits: readonly Edit[];
}

/** The channels of a rack that could play a module as it is set, free ones and its own kind first. */
export function seatOffers(patch: Patch, rack: Rack, id: string): SeatOffer[] {
  const servers = new Servers(patch);
  const taken = new Map(patch.modules.flatMap((m) => (m.rack === undefined || m.id === id ? [] : [[m.rack, m.id]])));
  return placesOf(rack)
    .flatMap((place): SeatOffer[] => {
      const answer = servers.answer(id, place.channel);
      if (!('service' in answer)) return [];
      const { service } = answer;
      const edits = seatEdits(patch, new Map([[id, { place, service }]])).edits.get(id) ?? [];
      const name = placeTitle(place);
      const { standIn, cost } = service;
      return [{ rack: place.name, name, standIn, cost, takenBy: taken.get(place.name) ?? null, edits }];
    })
    .sort((a, b) => Number(a.takenBy !== null) - Number(b.takenBy !== null) || a.cost - b.cost);
}
