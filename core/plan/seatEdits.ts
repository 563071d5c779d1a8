import { idOf, nameOf, partsOf, socketAt } from '../document/sockets';
import type { ChannelNormal } from '../document/rackTypes';
import { fittingTarget } from '../document/targets';
import type { MacroDoc, ModuleDoc, Normal, Patch, Target } from '../document/types';
import type { Edit } from '../edit/edit';
import { EditSequence } from '../edit/editSequence';
import { Wiring } from '../graph/wiring';
import type { Seat, Service } from './serve';

/** The same place by its name on the channel. */
function renamed(socket: string, id: string, service: Service): string {
  if (idOf(socket) !== id || !service.sockets) return socket;
  const { inputs, outputs } = service.sockets;
  const name = nameOf(socket);
  return socketAt(id, inputs[name] ?? outputs[name] ?? name);
}

/** The module as it stands on its channel: settings, impedances, and where it is. */
function moduleOn(m: ModuleDoc, { place, service }: Seat): ModuleDoc {
  const { outputOhms, inputOhms, noiseMicrovolts = m.noiseMicrovolts } = place.channel;
  const { params: _params, outputOhms: _out, inputOhms: _in, noiseMicrovolts: _noise, locked, ...rest } = m;
  const own = service.sockets === null;
  const ohms = { out: { ...(own && m.outputOhms), ...outputOhms }, in: { ...(own && m.inputOhms), ...inputOhms } };
  return {
    ...rest,
    kind: service.mode.kind,
    ...(Object.keys(service.params).length > 0 && { params: service.params }),
    ...(own && locked && { locked }),
    ...(Object.keys(ohms.out).length > 0 && { outputOhms: ohms.out }),
    ...(Object.keys(ohms.in).length > 0 && { inputOhms: ohms.in }),
    ...(noiseMicrovolts !== undefined && { noiseMicrovolts }),
    rack: place.name,
  };
}

const renamedMacro = (macro: MacroDoc, name: (socket: string) => string): MacroDoc => ({
  ...macro,
  rows: macro.rows.map((row) => ({ ...row, end: name(row.end), ...(row.into && { into: name(row.into) }) })),
});

/** Cables, normals, targets, macros and probes of a module whose sockets have other names on its channel. */
function moved(work: EditSequence, m: ModuleDoc, service: Service): void {
  if (!service.sockets) return void work.do({ do: 'replace', module: m });
  const { targets, probes } = work.patch;
  const wiring = new Wiring(work.patch);
  const name = (socket: string): string => renamed(socket, m.id, service);
  const differs = (socket: string): boolean => name(socket) !== socket;
  const plugs = wiring.cables.filter((c) => differs(c.from) || differs(c.to));
  const ties = wiring.declared.filter((n) => differs(n.to) || ('from' in n && differs(n.from)));
  const moved = targets.filter((t) => differs(t.at) || ('to' in t && differs(t.to)));
  const pins = probes.filter((p) => differs(p.at));
  const macros = work.patch.macros.filter((m) =>
    m.rows.some((row) => differs(row.end) || differs(row.into ?? row.end)),
  );
  work.do(
    ...plugs.map((c): Edit => ({ do: 'unplug', to: c.to })),
    ...ties.map((n): Edit => ({ do: 'normal', to: n.to, normal: null })),
    ...moved.map((t): Edit => ({ do: 'target', at: t.at, ...(t.id !== undefined && { id: t.id }), target: null })),
    ...pins.map((p): Edit => ({ do: 'pin', at: p.at, pinned: false })),
  );
  const after: Edit[] = [
    ...plugs.map((c): Edit => ({ do: 'plug', cable: { from: name(c.from), to: name(c.to) } })),
    ...ties.map((n): Edit => {
      const normal: Normal = 'from' in n ? { ...n, to: name(n.to), from: name(n.from) } : { ...n, to: name(n.to) };
      return { do: 'normal', to: normal.to, normal };
    }),
    ...moved.flatMap((t): Edit[] => {
      const target = fittingTarget({ ...t, at: name(t.at), ...('to' in t && { to: name(t.to) }) } as Target, [m]);
      if (!target) return [];
      return [{ do: 'target', at: target.at, ...(target.id !== undefined && { id: target.id }), target }];
    }),
    ...pins.map((p): Edit => ({ do: 'pin', at: name(p.at), pinned: true })),
    ...macros.map((macro): Edit => ({ do: 'macro', fader: macro.fader, macro: renamedMacro(macro, name) })),
  ];
  work.do({ do: 'replace', module: m }, ...after);
}

/** What an empty socket of a real channel carries, told of the patch; null where it carries nothing. */
function normalThere(id: string, normal: ChannelNormal, seat: Seat, seats: ReadonlyMap<string, Seat>): Normal | null {
  const to = socketAt(id, normal.to);
  if ('volts' in normal) return normal.volts === 0 ? null : { to, volts: normal.volts };
  const { id: channel, name: socket } = partsOf(normal.from);
  const found = [...seats].find(([, s]) => s.place.module === seat.place.module && s.place.channel.id === channel);
  if (found) return { to, from: socketAt(found[0], socket), ...(normal.brokenBy && { brokenBy: normal.brokenBy }) };
  // The neighbour plays nothing: what it carries is its own normal, if it has one.
  const other = seat.place.module.channels.find((c) => c.id === channel);
  const volts = other?.normals.find((n) => n.to === socket && 'volts' in n);
  return volts && 'volts' in volts && volts.volts !== 0 ? { to, volts: volts.volts } : null;
}

/** A normal that only the plan has: where it carries an output, a cable of the rack must do it. */
function insteadOf(wiring: Wiring, normal: Normal): Edit[] {
  const feed = wiring.feed(normal.to);
  if (feed.by !== 'normal') return [];
  return [
    { do: 'normal', to: normal.to, normal: null },
    { do: 'plug', cable: { from: feed.from, to: normal.to } },
  ];
}

/** Whether two normals of one input carry the same, and are broken alike. */
function isSame(a: Normal, b: Normal): boolean {
  if ('volts' in a) return 'volts' in b && a.volts === b.volts;
  return 'from' in b && a.from === b.from && a.brokenBy === b.brokenBy;
}

interface SeatEdits {
  readonly edits: ReadonlyMap<string, readonly Edit[]>;
  /** What empty sockets of the channels add. */
  readonly normals: readonly Normal[];
}

/** What puts modules on their channels, module by module, each after those before it. */
export function seatEdits(patch: Patch, seats: ReadonlyMap<string, Seat>): SeatEdits {
  const work = new EditSequence(patch);
  const edits = new Map<string, Edit[]>();
  const record = (id: string, run: () => void): void => {
    const before = work.edits.length;
    run();
    edits.set(id, [...(edits.get(id) ?? []), ...work.edits.slice(before)]);
  };
  for (const [id, seat] of seats) {
    const m = work.patch.modules.find((x) => x.id === id);
    if (m) record(id, () => moved(work, moduleOn(m, seat), seat.service));
  }
  const normals: Normal[] = [];
  let wiring = new Wiring(work.patch);
  for (const [id, seat] of seats) {
    const last = [...seats.keys()].at(-1) ?? id;
    const there = seat.place.channel.normals.flatMap((n) => normalThere(id, n, seat, seats) ?? []);
    const planned = wiring.declared.filter(
      (n) => idOf(n.to) === id && !there.some((a) => a.to === n.to && isSame(a, n)),
    );
    record(last, () => {
      const before = work.edits.length;
      for (const n of planned) work.do(...insteadOf(new Wiring(work.patch), n));
      if (work.edits.length > before) wiring = new Wiring(work.patch);
      const added = there.filter((n) => !wiring.cableInto(n.to));
      for (const normal of added) work.do({ do: 'normal', to: normal.to, normal });
      if (added.length > 0) wiring = new Wiring(work.patch);
      normals.push(...added);
    });
  }
  return { edits, normals };
}
