import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { predict } from '../answers/predict';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';
import { placesOf } from '../document/rackTypes';
import type { Rack } from '../document/rackTypes';
import type { Patch } from '../document/types';
import { applyEdits } from '../edit/edit';
import { patchOf } from '../testing/patch';
import { rackOf } from '../testing/racks';
import { assignRack } from './assign';
import { Servers } from './serve';

const seated = (patch: Patch, rack: Rack) =>
  Object.fromEntries(assignRack(patch, rack).assigned.map((a) => [a.module, a.rack]));

/** The least cost by trying every seating; a module without a channel costs more than all the rest. */
function byTrying(patch: Patch, rack: Rack): number {
  const places = placesOf(rack);
  const servers = new Servers(patch);
  const ids = patch.modules.map((m) => m.id);
  const links = patch.normals.flatMap((n) => ('from' in n ? [n] : []));
  let best = Infinity;
  const seats = new Map<string, number>();
  const total = (own: number): number =>
    own +
    links.reduce((sum, n) => {
      const [to, from] = [n.to.split('.'), n.from.split('.')];
      const [a, b] = [seats.get(to[0]!), seats.get(from[0]!)].map((i) => (i === undefined ? undefined : places[i]));
      if (!a) return sum;
      const joined =
        b?.module === a.module &&
        a.channel.normals.some((x) => x.to === to[1] && 'from' in x && x.from === `${b.channel.id}.${from[1]}`);
      return joined ? sum : sum + 0.1;
    }, 0);
  const go = (i: number, own: number): void => {
    const id = ids[i];
    if (id === undefined) {
      best = Math.min(best, total(own));
      return;
    }
    places.forEach((p, index) => {
      if ([...seats.values()].includes(index)) return;
      const answer = servers.answer(id, p.channel);
      if (!('service' in answer)) return;
      seats.set(id, index);
      go(i + 1, own + answer.service.cost);
      seats.delete(id);
    });
    go(i + 1, own + 10_000);
  };
  go(0, 0);
  return Number((best % 10_000).toFixed(6)) + 10_000 * Math.floor(best / 10_000);
}

describe('assigning a rack', () => {
  it('takes own kinds before stand-ins, and the first of equals', () => {
    const patch = patchOf({ trim: ['attenuator', { amount: 0.5 }], flip: ['inverter'] }, ['trim.out > flip.in']);
    const rack = rackOf({ quad: { a: 'attenuverter', b: 'attenuverter' }, pad: { a: 'attenuator' } });
    const found = assignRack(patch, rack);
    expect(seated(patch, rack)).toEqual({ trim: 'pad/a', flip: 'quad/a' });
    expect(found.cost).toBe(1);
    expect(found.assigned.find((a) => a.module === 'flip')?.standIn).toContain('inverts');
    expect(found.free).toEqual(['quad/b']);
    expect(found.short).toEqual([]);
  });

  it('holds settings to what a channel is built as; a wider jumper serves where the setting lies inside', () => {
    const amplified = patchOf({ a: ['attenuverter', { maxAmount: 2, amount: 1.5 }] });
    const plain = patchOf({ a: ['attenuverter', { amount: 0.5 }] });
    const one = rackOf({ m: { a: { kind: 'attenuverter', fixed: { maxAmount: 1 } } } });
    const two = rackOf({ m: { a: { kind: 'attenuverter', fixed: { maxAmount: 2 } } } });
    expect(seated(amplified, one)).toEqual({});
    expect(assignRack(amplified, one).short[0]).toMatchObject({ module: 'a', kind: 'attenuverter' });
    expect(assignRack(amplified, one).short[0]!.why).toMatch(/^m: /);
    expect(assignRack(amplified, one).short[0]!.covers).toContain('offset');
    expect(seated(plain, two)).toEqual({ a: 'm/a' });
    const open = patchOf({ amp: ['vca'] });
    const eight = rackOf({ m: { a: { kind: 'vca', fixed: { unityVolts: 8 } } } });
    expect(assignRack(open, eight).short[0]!.why).toContain('is fixed at 8 on this channel');
  });

  it('a range that does not reach is said, one that does is taken', () => {
    const rack = rackOf({ m: { a: { kind: 'offset', ranges: { volts: [0, 5] } } } });
    expect(seated(patchOf({ a: ['offset', { volts: 3 }] }), rack)).toEqual({ a: 'm/a' });
    expect(assignRack(patchOf({ a: ['offset', { volts: -1 }] }), rack).short[0]!.why).toContain(
      'Offset ranges from 0 to 5',
    );
  });

  it('needs no channel for what is no module, nor for an output that the rack has none of', () => {
    const patch = patchOf({ hand: ['gesture'], out: ['lineOut'], split: ['mult'] });
    expect(assignRack(patch, rackOf({ m: { a: 'vca' } }))).toMatchObject({ assigned: [], short: [], free: ['m/a'] });
    expect(seated(patch, rackOf({ m: { a: 'lineOut' } }))).toEqual({ out: 'm/a' });
  });

  it('plays one thing at a time on a channel that a switch turns into several', () => {
    const modes = [{ kind: 'slew' }, { kind: 'envelope' }, { kind: 'lfo' }];
    const rack = rackOf({ f: { a: { modes }, b: { modes } } });
    const patch = patchOf({ x: ['lfo'], y: ['envelope'], z: ['slew'] });
    const found = assignRack(patch, rack);
    expect(found.assigned).toHaveLength(2);
    expect(found.short[0]!.why).toContain('in use');
  });

  it('keeps a cascade together where the channels’ own normals join it', () => {
    const normals = [{ from: 'one.cv', to: 'two.cv' }];
    const patch = patchOf({ env: ['lfo'], one: ['vca'], two: ['vca'] }, ['env.out > one.cv'], {}, { normals });
    const rack = rackOf({
      single: { a: 'vca' },
      osc: { a: 'lfo' },
      dual: { a: 'vca', b: { kind: 'vca', normals: [{ to: 'cv', from: 'a.cv' }] } },
    });
    const found = assignRack(patch, rack);
    expect(found.cost).toBe(0);
    expect(seated(patch, rack)).toMatchObject({ one: 'dual/a', two: 'dual/b' });
    const after = applyEdits(
      patch,
      found.assigned.flatMap((a) => a.edits),
    );
    expect(after.normals).toEqual(normals);
    // Without such channels a cable does it.
    const loose = assignRack(patch, rackOf({ x: { a: 'vca' }, y: { a: 'vca' }, o: { a: 'lfo' } }));
    expect(loose.cost).toBe(0.1);
    const cabled = applyEdits(
      patch,
      loose.assigned.flatMap((a) => a.edits),
    );
    expect(cabled.cables).toContainEqual({ from: 'env.out', to: 'two.cv' });
    expect(cabled.normals).toEqual([]);
  });

  it('tells what empty sockets of the real channels add, and takes it over', () => {
    const patch = patchOf({ lift: ['offset', { amount: 0.5, volts: 1 }] });
    const rack = rackOf({ m: { a: { kind: 'offset', normals: [{ to: 'in', volts: 5 }] } } });
    const found = assignRack(patch, rack);
    expect(found.normals).toEqual([{ to: 'lift.in', volts: 5 }]);
    const after = applyEdits(
      patch,
      found.assigned.flatMap((a) => a.edits),
    );
    expect(predict(after, { simulation: false }).outputs['lift.out']!.bound).toEqual([3.5, 3.5]);
    expect(after.modules[0]!.rack).toBe('m/a');
  });

  it('is the cheapest there is, on 500 small cases tried in full', () => {
    const kinds = ['attenuator', 'attenuverter', 'offset', 'inverter', 'mixer', 'polarizer', 'constant'];
    const wanted = ['attenuator', 'attenuverter', 'offset', 'inverter', 'constant', 'vca'];
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...wanted), { minLength: 1, maxLength: 5 }),
        fc.array(fc.tuple(fc.constantFrom(...kinds, 'vca'), fc.boolean()), { minLength: 1, maxLength: 6 }),
        fc.array(fc.nat(4), { maxLength: 3 }),
        (names, owned, ties) => {
          const parts = Object.fromEntries(names.map((kind, i) => [`m${i}`, [kind, {}] as const]));
          const amps = names.flatMap((k, i) => (k === 'vca' ? [`m${i}`] : []));
          const normals = amps
            .slice(1)
            .flatMap((id, i) => (ties[i] ? [{ from: `${amps[i]}.cv`, to: `${id}.cv` }] : []));
          const patch = patchOf(parts, [], {}, { normals });
          const channels = owned.map(([kind, joined], i): readonly [string, Record<string, unknown>] => {
            const before = owned[i - 1]?.[0];
            const normalled = kind === 'vca' && before === 'vca' && joined;
            return [`c${i}`, { kind, ...(normalled && { normals: [{ to: 'cv', from: `c${i - 1}.cv` }] }) }];
          });
          const rack = rackOf({ box: Object.fromEntries(channels) });
          const found = assignRack(patch, rack);
          expect(Number((found.cost + 10_000 * found.short.length).toFixed(6))).toBe(byTrying(patch, rack));
          expect(new Set(found.assigned.map((a) => a.rack)).size).toBe(found.assigned.length);
          const after = applyEdits(
            patch,
            found.assigned.flatMap((a) => a.edits),
          );
          expect(parsePatch(JSON.parse(JSON.stringify(printPatch(after)))).ok).toBe(true);
        },
      ),
      { numRuns: 500 },
    );
  });
});
