// Runs a checking program, of a package by its name or of this folder, as quickly as it goes:
// node scripts/quick.mjs eslint .
import { realpathSync } from 'node:fs';
import { inRoot, startChild } from './lib.mjs';
import { readingFlags } from './quickFlags.mjs';

const [program, ...args] = process.argv.slice(2);
const file = program.endsWith('.mjs')
  ? inRoot('scripts', program)
  : realpathSync(inRoot('node_modules', '.bin', program));
startChild(process.execPath, [...readingFlags, file, ...args]);
