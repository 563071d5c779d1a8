import { socketAt } from './sockets';
import { printMacros } from './macros';
import { isObject, own, shown } from './reader';
import type { Fields, Reader } from './reader';
import type { Json } from './result';
import type { ModuleDoc, Patch } from './types';

/** Lists at least as long are stored once: a variant says where the list stands. Shorter ones are written out. */
const LONG = 17;

interface Kept {
  /** Where it stands: `modules`, or `variants[0].modules`. */
  readonly place: string;
  readonly list: readonly unknown[];
}

/** The long lists of a patch and of its variants so far, by `moduleId.param`. */
export class SharedLists {
  private readonly kept = new Map<string, Kept[]>();

  add(modules: readonly ModuleDoc[], place: string, least = LONG): void {
    for (const m of modules) {
      for (const [param, value] of Object.entries(m.params ?? {})) {
        if (!Array.isArray(value) || value.length < least) continue;
        const key = socketAt(m.id, param);
        this.kept.set(key, [...(this.kept.get(key) ?? []), { place, list: value }]);
      }
    }
  }

  placeOf(id: string, param: string, value: unknown): string | null {
    if (!Array.isArray(value) || value.length < LONG) return null;
    return this.kept.get(socketAt(id, param))?.find((k) => sameList(k.list, value))?.place ?? null;
  }

  listAt(id: unknown, param: string, place: unknown): readonly unknown[] | null {
    return this.kept.get(socketAt(String(id), param))?.find((k) => k.place === place)?.list ?? null;
  }
}

function sameList(a: readonly unknown[], b: readonly unknown[]): boolean {
  if (a === b) return true;
  return a.length === b.length && a.every((x, i) => x === b[i] || JSON.stringify(x) === JSON.stringify(b[i]));
}

/** The variants as they are stored: a long list that already stands in the patch is referred to, `{ same: place }`. */
export function printVariants(patch: Patch): Json[] {
  const lists = new SharedLists();
  lists.add(patch.modules, 'modules');
  return patch.variants.map(({ hands, macros, ...variant }, i) => {
    const modules = variant.modules.map((m) => ({ ...m, ...(m.params && { params: folded(lists, m.id, m.params) }) }));
    lists.add(variant.modules, `variants[${i}].modules`);
    return {
      ...variant,
      modules,
      ...(hands.length > 0 && { hands }),
      ...printMacros({ macros, modules: variant.modules }),
    } as unknown as Json;
  });
}

function folded(lists: SharedLists, id: string, params: Fields): Fields {
  const entries = Object.entries(params).map(([param, value]) => {
    const same = lists.placeOf(id, param, value);
    return [param, same === null ? value : { same }] as const;
  });
  return Object.fromEntries(entries);
}

/** A variant's modules with the lists in place that they refer to; the very lists, so that they are held once too. */
export function withSharedLists(r: Reader, modules: unknown, path: string, lists: SharedLists): unknown {
  if (!Array.isArray(modules)) return modules;
  return modules.map((m: unknown, i) => {
    if (!isObject(m) || !isObject(m.params)) return m;
    const entries = Object.entries(m.params).map(([param, value]) => {
      if (!isObject(value) || !Object.hasOwn(value, 'same')) return [param, value] as const;
      const list = lists.listAt(own(m, 'id'), param, value.same);
      if (list) r.trusted.add(list);
      else {
        const at = `${path}[${i}].params.${param}.same`;
        r.fail(at, `must name where this list stands, such as modules; got ${shown(value.same)}`);
      }
      return [param, list ?? undefined] as const;
    });
    return { ...m, params: Object.fromEntries(entries.filter(([, value]) => value !== undefined)) };
  });
}
