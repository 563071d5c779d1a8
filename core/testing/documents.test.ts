import { expect, it } from 'vitest';
import { checkDocuments } from './documents';

const DOCUMENTS = Number(process.env.FENVO_FUZZ ?? 20_000);

it.each([0, 1, 2, 3])('changed documents are read or properly refused, part %i', (part) => {
  const share = Math.ceil(DOCUMENTS / 4);
  const report = checkDocuments(1_000_000 + part * share, share);
  expect(report.faults).toEqual([]);
  expect(Math.min(report.read, report.refused)).toBeGreaterThan(share / 20);
});
