import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { allKinds, catalogue, issueTitle } from '@/core';
import { allRules } from '@/core/findings';
import { recipes } from '@/core/recipes';
import { glossary } from './parts/glossary';

/** Words that were replaced, each with what is said instead. */
const RETIRED: readonly (readonly [RegExp, string])[] = [
  [/\bshelf\b/i, 'Patches'],
  [/\bdesk\b/i, 'editor'],
  [/\b(an|one|the|this|other|free|more|each|which|several|many|all|its) ends?\b(?! of)/i, 'destination'],
  [/\bend’s\b/i, 'destination’s'],
  [/\bchains?\b/i, 'path, route'],
  [/\bwanted\b/i, 'target'],
  [/\blift(s|ed|ing)?\b/i, 'offset'],
  [/\b(flips?|flipped|turns? over|upside down)\b/i, 'inverts, inverted'],
  [/\bamplifiers?\b/i, 'VCA'],
  [/slow oscillator/i, 'LFO'],
  [/constant voltage/i, 'DC, manual voltage'],
  [/\bshall\b/i, 'a noun or an imperative'],
  [/\bshuts?\b/i, 'closes, closed'],
  [/\bfindings?\b/i, 'issue'],
  [/\bcures?d?\b/i, 'fix'],
  [/\b(take|takes|taken|took) (it |all |that )?over\b/i, 'apply'],
  [/\bput (it )?back\b/i, 'restore'],
  [/\bframes?\b/i, 'stage'],
  [/\bcontours?\b/i, 'envelope'],
  [/\btonight\b/i, 'rack check'],
  [/\b(never leaves|repeats every)\b/i, 'guaranteed range, period'],
  [/\b(anew|of late|by now|all in all|again and again)\b/i, 'plain English'],
  [/\b(stands? in|sits? on|seat)\b/i, 'substitute, assigned to'],
  [/\bbring in\b|\bbrought in\b/i, 'import'],
  [/\bfor good\b|\bfor ever\b/i, 'permanently'],
  [/\bfigures?\b/i, 'value'],
  [/\bhands?\b(?!-)/i, 'automation, gesture, controls'],
  [/\b(say|says|said) (which|what|it again)\b/i, 'a noun'],
  [/ \d+ %|\} %/, 'no space before %'],
];

/** What is said in the field's own sense, or of something else. */
const MEANT: readonly RegExp[] = [
  /by hand\b/i,
  /hand-moved/i,
  /second-hand/i,
  /instead of your hand/,
  /^Voltage-controlled amplifier/,
  /^desk ready$/,
  /^(never shut|shut to open)$/,
  /class="figures"/,
  // A power amplifier, behind the rack; a stage by that name.
  /it and the amplifier/,
  /Over’s threshold/,
  /says what (arrives|you want) there/,
];

interface Said {
  readonly text: string;
  readonly at: string;
}

/** Style sheets and scripts in a string, and what only marks a moment for a stopwatch. */
const CODE = /paper\/sheetPage\.ts|cli\/docs\.ts/;

const files = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((f) => path.join(folder, f))
    .filter((f) => /\.tsx?$/.test(f) && !f.includes('.test.') && !CODE.test(f));

/** Attributes whose text nobody reads. */
const HIDDEN =
  /^(sx|id|key|type|role|component|variant|color|severity|href|data-.*|d|fill|stroke|transform|viewBox|scope|size|align|edge|position|className|fontFamily|textAnchor|aria-(labelledby|controls|keyshortcuts|haspopup|describedby|live)|autoComplete|as|bits|way)$/;

const isProse = (text: string): boolean => /[A-Za-z]{2,}[ …’.]|^[A-Z][a-z]+$/.test(text.trim());

/** Every piece of text in a source that a person may read: prose in literals, templates and markup. */
function saidIn(file: string): Said[] {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: Said[] = [];
  const put = (node: ts.Node, text: string): void => {
    const { line } = source.getLineAndCharacterOfPosition(node.getStart());
    if (isProse(text)) found.push({ text: text.replace(/\s+/g, ' ').trim(), at: `${file}:${line + 1}` });
  };
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isJsxAttribute(node) && HIDDEN.test(node.name.getText())) return;
    if (
      ts.isCallExpression(node) &&
      /^(later|import|querySelector|closest|getElementById|Error)$/.test(node.expression.getText())
    )
      return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) put(node, node.text);
    else if (ts.isJsxText(node)) put(node, node.text);
    else if (ts.isTemplateExpression(node))
      put(node, [node.head.text, ...node.templateSpans.map((s) => s.literal.text)].join('{}'));
    node.forEachChild(visit);
  };
  visit(source);
  return found;
}

const faultsOf = (said: readonly Said[]): string[] =>
  said.flatMap(({ text, at }) =>
    RETIRED.filter(([word]) => word.test(MEANT.reduce((t, m) => t.replace(m, ''), text))).map(
      ([, instead]) => `${at}: “${text}” (say: ${instead})`,
    ),
  );

describe('what people read', () => {
  it('uses no word that was replaced, on the screens, the sheets and the command line', () => {
    const said = ['ui', 'app', 'paper', 'cli', 'core/sheet', 'core/solve', 'core/plan', 'core/rack', 'core/macro']
      .flatMap(files)
      .flatMap(saidIn);
    expect(said.length).toBeGreaterThan(1000);
    expect(faultsOf(said)).toEqual([]);
  });
  it('uses none in kinds, issues, recipes, the catalogue and the glossary', () => {
    const said = [
      ...allKinds.flatMap((k) => [
        k.title,
        k.does,
        ...Object.values(k.words.params),
        ...Object.values(k.words.sockets ?? {}),
        ...(k.ends ?? []).map((e) => e.says),
      ]),
      ...allRules.flatMap((r) => [issueTitle(r.code), r.why, r.when, r.cures ?? '']),
      ...recipes.flatMap((r) => [r.title, r.turn]),
      ...catalogue.flatMap((c) => [c.title, ...c.types.map((t) => t.says)]),
      ...Object.values(glossary),
    ].map((text) => ({ text: String(text), at: 'core' }));
    expect(faultsOf(said)).toEqual([]);
  });
});
