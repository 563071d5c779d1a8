// The command line: bundles it once, then runs the bundle in this very process. What needs the database is by itself.
import { install } from './installing.mjs';
import { bundle } from './lib.mjs';

await install();
const needsDatabase = ['backup', 'restore'].includes(process.argv[2] ?? '');
await import(await (needsDatabase ? bundle('server/backupCommand.ts', 'backup') : bundle('cli/main.ts', 'fenvo')));
