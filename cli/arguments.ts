/** Bad input, to be told on standard error, one line a fault. */
export class Refusal extends Error {
  constructor(readonly lines: readonly string[]) {
    super(lines.join('\n'));
  }
}

export interface Arguments {
  readonly files: readonly string[];
  readonly simulation: boolean;
  readonly probes: readonly string[];
  readonly csv: string | null;
  readonly wav: string | null;
}

const allowed: Readonly<Record<string, readonly string[]>> = {
  predict: ['--no-simulation'],
  simulate: ['--probe', '--csv', '--wav'],
  spectrum: ['--probe'],
  tolerance: [],
  check: [],
};

export function parseArguments(command: string, argv: readonly string[]): Arguments {
  const files: string[] = [];
  const values = new Map<string, string[]>();
  let simulation = true;
  for (let i = 0; i < argv.length; i++) {
    const word = argv[i] as string;
    if (word === '-' || !word.startsWith('-')) files.push(word);
    else if (!allowed[command]?.includes(word)) throw new Refusal([`${command} has no option ${word}`]);
    else if (word === '--no-simulation') simulation = false;
    else {
      const value = argv[++i];
      if (value === undefined) throw new Refusal([`${word} needs a value`]);
      values.set(word, [...(values.get(word) ?? []), value]);
    }
  }
  if (files.length > 1 && (values.has('--csv') || values.has('--wav'))) {
    throw new Refusal(['--csv and --wav take one patch at a time']);
  }
  return {
    files,
    simulation,
    probes: values.get('--probe') ?? [],
    csv: values.get('--csv')?.at(-1) ?? null,
    wav: values.get('--wav')?.at(-1) ?? null,
  };
}
