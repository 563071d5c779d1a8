// The command line: bundles it once, then runs the bundle in this very process.
import { install } from './installing.mjs';
import { bundle } from './lib.mjs';

await install();
await import(await bundle('cli/main.ts', 'fenvo'));
