import { documentFields } from './depth';
import { macrosByLabels } from './macros';
import { migrate } from './migrate';
import { patchField, variantField } from './patch';
import { Reader, own, shown } from './reader';
import type { Fields } from './reader';
import { readDeclaredFields, readField } from './readField';
import { SharedLists, withSharedLists } from './shared';
import { LISTS, STATE_KEYS, stateOf } from './state';
import { LIMITS } from './limits';
import type { Json, PatchError, Result } from './result';
import type { ModuleDoc, Patch, Variant } from './types';

const TOP: readonly string[] = ['format', 'version', 'name', 'notes', 'settings', ...LISTS];

/**
 * Reads a patch document.
 *
 * @returns the patch, or every error with its place (`modules[2].params.rateHz`); never throws.
 */
export function parsePatch(json: unknown): Result<Patch, PatchError[]> {
  const fields = documentFields(json, 'a patch document');
  return fields.ok ? readPatch(new Reader(), fields.value) : fields;
}

function readPatch(r: Reader, json: Fields): Result<Patch, PatchError[]> {
  const doc = migrate(r, json);
  if (r.errors.length > 0) return { ok: false, errors: r.errors };
  return r.settle((): Patch => {
    const read = readDeclaredFields(r, patchField, doc, '');
    return {
      format: 'fenvo.patch',
      version: 1,
      ...read,
      macros: read.macros ?? macrosByLabels(read.modules, read.cables),
      variants: readVariants(r, own(doc, 'variants'), read.modules),
      extra: readExtra(doc),
    };
  });
}

function readExtra(doc: Fields): Record<string, Json> {
  const entries = Object.entries(doc).filter(([key]) => !TOP.includes(key));
  return Object.fromEntries(entries) as Record<string, Json>;
}

/** Each variant is read as a patch of its own, so that it can be put into the editor at any time. */
function readVariants(r: Reader, x: unknown, modules: readonly ModuleDoc[]): Variant[] {
  const lists = new SharedLists();
  lists.add(modules, 'modules', 0);
  const taken = new Set<string>();
  return r.list(x, 'variants', LIMITS.variants).map((item, i) => {
    const path = `variants[${i}]`;
    const v = r.object(item, path);
    r.known(v, path, Object.keys(variantField.fields));
    const name = readField(r, variantField.fields.name, own(v, 'name'), `${path}.name`);
    if (taken.has(name)) r.fail(`${path}.name`, `is used twice: ${shown(name)}`);
    taken.add(name);
    const entries = STATE_KEYS.map((key) => [key, own(v, key)] as const).filter(([, value]) => value !== undefined);
    const linked = withSharedLists(r, own(v, 'modules'), `${path}.modules`, lists);
    const doc = { format: 'fenvo.patch', version: 1, ...Object.fromEntries(entries), modules: linked };
    const state = readPatch(new Reader(r.trusted), doc);
    if (!state.ok) {
      for (const e of state.errors) r.fail(`${path}.${e.path}`, e.message);
      return { name, ...stateOf(blank) };
    }
    lists.add(state.value.modules, `${path}.modules`, 0);
    return { name, ...stateOf(state.value) };
  });
}

/** A patch with nothing in it. */
export const blank: Patch = {
  format: 'fenvo.patch',
  version: 1,
  ...readDeclaredFields(new Reader(), patchField, {}, ''),
  macros: [],
  variants: [],
  extra: {},
};
