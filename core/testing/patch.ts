import { parsePatch } from '../document/parse';
import type { ModuleDoc, Patch, Settings } from '../document/types';
import type { ParamValue } from '../kinds/params';

type Parts = Readonly<
  Record<string, readonly [kind: string, params?: Readonly<Record<string, ParamValue>>, more?: Partial<ModuleDoc>]>
>;

/**
 * A patch in short: modules by id, and cables as `from > to`.
 *
 * @throws with every place of what `parsePatch` refuses.
 */
export function patchOf(
  parts: Parts,
  cables: readonly string[] = [],
  settings: Partial<Settings> = {},
  more: object = {},
): Patch {
  const result = parsePatch({
    format: 'fenvo.patch',
    version: 1,
    settings,
    modules: Object.entries(parts).map(([id, [kind, params, rest]]) => ({
      id,
      kind,
      ...(params && { params }),
      ...rest,
    })),
    cables: cables.map((text) => {
      const [from, to] = text.split(' > ');
      return { from, to };
    }),
    ...more,
  });
  if (!result.ok) throw new Error(result.errors.map((e) => `${e.path}: ${e.message}`).join('\n'));
  return result.value;
}
