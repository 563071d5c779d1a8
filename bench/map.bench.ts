import { demoPatches } from '../demo/patches';
import { patchMap } from '../core/answers/map';
import { parsePatch } from '../core/document/parse';
import { row } from './figures';
import { Section } from './section';

const section = new Section('map', 'Map', '`npm run bench -- map`, of each demo patch, milliseconds.');

/** The map of each demo patch: how long it takes, from the patch alone. Figures, no verdict. */
for (const { id, document } of demoPatches('demo/patches')) {
  const read = parsePatch(document);
  if (!read.ok) throw new Error(`${id} cannot be read`);
  const patch = read.value;
  const times = Array.from({ length: 15 }, () => {
    const began = performance.now();
    // A patch of its own each time, so that nothing is known from before.
    patchMap(JSON.parse(JSON.stringify(patch)) as typeof patch);
    return performance.now() - began;
  });
  const { rows, columns } = patchMap(patch);
  const size = `${patch.modules.length} modules, ${rows.length} by ${columns.length}`;
  section.add(`${patch.name} (${size})`, row(times), patch.modules.length >= 25 ? '150' : '');
}
section.write();
