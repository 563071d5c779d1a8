import { readFileSync } from 'node:fs';
import { Script } from 'node:vm';
// The package's own entry reads a file of its own when it is not required: its library alone does not.
import readPdf from 'pdf-parse/lib/pdf-parse.js';
import { describe, expect, it } from 'vitest';
import { parsePatch, sheetOf } from '../core';
import { sheetHtml } from './sheetHtml';
import { sheetPdf } from './sheetPdf';

const read = parsePatch(JSON.parse(readFileSync('demo/patches/lamp-keepers-night.fenvo.json', 'utf8')));
if (!read.ok) throw new Error('the demo patch must be read');
const sheet = sheetOf({ ...read.value, settings: { ...read.value.settings, duration: 0.5 } });

describe('a sheet on paper', () => {
  it('holds every step with its clock positions and figures, on numbered pages, faces embedded', async () => {
    const bytes = Buffer.from(await sheetPdf(sheet));
    const { text, numpages } = await readPdf(bytes);
    const plain = text.replace(/\s+/g, '');
    expect(numpages).toBeGreaterThan(2);
    expect(plain).toContain(`${numpages}of${numpages}`);
    for (const step of sheet.steps) {
      expect(plain).toContain(
        step.text
          .replace(/[\s\u00a0]+/g, '')
          .replace(/…/g, '...')
          .replace(/→/g, 'to')
          .slice(0, 24),
      );
      if (step.do === 'set') for (const k of step.knobs) expect(plain).toContain(k.clock);
    }
    for (const caution of sheet.cautions) expect(plain).toContain(caution.replace(/\s+/g, ''));
    expect(bytes.toString('latin1')).toContain('/FontFile2');
  });

  it('comes on letter paper too', async () => {
    const boxes = await Promise.all(
      (['A4', 'LETTER'] as const).map(async (size) => Buffer.from(await sheetPdf(sheet, size)).toString('latin1')),
    );
    expect(boxes.map((b) => /\/MediaBox \[0 0 ([\d.]+)/.exec(b)?.[1])).toEqual(['595.28', '612']);
  });
});

describe('a sheet as one file', () => {
  it('has all inside, asks nobody, and a name that could be markup stays text', () => {
    const odd = { ...sheet, patch: '<b>Night</b> & "fog"' };
    const page = sheetHtml(odd);
    const markup = page.replace(/(<script[^>]*>)[\s\S]*?<\/script>/g, '$1');
    expect(markup).not.toMatch(/<(script|link|img)[^>]+(src|href)=/);
    expect(page).not.toContain('<b>Night</b>');
    for (const step of sheet.steps) expect(page).toContain(`data-tick="${step.id}"`);
    // Every script of it can be read as one.
    const scripts = [...page.matchAll(/<script[^>]*>([\s\S]*?)<\/script>/g)].map((m) => m[1]!);
    expect(scripts).toHaveLength(3);
    for (const code of scripts) expect(() => new Script(code)).not.toThrow();
  });
});
