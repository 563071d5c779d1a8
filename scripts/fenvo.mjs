// The command line: bundles it once, then runs the bundle in this very process.
import { bundle, install } from './lib.mjs';

install();
await import(await bundle('cli/main.ts', 'fenvo'));
