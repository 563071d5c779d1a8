import { writeSection } from '../section';
import { verifiedCircuits } from './circuits';
import { verifiedForms } from './forms';

/** Compares the core with a general circuit simulator and with closed forms; ends with 1 where one is off. */

/** How far a circuit may be off, volts; and a closed form, of its size. */
const MOST = { circuit: 2e-6, form: 1.5e-3 } as const;

const circuits = verifiedCircuits();
const forms = verifiedForms();
const small = (x: number): string => (x === 0 ? '0' : x.toExponential(1));

const families = [...new Set(circuits.map((c) => c.family))].map((family) => {
  const of = circuits.filter((c) => c.family === family);
  const compared = of.reduce((sum, c) => sum + c.compared, 0);
  return `| ${family} | ${of.length} | ${compared} | ${small(Math.max(...of.map((c) => c.off)))} V |`;
});
const rows = forms.map(({ name, formula, ours, theirs, unit }) => {
  const figure = (x: number): string => `${Number(x.toPrecision(10))}${unit && ` ${unit}`}`;
  return `| ${name} | ${formula} | ${figure(theirs)} | ${figure(ours)} | ${small(Math.abs(ours - theirs))} |`;
});
writeSection('verify', 'Checked from outside', [
  `${circuits.length} circuits, drawn from seeds, worked out by the core and by ngspice from netlists that know only the kinds’ formulas, and ${forms.length} closed forms (\`npm run verify\`).`,
  '',
  '| circuits | how many | voltages compared | off at most |',
  '| --- | --- | --- | --- |',
  ...families,
  '',
  '| closed form | formula | by the formula | by the core | off |',
  '| --- | --- | --- | --- | --- |',
  ...rows,
]);
const wrong = [
  ...circuits.filter((c) => !(c.off <= MOST.circuit)).map((c) => `${c.name}: off by ${c.off} V`),
  ...forms
    .filter(({ ours, theirs }) => !(Math.abs(ours - theirs) <= MOST.form * Math.max(1, Math.abs(theirs))))
    .map((f) => `${f.name}: ${f.ours}, not ${f.theirs}`),
];
for (const line of wrong) console.error(line);
console.log(`${circuits.length} circuits and ${forms.length} closed forms; ${wrong.length} off`);
if (wrong.length > 0) process.exitCode = 1;
