// The arrows between rooms and between folders: both sets of rules in one process, which reads the checker once.
import { cruise } from 'dependency-cruiser';
import extractOptions from 'dependency-cruiser/config-utl/extract-depcruise-options';
import extractTsConfig from 'dependency-cruiser/config-utl/extract-ts-config';
import { inRoot } from './lib.mjs';

const ROOMS = ['core', 'paper', 'server', 'app', 'ui', 'wire', 'workers', 'cli', 'demo'];
const rules = [
  ['.dependency-cruiser.cjs', [...ROOMS, 'tests', 'bench', 'proxy.ts']],
  ['.dependency-cruiser.folders.cjs', ROOMS],
];
process.chdir(inRoot());
const tsConfig = extractTsConfig(inRoot('tsconfig.json'));
for (const [config, places] of rules) {
  const options = { ...(await extractOptions(inRoot(config))), outputType: 'err' };
  const { output, exitCode } = await cruise(places, options, undefined, { tsConfig });
  console.log(output);
  if (exitCode !== 0) process.exitCode = 1;
}
