import { buildApplication, install } from './lib.mjs';

install();
buildApplication();
