import { parseArgs } from 'node:util';

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

const options = {
  'no-simulation': { type: 'boolean' },
  probe: { type: 'string', multiple: true },
  csv: { type: 'string' },
  wav: { type: 'string' },
} as const;

const allowed: Readonly<Record<string, readonly (keyof typeof options)[]>> = {
  predict: ['no-simulation'],
  simulate: ['probe', 'csv', 'wav'],
  spectrum: ['probe'],
  tolerance: [],
  check: [],
};

/** What is wrong with the words of a command, in its own words. */
function refusal(command: string, error: unknown): Refusal {
  const { code, message } = error as { readonly code?: string; readonly message: string };
  const option = /'(-[^' ]*)/.exec(message)?.[1] ?? '';
  if (code === 'ERR_PARSE_ARGS_UNKNOWN_OPTION') return new Refusal([`${command} has no option ${option}`]);
  return new Refusal([option ? `${option.split(' ')[0]} needs a value` : message]);
}

function parsed(command: string, argv: readonly string[]) {
  const own = Object.fromEntries((allowed[command] ?? []).map((name) => [name, options[name]]));
  try {
    return parseArgs({ args: [...argv], options: own as Partial<typeof options>, allowPositionals: true });
  } catch (error) {
    throw refusal(command, error);
  }
}

export function parseArguments(command: string, argv: readonly string[]): Arguments {
  const { positionals, values } = parsed(command, argv);
  const given = values as { probe?: string[]; csv?: string; wav?: string; 'no-simulation'?: boolean };
  if (positionals.length > 1 && (given.csv !== undefined || given.wav !== undefined)) {
    throw new Refusal(['--csv and --wav take one patch at a time']);
  }
  return {
    files: positionals,
    simulation: given['no-simulation'] !== true,
    probes: given.probe ?? [],
    csv: given.csv ?? null,
    wav: given.wav ?? null,
  };
}
