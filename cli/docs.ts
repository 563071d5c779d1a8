import { writeFileSync } from 'node:fs';
import { findingsPage, kindsPage } from '../core/document/docs';
import { editsPage } from '../core/document/editDocs';
import { patchSchema } from '../core';

/** Writes the pages of docs/ that are made from the code. */
writeFileSync('docs/kinds.md', kindsPage());
writeFileSync('docs/findings.md', findingsPage());
writeFileSync('docs/edits.md', editsPage());
writeFileSync('docs/patch.schema.json', `${JSON.stringify(patchSchema(), null, 2)}\n`);
