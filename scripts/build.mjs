import { buildApplication, install } from './lib.mjs';

install();
await buildApplication();
