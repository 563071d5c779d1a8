import { changeSchema, logSchema, patchSchema, rackSchema, readingsSchema, sheetSchema } from '../core';
import type { Patch } from '../core';
import { Refusal, parseArguments } from './arguments';
import type { Arguments } from './arguments';
import {
  checkCommand,
  jointCommand,
  predictCommand,
  simulateCommand,
  solveCommand,
  spectrumCommand,
  toleranceCommand,
} from './commands';
import { readMeasured, readPatch } from './documents';
import { benchCommand, calibrateCommand, diagnoseCommand } from './bench';
import { practiceSchema, walkthroughSchema } from '../core/practice';
import { practiceCommand } from './practice';
import { convertCommand } from './convert';
import { walkthroughCommand } from './walkthrough';
import { assignCommand, changeCommand, planCommand, sheetCommand } from './racks';

/** Commands that take each file by itself. */
const perPatch: Readonly<Record<string, (patch: Patch, args: Arguments) => unknown>> = {
  predict: predictCommand,
  simulate: simulateCommand,
  spectrum: spectrumCommand,
  joint: jointCommand,
  tolerance: toleranceCommand,
};

/** Commands that take their files together. */
const whole: Readonly<Record<string, (args: Arguments) => unknown>> = {
  solve: solveCommand,
  check: checkCommand,
  assign: assignCommand,
  plan: planCommand,
  sheet: sheetCommand,
  change: changeCommand,
  diagnose: diagnoseCommand,
  bench: benchCommand,
  calibrate: calibrateCommand,
  practice: practiceCommand,
  walkthrough: walkthroughCommand,
  convert: convertCommand,
};

const usage = `Usage: fenvo <command> FILE... [options]
       fenvo assign PATCH RACK
       fenvo plan REQUEST [RACK]
       fenvo sheet PATCH [RACK] [options]
       fenvo change PATCH PATCH [RACK]
       fenvo diagnose PATCH READINGS [RACK]
       fenvo bench PATCH [RACK] [options]
       fenvo calibrate RACK LOG
       fenvo practice --list | --skill NAME [options]
       fenvo walkthrough check FILE
       fenvo convert FROM TO          a patch as .json, .dot or .zip (tables)
       fenvo backup FILE [--data FOLDER]
       fenvo restore FILE [--data FOLDER] [--replace]
       fenvo schema [patch|rack|readings|log|sheet|change|practice|walkthrough]

FILE may be - for standard input. Output is JSON; several files produce an array, in order.

  predict     --no-simulation        guaranteed ranges only
  simulate    --probe SOCKET         record this socket (repeatable)
              --csv FILE, --wav FILE write the recorded signals
  spectrum    --probe SOCKET         spectral peaks of this socket (repeatable)
  joint       --probe A --probe B    what B is when A is at a place on its way
              --at VOLTS|lowest|middle|highest   (default: middle)
  solve       --free MODULE.PARAM    let only these knobs change (repeatable)
              --jumpers              also change jumpers and switches
              --rounded              round settings to 0.5% of knob travel
              PATCH RACK             stay within the assigned channels' ranges
  tolerance   --draws N              number of trials (minimum 500)
  check                              validate patches and racks
  sheet       --format json|md|csv|pdf|svg   (default: json)
              --out FILE             write to a file (required for PDF)
  change                             steps from one patch to the other
  diagnose                           which fault explains these readings
  bench       --seed N               readings of simulated rack N (default: 1)
              --fault JSON           put this fault into it (repeatable)
              --ideal                perfect modules and meter
              --steps                readings as the sheet goes
  calibrate                          what a log's readings tell of a rack's modules
  practice    --list                 what can be practised
              --skill NAME           an exercise, without its answer
              --level N, --seed N    how hard, 1 to 5, and which (default: 1, 1)
              --read SOCKET          measure here, in an exercise about a fault
              --answer JSON          mark this answer
  walkthrough check                  validate a walkthrough; what its steps point at

  predict, simulate, tolerance, solve, sheet, diagnose
              --as-measured          modules as the RACK (one of the files) says they
                                     were measured`;

const schemas: Readonly<Record<string, () => unknown>> = {
  patch: patchSchema,
  rack: rackSchema,
  readings: readingsSchema,
  log: logSchema,
  sheet: sheetSchema,
  change: changeSchema,
  practice: practiceSchema,
  walkthrough: walkthroughSchema,
};

async function run(argv: readonly string[]): Promise<string> {
  const [name = '', ...rest] = argv;
  if (['help', '--help', '-h'].includes(name)) return usage;
  if (name === 'schema') {
    const schema = schemas[rest[0] ?? 'patch'];
    if (!schema) throw new Refusal([`unknown schema ${rest[0]}; expected one of ${Object.keys(schemas).join(', ')}`]);
    return JSON.stringify(schema(), null, 2);
  }
  const [one, all] = [
    Object.hasOwn(perPatch, name) ? perPatch[name] : undefined,
    Object.hasOwn(whole, name) ? whole[name] : undefined,
  ];
  if (!one && !all) throw new Refusal([name ? `unknown command ${name}` : 'no command given', usage]);
  const args = parseArguments(name, rest);
  if (args.files.length === 0 && name !== 'practice') throw new Refusal(['no file given', usage]);
  const answer: unknown = all ? await all(args) : single(patchesOf(args).map((patch) => one?.(patch, args)));
  return isText(answer) ? answer.text.trimEnd() : JSON.stringify(answer);
}

const patchesOf = ({ files, asMeasured }: Arguments): readonly Patch[] =>
  asMeasured ? readMeasured(files) : files.map(readPatch);

const single = (list: readonly unknown[]): unknown => (list.length === 1 ? list[0] : list);

const isText = (x: unknown): x is { readonly text: string } =>
  typeof x === 'object' && x !== null && Object.keys(x).length === 1 && 'text' in x && typeof x.text === 'string';

// The reader may stop early, as `head` does.
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
