// Installs, builds, fills the demo data, starts the application, and prints its address once it answers.
import { existsSync } from 'node:fs';
import { bundle, inRoot, run } from './lib.mjs';
import { serve } from './serving.mjs';

const fill = async (data) => {
  const seed = await bundle('demo/seed.ts', 'seed');
  run(process.execPath, [seed], { env: { FENVO_DATA: data } });
};
// A new database is made before the server opens it; one that is there is looked through while the server starts.
if (existsSync(inRoot('data', 'fenvo.sqlite')) && !existsSync(inRoot('data-demo', 'fenvo.sqlite')))
  console.log('Your own patches stay in data/, where the demo was before: npm start serves them.');
await serve('data-demo', {
  before: async ({ data, fresh }) => fresh && fill(data),
  beside: async ({ data, fresh }) => fresh || fill(data),
});
