import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const OPTIONS = '.options reltol=1e-9 abstol=1e-15 vntol=1e-12 gmin=1e-18';

/** Runs a netlist by ngspice, and answers what it prints; @throws Error with what it says where it fails. */
function run(lines: readonly string[], control: readonly string[]): string {
  const text = [
    '* verify',
    ...lines,
    OPTIONS,
    '.control',
    'set numdgt=12',
    ...control,
    'quit',
    '.endc',
    '.end',
    '',
  ].join('\n');
  const folder = mkdtempSync(path.join(tmpdir(), 'fenvo-verify-'));
  const file = path.join(folder, 'circuit.cir');
  writeFileSync(file, text);
  const done = spawnSync('ngspice', ['-n', '-b', file], { encoding: 'utf8' });
  rmSync(folder, { recursive: true });
  if (done.error) throw done.error;
  if (/Error|failed|singular/i.test(done.stderr)) throw new Error(`${done.stderr}\n${text}`);
  return done.stdout;
}

/** Steady voltages at nodes. */
export function operatingPoint(lines: readonly string[], nodes: readonly string[]): number[] {
  const printed = run(lines, ['op', ...nodes.map((n) => `print v(${n})`)]);
  return nodes.map((n) => {
    const found = new RegExp(`^v\\(${n}\\) = (\\S+)`, 'm').exec(printed)?.[1];
    if (found === undefined) throw new Error(`no voltage at ${n}:\n${printed}`);
    return Number(found);
  });
}

/** A voltage at moments of a run, seconds. */
export function transient(lines: readonly string[], node: string, times: readonly number[]): number[] {
  const end = Math.max(...times);
  const asked = times.map((t, i) => `meas tran m${i} find v(${node}) at=${t}`);
  const printed = run(lines, [`tran ${end / 20_000} ${end * 1.001} 0 ${end / 20_000}`, ...asked]);
  return times.map((_, i) => Number(new RegExp(`^m${i}\\s+=\\s+(\\S+)`, 'm').exec(printed)?.[1] ?? Number.NaN));
}
