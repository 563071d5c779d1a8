import { documentFields } from './depth';
import { migrateRack } from './migrate';
import { moduleFrom, rackField } from './rackFields';
import type { Rack } from './rackTypes';
import { Reader } from './reader';
import { readDeclaredFields } from './readField';
import type { Json, PatchError, Result } from './result';

const TOP = ['format', 'version', ...Object.keys(rackField.fields)];

/** Reads a rack document; the same refusals as for patches, each with its place. */
export function parseRack(json: unknown): Result<Rack, PatchError[]> {
  const fields = documentFields(json, 'a rack document');
  if (!fields.ok) return fields;
  const r = new Reader();
  const doc = migrateRack(r, fields.value);
  if (r.errors.length > 0) return { ok: false, errors: r.errors };
  return r.settle((): Rack => {
    const { modules, ...read } = readDeclaredFields(r, rackField, doc, '');
    return {
      format: 'fenvo.rack',
      version: 1,
      ...read,
      modules: modules.map(moduleFrom),
      extra: Object.fromEntries(Object.entries(doc).filter(([key]) => !TOP.includes(key))) as Record<string, Json>,
    };
  });
}
