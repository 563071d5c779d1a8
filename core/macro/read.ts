import { idOf } from '../document/sockets';
import type { ModuleDoc, Patch } from '../document/types';
import { completeParams } from '../document/params';
import { buildGraph } from '../graph/graph';
import { isFaderKind, kindNamed } from '../kinds';
import { endAt } from './reach';
import type { Macro, MacroRow } from './types';

/** What a macro's stages are called: that of the fader, and where they lead. */
export const labelOf = (name: string, end: string): string => `${name.trim()} → ${end}`.slice(0, 80);

const belongs = (m: ModuleDoc, name: string): boolean => m.label?.startsWith(`${name} → `.slice(0, 80)) === true;

/** A chain from a fader to an end: its stages in their order, and the end. */
interface Chain {
  readonly stages: readonly ModuleDoc[];
  readonly end: string;
}

function chainsOf(patch: Patch, fader: ModuleDoc): Chain[] {
  const name = fader.label ?? '';
  const byId = new Map(patch.modules.map((m) => [m.id, m]));
  if (name === '') return [];
  return patch.cables
    .filter((c) => idOf(c.from) === fader.id)
    .flatMap((cable): Chain[] => {
      const stages: ModuleDoc[] = [];
      for (let at = cable; ;) {
        const m = byId.get(idOf(at.to));
        if (!m) return [];
        if (!belongs(m, name)) return stages.length > 0 ? [{ stages, end: at.to }] : [];
        if (stages.includes(m)) return [];
        stages.push(m);
        const next = patch.cables.find((c) => idOf(c.from) === m.id && (stages.length > 20 || idOf(c.to) !== m.id));
        if (!next) return [];
        at = next;
      }
    });
}

/** The stages of a fader's macro, by id. */
export function rowsModules(patch: Patch, fader: string): Set<string> {
  const m = patch.modules.find((x) => x.id === fader);
  return new Set(m ? chainsOf(patch, m).flatMap((c) => c.stages.map((s) => s.id)) : []);
}

const number = (m: ModuleDoc | undefined, param: string): number => {
  const kind = m && kindNamed(m.kind);
  return kind ? Number(completeParams(kind, m.params)[param]) : NaN;
};

/** What a chain's stages come to: how it bends, where it begins, and the voltages at both ends. */
function rowOf({ stages }: Chain, [low, high]: Macro['span'], inverted: boolean): Omit<MacroRow, 'end'> | null {
  const kinds = stages.map((s) => s.kind).join(' ');
  const [first, last] = [stages[0], stages.at(-1)];
  if (kinds === 'comparator') {
    const [a, b] = [number(first, 'lowVolts'), number(first, 'highVolts')];
    return { curve: 'switch', begins: number(first, 'thresholdVolts'), from: inverted ? b : a, to: inverted ? a : b };
  }
  const [amount, volts] = [number(last, 'amount'), number(last, 'volts')];
  if (kinds === 'offset')
    return { curve: 'straight', begins: low, from: volts + amount * low, to: volts + amount * high };
  const begins = -number(first, 'volts') / number(first, 'amount');
  if (kinds === 'offset rectifier offset')
    return { curve: 'straight', begins, from: volts, to: volts + amount * (high - begins) };
  if (kinds === 'offset vca offset' || kinds === 'offset rectifier vca offset')
    return { curve: 'slow', begins, from: volts, to: volts + 5 * amount };
  return null;
}

/** A knob holds six decimals: what is left of them is no figure of anybody's. */
const tidy = (x: number): number => Number((Math.round(x * 1e4) / 1e4).toPrecision(6)) || 0;

/** The macros that a patch holds, read back from its stages. */
export function macrosIn(patch: Patch): Macro[] {
  const graph = buildGraph(patch);
  return patch.modules
    .filter((m) => isFaderKind(m.kind))
    .flatMap((fader): Macro[] => {
      const chains = chainsOf(patch, fader);
      const span = [number(fader, 'lowVolts'), number(fader, 'highVolts')] as const;
      const rows = chains.flatMap((chain): MacroRow[] => {
        const inverted = patch.cables.some((c) => c.to === chain.end && c.from.endsWith('.inverted'));
        const row = rowOf(chain, span, inverted);
        const reached = endAt(graph, chain.end);
        if (!row || typeof reached === 'string') return [];
        const [from, to] = [reached.figureAt(row.from), reached.figureAt(row.to)];
        if (from === null || to === null) return [];
        return [{ end: chain.end, curve: row.curve, begins: tidy(row.begins), from: tidy(from), to: tidy(to) }];
      });
      return rows.length > 0 ? [{ name: fader.label ?? fader.id, fader: fader.id, span, rows }] : [];
    });
}
