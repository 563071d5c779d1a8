import { writeFileSync } from 'node:fs';
import { findingsPage, kindsPage } from '../core/docs/docs';
import { editsPage } from '../core/docs/editDocs';
import { practiceSchema, walkthroughSchema } from '../core/practice';
import { changeSchema, logSchema, patchSchema, rackSchema, readingsSchema, sheetSchema } from '../core';

/** Writes the pages of docs/ that are made from the code. */
writeFileSync('docs/kinds.md', kindsPage());
writeFileSync('docs/findings.md', findingsPage());
writeFileSync('docs/edits.md', editsPage());
writeFileSync('docs/patch.schema.json', `${JSON.stringify(patchSchema(), null, 2)}\n`);
writeFileSync('docs/rack.schema.json', `${JSON.stringify(rackSchema(), null, 2)}\n`);
writeFileSync('docs/readings.schema.json', `${JSON.stringify(readingsSchema(), null, 2)}\n`);
writeFileSync('docs/log.schema.json', `${JSON.stringify(logSchema(), null, 2)}\n`);
writeFileSync('docs/sheet.schema.json', `${JSON.stringify(sheetSchema(), null, 2)}\n`);
writeFileSync('docs/practice.schema.json', `${JSON.stringify(practiceSchema(), null, 2)}\n`);
writeFileSync('docs/walkthrough.schema.json', `${JSON.stringify(walkthroughSchema(), null, 2)}\n`);
writeFileSync('docs/change.schema.json', `${JSON.stringify(changeSchema(), null, 2)}\n`);
