import { isFaderKind } from '../kinds';
import { byDefault, choice, list, module, optional, record, socket } from './fields';
import type { ValueOf } from './fields';
import { shown } from './reader';
import type { KnownModule } from './reader';
import { onlyOnce } from './readField';
import { idOf } from './sockets';

/** Limits of macros: of a patch, ends of one, stages of an end. */
export const MACROS = { most: 64, rows: 64, stages: 8 } as const;

/** How an end follows its fader: evenly, slowly at first, or all at once. */
export const CURVES = ['straight', 'slow', 'switch'] as const;
export type Curve = (typeof CURVES)[number];

/** The stages between a fader and one end that it moves. */
const row = record({
  end: socket('input'),
  curve: choice(CURVES),
  /** Modules, from the fader on. */
  stages: list(module, MACROS.stages, { least: { count: 1, words: 'must name at least one stage' } }),
  /** The input that the last of them is plugged into, where that is not the end itself: of a mixer before it. */
  into: optional(socket('input')),
});
export type MacroRowDoc = ValueOf<typeof row>;

/** One fader to many ends. */
const macro = record(
  { fader: module, rows: byDefault(list(row, MACROS.rows), []) },
  {
    says: 'one fader to many ends, by ordinary stages',
    check(r, { fader }, path) {
      const kind = r.modules.find((m) => m.id === fader)?.kind;
      if (kind !== undefined && !isFaderKind(kind)) r.fail(`${path}.fader`, `must be a fader, got ${shown(fader)}`);
    },
  },
);
export type MacroDoc = ValueOf<typeof macro>;

/** All macros; a fader has one at most, and a stage belongs to one end of one. */
export const macrosField = list(macro, MACROS.most, {
  check(r, macros, path) {
    onlyOnce((m: MacroDoc) => m.fader, '.fader')(r, macros, path);
    const stages = new Set<string>();
    macros.forEach(({ rows }, i) =>
      rows.forEach((own, n) =>
        own.stages.forEach((stage) => {
          if (stages.has(stage)) r.fail(`${path}[${i}].rows[${n}].stages`, `${stage} belongs to another end already`);
          stages.add(stage);
        }),
      ),
    );
  },
});

/** The macros whose fader is there still, with the ends whose sockets and stages are. */
export function fittingMacros(
  macros: readonly MacroDoc[],
  has: (module: string) => boolean,
  hasInput: (socket: string) => boolean,
): readonly MacroDoc[] {
  if (macros.length === 0) return macros;
  const fits = (row: MacroRowDoc): boolean => hasInput(row.end) && row.stages.every(has);
  const kept = macros.flatMap((m): MacroDoc[] => {
    if (!has(m.fader)) return [];
    const whole = m.rows.every((row) => fits(row) && (row.into === undefined || hasInput(row.into)));
    if (whole) return [m];
    const rows = m.rows.filter(fits).map(({ into, ...row }) => (into && hasInput(into) ? { ...row, into } : row));
    return rows.length > 0 ? [{ ...m, rows }] : [];
  });
  return kept.length === macros.length && kept.every((m, i) => m === macros[i]) ? macros : kept;
}

/** All macros with one fader's in its place; a stage that it takes leaves the end that had it. */
export function withMacro(macros: readonly MacroDoc[], fader: string, macro: MacroDoc | null): readonly MacroDoc[] {
  const at = macros.findIndex((m) => m.fader === fader);
  const others = macros.filter((m) => m.fader !== fader);
  if (!macro) return others;
  const taken = new Set(macro.rows.flatMap((row) => row.stages));
  const left = others.flatMap((m): MacroDoc[] => {
    const rows = m.rows.filter((row) => !row.stages.some((s) => taken.has(s)));
    return rows.length === m.rows.length ? [m] : rows.length > 0 ? [{ ...m, rows }] : [];
  });
  return at < 0 ? [...left, macro] : left.toSpliced(at, 0, macro);
}

/** How the stages of an end were told from their kinds while a macro was known by its labels alone. */
const OLD_CURVES: Readonly<Record<string, MacroRowDoc['curve']>> = {
  comparator: 'switch',
  offset: 'straight',
  'offset rectifier offset': 'straight',
  'offset vca offset': 'slow',
  'offset rectifier vca offset': 'slow',
};
const ARROW = ' → ';

/** Whether stages are called as a macro's were: a document that has none is told to have none. */
const hasOldLabels = (modules: readonly KnownModule[]): boolean => modules.some((m) => m.label?.includes(ARROW));

/**
 * The macros of a document from before they were part of it: chains from a fader through stages that are called by its
 * name, an arrow and where they lead.
 */
export function macrosByLabels(
  modules: readonly KnownModule[],
  cables: readonly { readonly from: string; readonly to: string }[],
): MacroDoc[] {
  if (!hasOldLabels(modules)) return [];
  const byId = new Map(modules.map((m) => [m.id, m]));
  return modules
    .filter((m) => isFaderKind(m.kind) && (m.label ?? '') !== '')
    .flatMap((fader): MacroDoc[] => {
      const begins = `${fader.label ?? ''}${ARROW}`.slice(0, 80);
      const rows = cables
        .filter((c) => idOf(c.from) === fader.id)
        .flatMap((cable): MacroRowDoc[] => {
          const stages: KnownModule[] = [];
          for (let at = cable; ;) {
            const m = byId.get(idOf(at.to));
            if (m?.label?.startsWith(begins) !== true) {
              const curve = OLD_CURVES[stages.map((s) => s.kind).join(' ')];
              return m && curve ? [{ end: at.to, curve, stages: stages.map((s) => s.id) }] : [];
            }
            const next = cables.find((c) => idOf(c.from) === m.id && idOf(c.to) !== m.id);
            if (!next || stages.includes(m)) return [];
            stages.push(m);
            at = next;
          }
        });
      // A stage that both ways lead through belongs to the first.
      const taken = new Set<string>();
      const own = rows.filter((row) => row.stages.every((s) => !taken.has(s) && taken.add(s)));
      return own.length > 0 ? [{ fader: fader.id, rows: own }] : [];
    });
}

/** Macros, said to be none where stages are called as those of older documents were. */
export const printMacros = ({
  macros,
  modules,
}: {
  readonly macros: readonly MacroDoc[];
  readonly modules: readonly KnownModule[];
}): { readonly macros?: readonly MacroDoc[] } => (macros.length > 0 || hasOldLabels(modules) ? { macros } : {});
