import { readFileSync } from 'node:fs';
import path from 'node:path';
import { knobName, knobSvg, meterText, needsLines, partText, sheetParts, stepsMark } from '../core';
import type { Sheet, SheetStep } from '../core';
import { PAGE_SCRIPT, PAGE_STYLE } from './sheetPage';

const escaped = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** JSON that may stand inside a script element. */
const inScript = (text: string): string => text.replace(/</g, '\\u003c');

function knobs(sheet: Sheet, step: Extract<SheetStep, { do: 'set' }>): string {
  const one = (k: (typeof step.knobs)[number]): string =>
    `<figure>${knobSvg(k.percent / 100).replaceAll('#1C2B33', 'currentColor')}<b>${k.clock}</b><figcaption>${escaped(knobName(sheet, step.module, k.param))}</figcaption></figure>`;
  return step.knobs.length === 0 ? '' : `<div class="knobs">${step.knobs.map(one).join('')}</div>`;
}

function details(sheet: Sheet, step: SheetStep): string {
  if (step.do === 'set') return knobs(sheet, step);
  if (step.do !== 'measure') return '';
  const lines = step.expect.meter.map(
    (m) =>
      `<li data-value="${m.value}" data-within="${m.plusMinus}" data-unit="${escaped(m.unit)}"><label><span>${escaped(meterText(m))}</span><input type="text" data-read="${escaped(step.id)}" data-quantity="${m.quantity}" inputmode="text" autocomplete="off" maxlength="40" placeholder="Reading"></label><b class="verdict" role="status"></b></li>`,
  );
  return `<ul class="figures">${lines.join('')}</ul>`;
}

function stepHtml(sheet: Sheet, step: SheetStep): string {
  const place = step.do === 'set' && step.channel ? ` (${step.channel})` : '';
  return `<li class="step" data-step="${escaped(step.id)}"><label class="tick"><input type="checkbox" data-tick="${escaped(step.id)}"><span>${escaped(step.text + place)}</span></label>${details(sheet, step)}</li>`;
}

/** A package's own script for pages, so that it may stand inside one. */
function packaged(...parts: readonly string[]): string {
  const file = path.join(process.cwd(), 'node_modules', ...parts);
  return readFileSync(file, 'utf8').replaceAll('</script', '<\\/script');
}

/** Keeps a screen awake where the browser has no lock of its own; draws a code. */
const scripts = (): readonly string[] => [
  packaged('nosleep.js', 'dist', 'NoSleep.min.js'),
  packaged('qrcode-generator', 'dist', 'qrcode.js'),
];

interface PageOptions {
  /** Of the page's policy, where a server hands it out. */
  readonly nonce?: string;
  /** Where ticks are sent to, as soon as somebody answers there. */
  readonly sync?: string;
}

/** A sheet as one file with all inside: it opens anywhere, keeps its ticks and hands them back as a file. */
export function sheetHtml(sheet: Sheet, { nonce, sync }: PageOptions = {}): string {
  const own = nonce === undefined ? '' : ` nonce="${nonce}"`;
  const title = sheet.rack ? `${sheet.patch}, on ${sheet.rack}` : sheet.patch;
  const needs = needsLines(sheet.needs);
  const parts = sheetParts(sheet.steps)
    .map(
      (p) =>
        `<section><h2>${escaped(partText(sheet, p.part))}</h2><ol>${p.steps.map((s) => stepHtml(sheet, s)).join('')}</ol></section>`,
    )
    .join('');
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title><style${own}>${PAGE_STYLE}</style></head>
<body><header><h1>${escaped(title)}</h1><p class="bar"><button id="one" type="button" aria-pressed="false">One step at a time</button><button id="awake" type="button" aria-pressed="false">Keep screen on</button><button id="save" type="button">Save ticks</button><button id="code" type="button" aria-pressed="false">Ticks as a code</button><span id="count" role="status"></span></p><div id="codeplace" hidden></div></header>
<main><details><summary>You’ll need</summary><ul>${needs.map((n) => `<li>${escaped(n)}</li>`).join('')}</ul></details>
<ul class="care">${sheet.cautions.map((c) => `<li>${escaped(c)}</li>`).join('')}</ul>${parts}
<p class="turn"><button id="back" type="button">Back</button><button id="next" type="button">Next</button></p></main>
${scripts()
  .map((script) => `<script${own}>${script}</script>`)
  .join('\n')}
<script${own}>const SYNC=${inScript(JSON.stringify(sync ?? null))};const SHEET=${inScript(JSON.stringify({ patch: sheet.patch, rack: sheet.rack, mark: stepsMark(sheet) }))};${PAGE_SCRIPT}</script></body></html>
`;
}
