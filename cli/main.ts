import { patchSchema, rackSchema } from '../core';
import type { Patch } from '../core';
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
import { readPatch } from './documents';
import { assignCommand, planCommand, sheetCommand } from './racks';

/** Commands that take each file by itself. */
const perPatch: Readonly<Record<string, (patch: Patch, args: Arguments) => unknown>> = {
  predict: predictCommand,
  simulate: simulateCommand,
  spectrum: spectrumCommand,
  tolerance: toleranceCommand,
};

/** Commands that take their files together. */
const whole: Readonly<Record<string, (args: Arguments) => unknown>> = {
  solve: solveCommand,
  check: checkCommand,
  assign: assignCommand,
  plan: planCommand,
  sheet: sheetCommand,
};

const usage = `usage: fenvo predict|simulate|solve|tolerance|spectrum|check FILE... [options]
       fenvo assign PATCH RACK | plan REQUEST [RACK] | sheet PATCH [RACK] [options]
       fenvo schema [patch|rack]
  FILE may be - for standard input. Answers are JSON; several files give a list in their order.
  predict   --no-simulation           bounds only
  simulate  --probe SOCKET            keep this socket's trace (repeatable)
            --csv FILE, --wav FILE    write the probes' traces
  spectrum  --probe SOCKET            peaks of this socket's spectrum (repeatable)
  solve     --free MODULE.PARAM       only these knobs may turn (repeatable)
            --jumpers                 steps, jumpers and switches too
            --rounded                 on steps of 0.5 % of a knob's travel
            PATCH RACK                within what the channels allow that the patch sits on
  tolerance --draws N                 at least 500
  check                               patches and racks
  sheet     --format json|md|csv|pdf|svg  json if left out
            --out FILE                written there; a PDF must be`;

const schemas: Readonly<Record<string, () => unknown>> = { patch: patchSchema, rack: rackSchema };

async function run(argv: readonly string[]): Promise<string> {
  const [name = '', ...rest] = argv;
  if (['help', '--help', '-h'].includes(name)) return usage;
  if (name === 'schema') {
    const schema = schemas[rest[0] ?? 'patch'];
    if (!schema) throw new Refusal([`there is no schema ${rest[0]}; known are ${Object.keys(schemas).join(', ')}`]);
    return JSON.stringify(schema(), null, 2);
  }
  const [one, all] = [
    Object.hasOwn(perPatch, name) ? perPatch[name] : undefined,
    Object.hasOwn(whole, name) ? whole[name] : undefined,
  ];
  if (!one && !all) throw new Refusal([name ? `there is no command ${name}` : 'no command given', usage]);
  const args = parseArguments(name, rest);
  if (args.files.length === 0) throw new Refusal(['no file given', usage]);
  const answer: unknown = all ? await all(args) : single(args.files.map((file) => one?.(readPatch(file), args)));
  return isText(answer) ? answer.text.trimEnd() : JSON.stringify(answer);
}

const single = (list: readonly unknown[]): unknown => (list.length === 1 ? list[0] : list);

const isText = (x: unknown): x is { readonly text: string } =>
  typeof x === 'object' && x !== null && Object.keys(x).length === 1 && 'text' in x && typeof x.text === 'string';

// Whoever reads along may have seen enough, as `head` does.
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  if (error.code === 'EPIPE') process.exit(0);
  throw error;
});

try {
  process.stdout.write(`${await run(process.argv.slice(2))}\n`);
} catch (error) {
  const lines = error instanceof Refusal ? error.lines : [error instanceof Error ? error.message : String(error)];
  process.stderr.write(`${lines.join('\n')}\n`);
  process.exitCode = 2;
}
