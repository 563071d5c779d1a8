import { readFileSync } from 'node:fs';
import * as prettier from 'prettier';
import { expect, it } from 'vitest';
import { findingsPage, kindsPage } from './docs';

it.each([
  ['docs/kinds.md', kindsPage()],
  ['docs/findings.md', findingsPage()],
])('%s is what the code says (npm run docs)', async (file, page) => {
  const options = (await prettier.resolveConfig(file)) ?? {};
  expect(readFileSync(file, 'utf8')).toBe(await prettier.format(page, { ...options, filepath: file }));
});
