// Writes the pages of docs/ that are made from the code.
import { install } from './installing.mjs';
import { bundle, inRoot, run } from './lib.mjs';

await install();
run(process.execPath, [await bundle('cli/docs.ts', 'docs')]);
run(inRoot('node_modules', '.bin', 'prettier'), [
  '--write',
  'docs/kinds.md',
  'docs/findings.md',
  'docs/edits.md',
  'docs/patch.schema.json',
  'docs/rack.schema.json',
  'docs/readings.schema.json',
  'docs/log.schema.json',
  'docs/sheet.schema.json',
  'docs/change.schema.json',
]);
