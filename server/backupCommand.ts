import path from 'node:path';
import { parseArgs } from 'node:util';
import { BackupRefusal, backUp, restoreBackup } from './backup';
import { dataFolder } from './database';

/** `fenvo backup FILE` and `fenvo restore FILE`: they need the database, which the rest of the command line does not. */

const options = { data: { type: 'string' }, replace: { type: 'boolean', default: false } } as const;

async function run(argv: readonly string[]): Promise<unknown> {
  const [name, ...rest] = argv;
  const { values, positionals } = parseArgs({ args: rest, options, allowPositionals: true });
  const [file, ...more] = positionals;
  if (file === undefined || more.length > 0) throw new BackupRefusal(`expected: ${name} FILE [--data FOLDER]`);
  const folder = values.data === undefined ? dataFolder() : path.resolve(values.data);
  const at = path.resolve(file);
  if (name === 'backup') return { ok: true, file: at, ...(await backUp(folder, at)) };
  return { ok: true, folder, ...(await restoreBackup(at, folder, { replace: values.replace })) };
}

try {
  process.stdout.write(`${JSON.stringify(await run(process.argv.slice(2)))}\n`);
} catch (error) {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 2;
}
