import { digraph, fromDot, toDot } from 'ts-graphviz';
import type { NodeModel } from 'ts-graphviz';
import { idOf, nameOf, socketAt } from '../document/sockets';
import type { Patch, Result } from '../document/types';
import { kindTitle } from '../kinds';
import { patchOfTables, tablesOf } from './tables';
import type { PatchTables } from './tables';

/**
 * A patch as a graph in the DOT language: modules are its nodes, cables its edges, drawn from left to right. What a module
 * is and is set to stands in its `comment`, which Graphviz passes by. It holds what the tables of a patch hold.
 */

type Module = PatchTables['modules'][number];
type Said = Pick<Module, 'kind'> & Partial<Pick<Module, 'label' | 'bypassed' | 'settings'>>;

/** What DOT has a meaning of its own for, or none, stands as `%` and its code. */
const coded = (_key: string, value: unknown): unknown =>
  typeof value === 'string' ? value.replace(/[%"\\\p{Cc}]/gu, encodeURIComponent) : value;
const decoded = (_key: string, value: unknown): unknown =>
  typeof value === 'string' ? decodeURIComponent(value) : value;

/** What a module is, as a comment. */
function saidOf({ kind, label, bypassed, settings }: Module): string {
  const said: Said = {
    kind,
    ...(label && { label }),
    ...(bypassed && { bypassed }),
    ...(Object.keys(settings).length > 0 && { settings }),
  };
  return JSON.stringify(said, coded);
}

/** A name as Graphviz draws it. */
const labelOf = (name: string): string => name.replace(/[\\\p{Cc}]/gu, ' ');

/** A patch as DOT; `patchOfDot` reads the same modules, cables and settings. */
export function patchToDot(patch: Patch): string {
  const { name, modules, cables } = tablesOf(patch);
  const graph = digraph(labelOf(name), { rankdir: 'LR', comment: saidOf(modules[0] as Module) }, (g) => {
    for (const m of modules.slice(1)) {
      const title = labelOf(m.label || kindTitle(m.kind));
      g.node(m.id, { shape: 'box', label: title, comment: saidOf(m), ...(m.bypassed && { style: 'dashed' as const }) });
    }
    for (const { from, to } of cables)
      g.edge([idOf(from), idOf(to)], { taillabel: nameOf(from), headlabel: nameOf(to) });
  });
  return `${toDot(graph)}\n`;
}

/** What is said of a module in its comment; @throws Error with its place. */
function readSaid(comment: unknown, place: string): Said {
  try {
    const said = JSON.parse(String(comment), decoded) as Said | null;
    if (typeof said?.kind === 'string') return said;
  } catch {
    // Told below.
  }
  throw new Error(`${place}: its comment doesn’t say what it is, as in comment="{\\"kind\\":\\"offset\\"}".`);
}

function moduleOf(id: string, comment: unknown, place: string): Module {
  const { kind, label = '', bypassed = null, settings = {} } = readSaid(comment, place);
  return { id, kind, label, bypassed, settings };
}

const idOfTarget = (target: unknown): string => String((target as { readonly id?: unknown }).id ?? '');

/**
 * The patch of a graph in DOT.
 *
 * @returns it, or what is wrong and where.
 */
export function patchOfDot(text: string): Result<Patch, string[]> {
  try {
    const graph = fromDot(text);
    const own = moduleOf('', graph.get('comment') ?? '{"kind":"patch"}', 'the graph');
    const modules = graph.nodes.map((n: NodeModel) => moduleOf(n.id, n.attributes.get('comment'), `node ${n.id}`));
    const cables = graph.edges.map((edge) => {
      const [from, to] = edge.targets.map(idOfTarget);
      const [out, into] = [edge.attributes.get('taillabel'), edge.attributes.get('headlabel')].map((x) =>
        String(x ?? ''),
      );
      return { from: socketAt(from ?? '', out ?? ''), to: socketAt(to ?? '', into ?? '') };
    });
    return patchOfTables({ name: own.label || graph.id || 'Imported patch', modules: [own, ...modules], cables });
  } catch (error) {
    return { ok: false, errors: [`Not a graph in DOT: ${error instanceof Error ? error.message : String(error)}`] };
  }
}
