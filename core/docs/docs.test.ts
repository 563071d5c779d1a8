import { readFileSync } from 'node:fs';
import * as prettier from 'prettier';
import { expect, it } from 'vitest';
import { findingsPage, kindsPage } from './docs';
import { editedDocument, editWords, editsPage } from './editDocs';
import { applyEdits } from '../edit/edit';
import { parsePatch } from '../document/parse';
import { printPatch } from '../document/print';

it.each([
  ['docs/kinds.md', kindsPage()],
  ['docs/findings.md', findingsPage()],
  ['docs/edits.md', editsPage()],
])('%s is what the code says (npm run docs)', async (file, page) => {
  const options = (await prettier.resolveConfig(file)) ?? {};
  expect(readFileSync(file, 'utf8')).toBe(await prettier.format(page, { ...options, filepath: file }));
});

it.each(Object.entries(editWords))(
  'the example of the edit “%s” does something, and leaves a document',
  (_, { example }) => {
    const before = parsePatch(editedDocument);
    if (!before.ok) throw new Error('the page’s own document is refused');
    const after = printPatch(applyEdits(before.value, [example]));
    if (example.do !== 'tidy') expect(after).not.toEqual(printPatch(before.value));
    expect(parsePatch(JSON.parse(JSON.stringify(after)))).toMatchObject({ ok: true });
  },
);
