import { writeFileSync } from 'node:fs';
import { findingsPage, kindsPage } from '../core/docs/docs';
import { editsPage } from '../core/docs/editDocs';
import { logSchema, patchSchema, rackSchema, readingsSchema } from '../core';

/** Writes the pages of docs/ that are made from the code. */
writeFileSync('docs/kinds.md', kindsPage());
writeFileSync('docs/findings.md', findingsPage());
writeFileSync('docs/edits.md', editsPage());
writeFileSync('docs/patch.schema.json', `${JSON.stringify(patchSchema(), null, 2)}\n`);
writeFileSync('docs/rack.schema.json', `${JSON.stringify(rackSchema(), null, 2)}\n`);
writeFileSync('docs/readings.schema.json', `${JSON.stringify(readingsSchema(), null, 2)}\n`);
writeFileSync('docs/log.schema.json', `${JSON.stringify(logSchema(), null, 2)}\n`);
