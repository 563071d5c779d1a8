import { linearSumAssignment } from 'linear-sum-assignment';
import { idOf, nameOf, socketAt } from '../document/sockets';
import { placesOf, placeTitle } from '../document/rackTypes';
import type { RackPlace, Rack } from '../document/rackTypes';
import type { Normal, Patch } from '../document/types';
import type { Link as PatchLink, Wiring } from '../graph/wiring';
import type { Edit } from '../edit/edit';
import { coversOf, Servers, socketThere } from './serve';
import type { Seat, Service } from './serve';
import { seatEdits } from './seatEdits';

export interface Assigned {
  readonly module: string;
  /** `moduleId/channelId` */
  readonly rack: string;
  /** What stands in, in words. */
  readonly standIn: string | null;
  /** What takes it over, after those of the assigned ones before it. */
  readonly edits: readonly Edit[];
}

export interface Short {
  readonly module: string;
  readonly kind: string;
  readonly why: string;
  /** Kinds one of which would do. */
  readonly covers: readonly string[];
}

export interface Assignment {
  readonly assigned: readonly Assigned[];
  readonly short: readonly Short[];
  readonly cost: number;
  /** Channels that nothing needs. */
  readonly free: readonly string[];
  /** What empty sockets of the real channels add. */
  readonly normals: readonly Normal[];
}

/** A module that a normal of the patch joins to its neighbour, unless its channel's own normals do. */
const UNJOINED = 0.1;
/** No sum of costs comes near to leaving a module without a channel. */
const MISSING = 10_000;
/** Never. */
const BARRED = 1e9;
/** Of equal costs, the channel that a module has already, else the first. */
const ORDER = 1e-7;
const STAYS = 1e-4;
const NOWHERE = -1;
/** How often a cascade is tried at most. */
const MOST_TRIES = 150;

interface Link {
  readonly to: string;
  readonly from: string;
  readonly normal: PatchLink;
}

interface Table {
  readonly modules: readonly string[];
  readonly places: readonly RackPlace[];
  /** By module, by place. */
  readonly services: readonly (readonly (Service | null)[])[];
}

/** The modules that must find a channel: bypassed ones need none. */
function neededOf(wiring: Wiring, places: readonly RackPlace[]): string[] {
  const owned = new Set(places.flatMap((p) => p.channel.modes.map((m) => m.kind)));
  return wiring.modules
    .filter(({ kind, bypassed }) => {
      const unracked = kind.electrical?.unracked;
      return !bypassed && (unracked === undefined || (unracked === 'where none is' && owned.has(kind.name)));
    })
    .map((m) => m.id);
}

/** The cheapest seats, some of them given; index of the place by index of the module, −1 where none is left. */
function cheapest(patch: Patch, { modules, places, services }: Table, given: ReadonlyMap<number, number>): number[] {
  if (modules.length === 0) return [];
  const held = new Map([...given].map(([m, p]) => [p, m]));
  const now = new Map(patch.modules.map((m) => [m.id, m.rack]));
  const matrix = modules.map((id, m) => [
    ...places.map((place, p) => {
      const service = services[m]?.[p];
      const wrong = (given.has(m) && given.get(m) !== p) || (held.has(p) && held.get(p) !== m);
      if (!service || wrong) return BARRED;
      return service.cost + ORDER * p + (now.get(id) === place.name ? 0 : STAYS);
    }),
    ...modules.map((_, other) => (other === m ? MISSING : BARRED)),
  ]);
  const { rowAssignments } = linearSumAssignment(matrix, { maximaze: false });
  return modules.map((_, m) => {
    const p = rowAssignments[m] ?? -1;
    return p < places.length && (matrix[m]?.[p] ?? BARRED) < MISSING ? p : -1;
  });
}

function linksOf(wiring: Wiring, modules: readonly string[]): Link[] {
  return wiring.links.flatMap((normal): Link[] => {
    const [to, from] = [idOf(normal.to), idOf(normal.from)];
    return to !== from && modules.includes(to) && modules.includes(from) ? [{ to, from, normal }] : [];
  });
}

/** Whether the own normals of two channels join two modules as a normal of the patch does. */
function joins({ normal }: Link, to: Seat, from: Seat): boolean {
  if (to.place.module !== from.place.module) return false;
  const [there, back] = [socketThere(to.service, nameOf(normal.to)), socketThere(from.service, nameOf(normal.from))];
  return to.place.channel.normals.some(
    (n) => n.to === there && 'from' in n && n.from === socketAt(from.place.channel.id, back),
  );
}

/** Seats modules so that as few as possible stay without, then at the least cost; cascades are joined where it pays. */
class Seating {
  private readonly links: readonly Link[];
  private best: { readonly seats: readonly number[]; readonly cost: number };
  /** What any seating costs at least. */
  private readonly least: number;
  private tries = 0;

  constructor(
    private readonly patch: Patch,
    wiring: Wiring,
    private readonly table: Table,
  ) {
    this.links = linksOf(wiring, table.modules);
    const seats = cheapest(patch, table, new Map());
    this.least = this.ownOf(seats);
    this.best = { seats, cost: this.costOf(seats) };
    if (this.links.length > 0) this.search(0, 0, new Map());
  }

  get seats(): readonly number[] {
    return this.best.seats;
  }

  private seatOf(seats: readonly number[], id: string): Seat | null {
    const m = this.table.modules.indexOf(id);
    const p = seats[m] ?? -1;
    const [place, service] = [this.table.places[p], this.table.services[m]?.[p]];
    return place && service ? { place, service } : null;
  }

  private ownOf(seats: readonly number[]): number {
    return seats.reduce((sum, p, m) => sum + (this.table.services[m]?.[p]?.cost ?? MISSING), 0);
  }

  /** All that a seating costs; a module without a channel counts more than all the rest. */
  costOf(seats: readonly number[]): number {
    return this.ownOf(seats) + UNJOINED * this.links.filter((link) => this.isUnjoined(seats, link)).length;
  }

  private isUnjoined(seats: readonly number[], link: Link): boolean {
    const [to, from] = [this.seatOf(seats, link.to), this.seatOf(seats, link.from)];
    return to !== null && (from === null || !joins(link, to, from));
  }

  /** Each link is joined by some pair of channels, or given up (branch and bound). */
  private search(index: number, givenUp: number, given: ReadonlyMap<number, number>): void {
    // Seats that are given never make it cheaper than without.
    if (this.least + UNJOINED * givenUp >= this.best.cost - 1e-9 || this.tries++ > MOST_TRIES) return;
    const seats = cheapest(this.patch, this.table, given);
    if (this.ownOf(seats) + UNJOINED * givenUp >= this.best.cost - 1e-9) return;
    const cost = this.costOf(seats);
    if (cost < this.best.cost - 1e-9) this.best = { seats, cost };
    const link = this.links[index];
    if (!link) return;
    for (const pair of this.pairsFor(link, given)) this.search(index + 1, givenUp, pair);
    this.search(index + 1, givenUp + 1, given);
    // What has no channel is joined to nothing, and costs nothing for it.
    const to = this.table.modules.indexOf(link.to);
    if (!given.has(to)) this.search(index + 1, givenUp, new Map([...given, [to, NOWHERE]]));
  }

  /** The pairs of channels that would join a link, added to what is given. */
  private *pairsFor(link: Link, given: ReadonlyMap<number, number>): Generator<ReadonlyMap<number, number>> {
    const { modules, places, services } = this.table;
    const [a, b] = [modules.indexOf(link.to), modules.indexOf(link.from)];
    for (const [p, to] of places.entries()) {
      const toService = services[a]?.[p];
      if (!toService || (given.has(a) && given.get(a) !== p)) continue;
      for (const [q, from] of places.entries()) {
        const fromService = services[b]?.[q];
        if (p === q || !fromService || (given.has(b) && given.get(b) !== q)) continue;
        if (!joins(link, { place: to, service: toService }, { place: from, service: fromService })) continue;
        yield new Map([...given, [a, p], [b, q]]);
      }
    }
  }
}

/** Why no channel serves a module, in one line. */
function whyShort(servers: Servers, id: string, places: readonly RackPlace[], taken: ReadonlySet<string>): string {
  const answers = places.map((p) => ({ p, answer: servers.answer(id, p.channel) }));
  const able = answers.filter(({ answer }) => 'service' in answer);
  if (able.length > 0) {
    const names = able.filter(({ p }) => taken.has(p.name)).map(({ p }) => placeTitle(p));
    return `all suitable channels are in use: ${names.slice(0, 4).join(', ')}`;
  }
  const near = answers.find(({ answer }) => 'why' in answer && answer.why !== 'it is a different type of module');
  return near && 'why' in near.answer ? `${placeTitle(near.p)}: ${near.answer.why}` : 'nothing in this rack can do it';
}

/**
 * Gives every module of a patch one channel of a rack: first as few as possible without one, then the least sum of
 * costs (Jonker and Volgenant's assignment; cascades by branch and bound over it).
 *
 * @returns what sits where with what takes it over, what is short, and which channels are left.
 */
export function assignRack(patch: Patch, rack: Rack): Assignment {
  return assigned(patch, placesOf(rack), () => true);
}

/**
 * The channels that a patch takes of a rack: those that its modules sit on, and of what is left those that the others
 * would be given.
 *
 * @returns their names, and the modules for which the rack has nothing.
 */
export function takenBy(
  patch: Patch,
  rack: Rack,
): { readonly channels: ReadonlySet<string>; readonly short: readonly Short[] } {
  const own = new Set(patch.modules.flatMap((m) => m.rack ?? []));
  const left = placesOf(rack).filter((p) => !own.has(p.name));
  const loose = new Set(patch.modules.flatMap((m) => (m.rack === undefined ? [m.id] : [])));
  const found = assigned(patch, left, (id) => loose.has(id));
  return { channels: new Set([...own, ...found.assigned.map((a) => a.rack)]), short: found.short };
}

function assigned(patch: Patch, places: readonly RackPlace[], wanted: (id: string) => boolean): Assignment {
  const servers = new Servers(patch);
  const { wiring } = servers.graph;
  const modules = neededOf(wiring, places).filter(wanted);
  const services = modules.map((id) =>
    places.map((p) => {
      const answer = servers.answer(id, p.channel);
      return 'service' in answer ? answer.service : null;
    }),
  );
  const table = { modules, places, services };
  const seating = new Seating(patch, wiring, table);
  const seats = new Map<string, Seat>();
  seating.seats.forEach((p, m) => {
    const [id, place, service] = [modules[m], places[p], services[m]?.[p]];
    if (id !== undefined && place && service) seats.set(id, { place, service });
  });
  const taken = new Set([...seats.values()].map((s) => s.place.name));
  const { edits, normals } = seatEdits(patch, seats);
  const short = modules.filter((id) => !seats.has(id));
  const missing = seating.seats.filter((p) => p < 0).length;
  return {
    assigned: [...seats].map(([module, { place, service }]) => ({
      module,
      rack: place.name,
      standIn: service.standIn,
      edits: edits.get(module) ?? [],
    })),
    short: short.map((id) => {
      const kind = patch.modules.find((m) => m.id === id)?.kind ?? '';
      return { module: id, kind, why: whyShort(servers, id, places, taken), covers: coversOf(kind) };
    }),
    cost: Number((seating.costOf(seating.seats) - MISSING * missing).toFixed(6)),
    free: places.filter((p) => !taken.has(p.name)).map((p) => p.name),
    normals,
  };
}
