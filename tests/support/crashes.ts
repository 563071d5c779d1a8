import { parseArgs } from 'node:util';
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
  },
});
const began = Date.now();
const lost = await crashRounds(Number(values.rounds), Number(values.seed));
lost.forEach((line) => console.log(line));
console.log(`${values.rounds} crashes: ${lost.length} faults, ${Math.round((Date.now() - began) / 1000)} s`);
const application = await Application.open();
const { faults, asked, slowestHealth } = await hostileRequests(
  application.url,
  application.port,
  Number(values.requests),
  Number(values.seed),
);
faults.slice(0, 50).forEach((line) => console.log(line));
console.log(
  `${asked} hostile requests: ${faults.length} answered as a fault of the server, health after ${Math.round(slowestHealth)} ms at most, ${Math.round(application.megabytes)} MB then`,
);
const most = await mixedRequests(application, Number(values.mixed), Number(values.seed));
console.log(`${values.mixed} mixed requests: ${Math.round(most)} MB at most`);
await application.close();
console.log(`${Math.round((Date.now() - began) / 1000)} s in all`);
process.exitCode = lost.length + faults.length > 0 ? 1 : 0;
