import { install } from './installing.mjs';
import { buildApplication } from './lib.mjs';

await install();
await buildApplication();
