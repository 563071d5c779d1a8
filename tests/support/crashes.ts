import { parseArgs } from 'node:util';
import { keepRuns } from '../../bench/longRuns';
import { crashRounds } from './crash';
import { hostileRequests } from './hostile';
import { mixedRequests } from './mixed';
import { Application } from './setup';

/** The long forms: npm run crash -- --rounds 200 --requests 20000 */
const { values } = parseArgs({
  options: {
    rounds: { type: 'string', default: '200' },
    requests: { type: 'string', default: '20000' },
    mixed: { type: 'string', default: '25000' },
    seed: { type: 'string', default: '1' },
    /** Adds what was found to the runs that docs/figures.md sums. */
    keep: { type: 'boolean', default: false },
  },
});
const began = Date.now();
const from = Number(values.seed);
const lost = await crashRounds(Number(values.rounds), from);
lost.forEach((line) => console.log(line));
console.log(`${values.rounds} crashes: ${lost.length} faults, ${Math.round((Date.now() - began) / 1000)} s`);
const application = await Application.open();
const { faults, asked, slowestHealth } = await hostileRequests(
  application.url,
  application.port,
  Number(values.requests),
  from,
);
faults.slice(0, 50).forEach((line) => console.log(line));
console.log(
  `${asked} hostile requests: ${faults.length} answered as a fault of the server, health after ${Math.round(slowestHealth)} ms at most, ${Math.round(application.megabytes)} MB then`,
);
const most = await mixedRequests(application, Number(values.mixed), from);
console.log(`${values.mixed} mixed requests: ${Math.round(most)} MB at most`);
if (values.keep)
  keepRuns([
    { claim: 'kills', from, cases: Number(values.rounds), faults: lost.length },
    {
      claim: 'hostile',
      from,
      cases: asked,
      faults: faults.length,
      note: `health after ${Math.round(slowestHealth)} ms at most`,
    },
    { claim: 'mixed', from, cases: Number(values.mixed), faults: 0, note: `${Math.round(most)} MB at most` },
  ]);
await application.close();
console.log(`${Math.round((Date.now() - began) / 1000)} s in all`);
process.exitCode = lost.length + faults.length > 0 ? 1 : 0;
