import { describe, expect, it } from 'vitest';
import { parseRack } from '../../document/rack';
import { printRack } from '../../document/printRack';
import { blankRack } from '../../document/rackTypes';
import { kindNamed } from '../../kinds';
import { catalogue, moduleOfType, typeNamed } from '.';

const types = catalogue.flatMap((c) => c.types);

describe('the catalogue', () => {
  it('has at least 40 types, each with its own name', () => {
    expect(types.length).toBeGreaterThanOrEqual(40);
    expect(new Set(types.map((t) => t.type)).size).toBe(types.length);
    expect(new Set(types.map((t) => t.name)).size).toBe(types.length);
  });

  it.each(types.map((t) => t.type))('%s is a module that a rack document may have, read back as it was', (type) => {
    const made = moduleOfType(type, 'x');
    const { channels } = typeNamed(type)!;
    const read = parseRack({ format: 'fenvo.rack', version: 1, modules: [{ id: 'x', channels }] });
    expect(read.ok ? [] : read.errors).toEqual([]);
    const rack = { ...blankRack, modules: [made!] };
    const again = parseRack(JSON.parse(JSON.stringify(printRack(rack))));
    expect(again).toEqual({ ok: true, value: rack });
    for (const { modes } of made!.channels) for (const mode of modes) expect(kindNamed(mode.kind)).toBeDefined();
  });

  it('knows no type that it has not', () => {
    expect(moduleOfType('nothing-3', 'x')).toBeNull();
  });
});
