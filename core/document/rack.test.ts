import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { catalogue, moduleOfType } from '../rack/catalogue';
import { printRack } from './printRack';
import { parseRack } from './rack';
import { blankRack } from './rackTypes';

const channel = { id: 'a', kind: 'attenuverter' };
const rack = (more: object, top: object = {}) => ({
  format: 'fenvo.rack',
  version: 1,
  modules: [{ id: 'quad', channels: [{ ...channel, ...more }] }],
  ...top,
});
const faults = (x: unknown) => {
  const read = parseRack(x);
  return read.ok ? [] : read.errors.map((e) => e.path);
};
const at = (key: string) => [`modules[0].channels[0].${key}`];

describe('a rack document', () => {
  it.each([
    [{}, []],
    [{ kind: 'nothing' }, at('kind')],
    [{ fixed: { nope: 1 } }, at('fixed.nope')],
    [{ fixed: { amount: 9 } }, at('fixed.amount')],
    [{ ranges: { amount: [1, -1] } }, at('ranges.amount')],
    [{ ranges: { amount: [-9, 1] } }, at('ranges.amount[0]')],
    [{ ranges: { amount: 'x' } }, at('ranges.amount')],
    [{ fixed: { amount: 1 }, ranges: { amount: [0, 1] } }, at('fixed.amount')],
    [{ choices: { maxAmount: [1, 3] } }, at('choices.maxAmount[1]')],
    [{ choices: { maxAmount: [] } }, at('choices.maxAmount')],
    [{ modes: [{ kind: 'slew' }] }, at('kind')],
    [{ normals: [{ to: 'nothing', volts: 1 }] }, at('normals[0].to')],
    [{ normals: [{ to: 'in', from: 'b.in' }] }, at('normals[0].from')],
    [{ normals: [{ to: 'in', volts: 99 }] }, at('normals[0].volts')],
    [{ outputOhms: { nope: 1 } }, at('outputOhms.nope')],
    [{ inputOhms: { in: -1 } }, at('inputOhms.in')],
    [
      {
        knobs: {
          amount: {
            scale: [0, 10],
            points: [
              [0, 0],
              [0.5, 11],
            ],
          },
        },
      },
      at('knobs.amount.points[1][1]'),
    ],
    [
      {
        knobs: {
          amount: {
            scale: [0, 10],
            points: [
              [0.5, 5],
              [0.4, 6],
            ],
          },
        },
      },
      at('knobs.amount.points[1]'),
    ],
    [{ measured: { gain: 'x' } }, at('measured.gain')],
    [{ id: 'Bad' }, at('id')],
    [{ odd: 1 }, at('odd')],
  ])('%j is read, or refused at its place', (more, paths) => {
    expect(faults(rack(more)).slice(0, 1)).toEqual(paths);
  });

  it('refuses what is no rack, what is newer, and what is there twice; keeps what it does not know on top', () => {
    expect(faults(7)).toEqual(['']);
    expect(faults({ format: 'fenvo.patch', version: 1 })).toEqual(['format']);
    expect(faults({ format: 'fenvo.rack', version: 2 })).toEqual(['version']);
    expect(
      faults(
        rack(
          {},
          {
            modules: [
              { id: 'a', channels: [channel] },
              { id: 'a', channels: [channel] },
            ],
          },
        ),
      ),
    ).toEqual(['modules[1].id']);
    expect(faults(rack({}, { modules: [{ id: 'a', channels: [] }] }))).toEqual(['modules[0].channels']);
    const kept = parseRack(rack({}, { shelf: { colour: 'red' } }));
    expect(kept.ok && printRack(kept.value)).toMatchObject({ shelf: { colour: 'red' } });
  });

  it('any racks of the catalogue are read back as they were', () => {
    const types = catalogue.flatMap((c) => c.types.map((t) => t.type));
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...types), { maxLength: 12 }), (names) => {
        const modules = names.map((type, i) => ({ ...moduleOfType(type, `m${i}`)!, row: 1 + (i % 3), at: 8 * i }));
        const made = { ...blankRack, name: 'Mine', notes: 'x', modules };
        expect(parseRack(JSON.parse(JSON.stringify(printRack(made))))).toEqual({ ok: true, value: made });
      }),
      { numRuns: 40 },
    );
  });
});
