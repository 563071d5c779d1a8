import { parseArgs } from 'node:util';
import { LEAST_DRAWS, readQuantity } from '../core';
import type { JointAt } from '../core';
import { LEVELS } from '../core/practice/types';
import type { Level } from '../core/practice/types';

/** Bad input, reported on standard error, one line a fault. */
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
  /** Knobs that the solver may turn; null: all it may by itself. */
  readonly free: readonly string[] | null;
  readonly jumpers: boolean;
  readonly rounded: boolean;
  readonly draws: number | null;
  readonly format: SheetFormat;
  readonly out: string | null;
  /** Where the first probe is looked at. */
  readonly at: JointAt;
  /** Which simulated rack. */
  readonly seed: number;
  /** Put into it, as JSON. */
  readonly faults: readonly string[];
  readonly ideal: boolean;
  /** Readings as the sheet goes. */
  readonly steps: boolean;
  /** With the rack's modules as they were measured. */
  readonly asMeasured: boolean;
  /** What can be practised. */
  readonly list: boolean;
  readonly skill: string | null;
  readonly level: Level;
  /** A socket to measure in an exercise. */
  readonly read: string | null;
  /** To an exercise, as JSON. */
  readonly answer: string | null;
}

export const SHEET_FORMATS = ['json', 'md', 'csv', 'pdf', 'svg'] as const;
export type SheetFormat = (typeof SHEET_FORMATS)[number];

const options = {
  'no-simulation': { type: 'boolean' },
  probe: { type: 'string', multiple: true },
  csv: { type: 'string' },
  wav: { type: 'string' },
  free: { type: 'string', multiple: true },
  jumpers: { type: 'boolean' },
  rounded: { type: 'boolean' },
  draws: { type: 'string' },
  format: { type: 'string' },
  out: { type: 'string' },
  at: { type: 'string' },
  seed: { type: 'string' },
  fault: { type: 'string', multiple: true },
  ideal: { type: 'boolean' },
  steps: { type: 'boolean' },
  'as-measured': { type: 'boolean' },
  list: { type: 'boolean' },
  skill: { type: 'string' },
  level: { type: 'string' },
  read: { type: 'string' },
  answer: { type: 'string' },
} as const;

const allowed: Readonly<Record<string, readonly (keyof typeof options)[]>> = {
  predict: ['no-simulation', 'as-measured'],
  simulate: ['probe', 'csv', 'wav', 'as-measured'],
  spectrum: ['probe'],
  joint: ['probe', 'at'],
  tolerance: ['draws', 'as-measured'],
  solve: ['free', 'jumpers', 'rounded', 'as-measured'],
  check: [],
  assign: [],
  plan: [],
  sheet: ['format', 'out', 'as-measured'],
  change: [],
  diagnose: ['as-measured'],
  calibrate: [],
  bench: ['seed', 'fault', 'ideal', 'steps'],
  practice: ['list', 'skill', 'level', 'seed', 'read', 'answer'],
  walkthrough: [],
};

/** What is wrong with a command's arguments, in the command's own terms. */
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

interface Given {
  readonly probe?: string[];
  readonly csv?: string;
  readonly wav?: string;
  readonly 'no-simulation'?: boolean;
  readonly free?: string[];
  readonly jumpers?: boolean;
  readonly rounded?: boolean;
  readonly draws?: string;
  readonly format?: string;
  readonly out?: string;
  readonly at?: string;
  readonly seed?: string;
  readonly fault?: string[];
  readonly ideal?: boolean;
  readonly steps?: boolean;
  readonly 'as-measured'?: boolean;
  readonly list?: boolean;
  readonly skill?: string;
  readonly level?: string;
  readonly read?: string;
  readonly answer?: string;
}

const MOST_DRAWS = 100_000;

function drawsOf(text: string): number {
  const draws = Number(text);
  if (Number.isInteger(draws) && draws >= LEAST_DRAWS && draws <= MOST_DRAWS) return draws;
  throw new Refusal([`--draws must be a whole number between ${LEAST_DRAWS} and ${MOST_DRAWS}, got ${text}`]);
}

const MOST_SEED = 4_294_967_295;

function seedOf(text: string): number {
  const seed = Number(text);
  if (text.trim() !== '' && Number.isInteger(seed) && seed >= 0 && seed <= MOST_SEED) return seed;
  throw new Refusal([`--seed must be a whole number between 0 and ${MOST_SEED}, got ${text}`]);
}

function levelOf(text: string): Level {
  const found = LEVELS.find((l) => String(l) === text);
  if (found) return found;
  throw new Refusal([`--level must be one of ${LEVELS.join(', ')}, got ${text}`]);
}

/** A voltage, or a place on the way of the first probe. */
function atOf(text: string): JointAt {
  if (text === 'lowest' || text === 'middle' || text === 'highest') return text;
  const volts = readQuantity(text, 'V');
  if (volts !== null) return volts;
  throw new Refusal([`--at must be a voltage, lowest, middle or highest, got ${text}`]);
}

function formatOf(text: string): SheetFormat {
  const found = SHEET_FORMATS.find((f) => f === text);
  if (found) return found;
  throw new Refusal([`--format must be one of ${SHEET_FORMATS.join(', ')}, got ${text}`]);
}

export function parseArguments(command: string, argv: readonly string[]): Arguments {
  const { positionals, values } = parsed(command, argv);
  const given = values as Given;
  if (positionals.length > (given['as-measured'] ? 2 : 1) && (given.csv !== undefined || given.wav !== undefined)) {
    throw new Refusal(['--csv and --wav take one patch at a time']);
  }
  return {
    files: positionals,
    simulation: given['no-simulation'] !== true,
    probes: given.probe ?? [],
    csv: given.csv ?? null,
    wav: given.wav ?? null,
    free: given.free ?? null,
    jumpers: given.jumpers === true,
    rounded: given.rounded === true,
    draws: given.draws === undefined ? null : drawsOf(given.draws),
    format: formatOf(given.format ?? 'json'),
    out: given.out ?? null,
    at: atOf(given.at ?? 'middle'),
    seed: seedOf(given.seed ?? '1'),
    faults: given.fault ?? [],
    ideal: given.ideal === true,
    steps: given.steps === true,
    asMeasured: given['as-measured'] === true,
    list: given.list === true,
    skill: given.skill ?? null,
    level: levelOf(given.level ?? '1'),
    read: given.read ?? null,
    answer: given.answer ?? null,
  };
}
