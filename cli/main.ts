import { readFileSync } from 'node:fs';
import { parsePatch, patchSchema } from '../core';
import type { Patch } from '../core';
import { LIMITS } from '../core';
import { Refusal, parseArguments } from './arguments';
import type { Arguments } from './arguments';
import {
  checkCommand,
  predictCommand,
  simulateCommand,
  solveCommand,
  spectrumCommand,
  toleranceCommand,
} from './commands';

const commands: Readonly<Record<string, (patch: Patch, args: Arguments) => unknown>> = {
  predict: predictCommand,
  simulate: simulateCommand,
  spectrum: spectrumCommand,
  tolerance: toleranceCommand,
  solve: solveCommand,
  check: checkCommand,
};

const usage = `usage: fenvo predict|simulate|solve|tolerance|spectrum|check FILE... [options]
       fenvo schema
  FILE may be - for standard input. Answers are JSON; several files give a list in their order.
  predict   --no-simulation           bounds only
  simulate  --probe SOCKET            keep this socket's trace (repeatable)
            --csv FILE, --wav FILE    write the probes' traces
  spectrum  --probe SOCKET            peaks of this socket's spectrum (repeatable)
  solve     --free MODULE.PARAM       only these knobs may turn (repeatable)
            --jumpers                 steps, jumpers and switches too
            --rounded                 on steps of 0.5 % of a knob's travel
  tolerance --draws N                 at least 500`;

function readPatch(file: string): Patch {
  const text = readText(file);
  if (Buffer.byteLength(text) > LIMITS.bytes) throw new Refusal([`${file}: is larger than ${LIMITS.bytes} bytes`]);
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new Refusal([`${file}: is not JSON: ${error instanceof Error ? error.message : error}`]);
  }
  const result = parsePatch(json);
  if (result.ok) return result.value;
  throw new Refusal(result.errors.map((e) => `${file}: ${e.path}${e.path ? ': ' : ''}${e.message}`));
}

function readText(file: string): string {
  try {
    return readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch (error) {
    throw new Refusal([`${file}: cannot be read: ${error instanceof Error ? error.message : error}`]);
  }
}

function run(argv: readonly string[]): string {
  const [name = '', ...rest] = argv;
  if (name === 'schema') return JSON.stringify(patchSchema(), null, 2);
  const command = Object.hasOwn(commands, name) ? commands[name] : undefined;
  if (!command) throw new Refusal([name ? `there is no command ${name}` : 'no command given', usage]);
  const args = parseArguments(name, rest);
  if (args.files.length === 0) throw new Refusal(['no file given', usage]);
  const answers = args.files.map((file) => command(readPatch(file), args));
  return JSON.stringify(answers.length === 1 ? answers[0] : answers);
}

try {
  process.stdout.write(`${run(process.argv.slice(2))}\n`);
} catch (error) {
  const lines = error instanceof Refusal ? error.lines : [error instanceof Error ? error.message : String(error)];
  process.stderr.write(`${lines.join('\n')}\n`);
  process.exitCode = 2;
}
