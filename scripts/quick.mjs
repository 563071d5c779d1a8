// Runs a checking program of a package, by its name, as quickly as it goes: node scripts/quick.mjs eslint .
import { realpathSync } from 'node:fs';
import { inRoot, startChild } from './lib.mjs';
import { readingFlags } from './quickFlags.mjs';

const [program, ...args] = process.argv.slice(2);
startChild(process.execPath, [...readingFlags, realpathSync(inRoot('node_modules', '.bin', program)), ...args]);
