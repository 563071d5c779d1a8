import { idOf, kindNamed, kindTitle, moduleOfType, RACK_LIMITS, searchWords } from '@/core';
import type { Channel, ChannelMode, Rack, RackModule } from '@/core';

/** What is done with a rack: each gives a new one and leaves the old as it was. */

/** HP of a row, where nothing else is said. */
export const ROW_HP = 84;
const USUAL_HP = 4;

function freeIdIn(taken: readonly string[], wanted: string): string {
  const base = wanted.replace(/[^a-z0-9_-]/g, '').slice(0, 26) || 'm';
  const start = /^[a-z]/.test(base) ? base : `m${base}`;
  if (!taken.includes(start)) return start;
  for (let n = 2; ; n++) if (!taken.includes(`${start}${n}`)) return `${start}${n}`;
}

interface Room {
  readonly row: number;
  readonly at: number;
}

/** The first place in a row that is wide enough; below all rows where none is. */
export function roomFor(rack: Rack, hp: number): Room {
  const rows = Math.max(1, ...rack.modules.map((m) => m.row ?? 1));
  for (let row = 1; row <= rows; row++) {
    const taken = rack.modules
      .filter((m) => (m.row ?? 1) === row)
      .map((m) => [m.at ?? 0, (m.at ?? 0) + (m.hp ?? USUAL_HP)] as const)
      .sort((a, b) => a[0] - b[0]);
    let at = 0;
    for (const [from, to] of taken) {
      if (from - at >= hp) return { row, at };
      at = Math.max(at, to);
    }
    if (at + hp <= ROW_HP) return { row, at };
  }
  return { row: Math.min(RACK_LIMITS.rows, rows + 1), at: 0 };
}

const withModule = (rack: Rack, added: RackModule): Rack => ({ ...rack, modules: [...rack.modules, added] });

export interface AddedModule {
  readonly rack: Rack;
  readonly id: string;
}

/** A module of the catalogue, in the first place that is free. */
export function addOfType(rack: Rack, type: string): AddedModule | null {
  const id = freeIdIn(
    rack.modules.map((m) => m.id),
    type.replace(/-.*$/, ''),
  );
  const made = moduleOfType(type, id);
  return made && { rack: withModule(rack, { ...made, ...roomFor(rack, made.hp ?? USUAL_HP) }), id };
}

export const plainMode = (kind: string): ChannelMode => ({ kind, fixed: {}, ranges: {}, choices: {} });

const plainChannel = (id: string, kind: string): Channel => ({
  id,
  label: id.toUpperCase(),
  modes: [plainMode(kind)],
  normals: [],
  outputOhms: {},
  inputOhms: {},
  knobs: {},
});

/** A module by hand: one channel of a kind, to be changed. */
export function addByHand(rack: Rack, kind: string): AddedModule {
  const id = freeIdIn(
    rack.modules.map((m) => m.id),
    kind.toLowerCase(),
  );
  const made = {
    id,
    name: kindTitle(kind),
    hp: USUAL_HP,
    ...roomFor(rack, USUAL_HP),
    channels: [plainChannel('a', kind)],
  };
  return { rack: withModule(rack, made), id };
}

export function changeModule(rack: Rack, id: string, change: (m: RackModule) => RackModule): Rack {
  return { ...rack, modules: rack.modules.map((m) => (m.id === id ? change(m) : m)) };
}

export const removeModule = (rack: Rack, id: string): Rack => ({
  ...rack,
  modules: rack.modules.filter((m) => m.id !== id),
});

/** One more of the same, beside what is there. */
export function duplicateModule(rack: Rack, id: string): AddedModule | null {
  const m = rack.modules.find((x) => x.id === id);
  if (!m) return null;
  const copy = freeIdIn(
    rack.modules.map((x) => x.id),
    id.replace(/\d+$/, ''),
  );
  return { rack: withModule(rack, { ...m, id: copy, ...roomFor(rack, m.hp ?? USUAL_HP) }), id: copy };
}

export function changeChannel(rack: Rack, id: string, channel: string, change: (c: Channel) => Channel): Rack {
  return changeModule(rack, id, (m) => ({
    ...m,
    channels: m.channels.map((c) => (c.id === channel ? change(c) : c)),
  }));
}

export function addChannel(rack: Rack, id: string): Rack {
  return changeModule(rack, id, (m) => {
    if (m.channels.length >= RACK_LIMITS.channels) return m;
    const last = m.channels.at(-1);
    const next = freeIdIn(
      m.channels.map((c) => c.id),
      String.fromCharCode(97 + m.channels.length),
    );
    const kind = last?.modes[0].kind ?? 'attenuverter';
    return { ...m, channels: [...m.channels, plainChannel(next, kind)] };
  });
}

/** The last channel stays: a module has one at least. Normals that led from it go with it. */
export function removeChannel(rack: Rack, id: string, channel: string): Rack {
  return changeModule(rack, id, (m) => {
    if (m.channels.length < 2) return m;
    const channels = m.channels
      .filter((c) => c.id !== channel)
      .map((c) => ({ ...c, normals: c.normals.filter((n) => !('from' in n) || idOf(n.from) !== channel) }));
    return { ...m, channels };
  });
}

export interface Listed {
  readonly module: RackModule;
  /** Patches by channel, of those that say so. */
  readonly uses: ReadonlyMap<string, readonly string[]>;
}

/** The modules that fit words, in the order of their rows. */
export function listed(rack: Rack, words: string, uses: ReadonlyMap<string, readonly string[]>): Listed[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const text = (m: RackModule): string =>
    [
      m.name,
      m.id,
      m.type ?? '',
      ...m.channels.flatMap((c) => c.modes.flatMap((x) => [x.kind, ...searchWords(kindNamed(x.kind))])),
    ]
      .join(' ')
      .toLowerCase();
  return rack.modules
    .filter((m) => wanted.every((w) => text(m).includes(w)))
    .toSorted((a, b) => (a.row ?? 1) - (b.row ?? 1) || (a.at ?? 0) - (b.at ?? 0))
    .map((module) => ({ module, uses }));
}

/** Rows of a rack with what stands in them, from the left. */
export function rowsOf(
  rack: Rack,
): { readonly row: number; readonly hp: number; readonly modules: readonly RackModule[] }[] {
  const rows = new Map<number, RackModule[]>();
  for (const m of rack.modules) rows.set(m.row ?? 1, [...(rows.get(m.row ?? 1) ?? []), m]);
  return [...rows]
    .sort(([a], [b]) => a - b)
    .map(([row, modules]) => ({
      row,
      hp: Math.max(ROW_HP, ...modules.map((m) => (m.at ?? 0) + (m.hp ?? USUAL_HP))),
      modules: modules.toSorted((a, b) => (a.at ?? 0) - (b.at ?? 0)),
    }));
}
