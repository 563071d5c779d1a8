/** Edges `from -> to` between modules by index. */
export interface Edge {
  readonly from: number;
  readonly to: number;
}

export interface Group<E extends Edge> {
  /** In the order in which they run. */
  readonly modules: readonly number[];
  /** Strongly connected: runs sample by sample. */
  readonly loop: boolean;
  /** Edges that carry the previous sample. */
  readonly delayed: readonly E[];
}

/** Strongly connected parts, sources first (Tarjan 1972). */
function components<E extends Edge>(members: readonly number[], edges: readonly E[]): number[][] {
  const next = new Map<number, number[]>(members.map((m) => [m, []]));
  for (const e of edges) if (next.has(e.to)) next.get(e.from)?.push(e.to);
  const found: number[][] = [];
  const mark = new Map<number, { index: number; low: number; open: boolean }>();
  const stack: number[] = [];
  const visit = (m: number): { index: number; low: number; open: boolean } => {
    const own = { index: mark.size, low: mark.size, open: true };
    mark.set(m, own);
    stack.push(m);
    for (const n of next.get(m) ?? []) {
      const other = mark.get(n);
      if (!other) own.low = Math.min(own.low, visit(n).low);
      else if (other.open) own.low = Math.min(own.low, other.index);
    }
    if (own.low === own.index) {
      const part = stack.splice(stack.lastIndexOf(m));
      for (const n of part) (mark.get(n) as { open: boolean }).open = false;
      found.push(part.sort((a, b) => a - b));
    }
    return own;
  };
  for (const m of members) if (!mark.has(m)) visit(m);
  return found.reverse();
}

/**
 * The order of work. A loop's delayed edges are all from inside it into its first listed module; what is still a
 * loop is cut again likewise.
 */
export function arrange<E extends Edge>(members: readonly number[], edges: readonly E[]): Group<E>[] {
  const parts = components(members, edges);
  const partOf = new Map(parts.flatMap((part, i) => part.map((m) => [m, i] as const)));
  const insides = parts.map((): E[] => []);
  for (const e of edges) {
    const at = partOf.get(e.from);
    if (at !== undefined && at === partOf.get(e.to)) insides[at]?.push(e);
  }
  return parts.map((part, i) => {
    const inside = insides[i] ?? [];
    if (inside.length === 0) return { modules: part, loop: false, delayed: [] };
    const first = part[0];
    const cut = inside.filter((e) => e.to === first);
    const rest = arrange(
      part,
      inside.filter((e) => e.to !== first),
    );
    return {
      modules: rest.flatMap((g) => g.modules),
      loop: true,
      delayed: [...cut, ...rest.flatMap((g) => g.delayed)],
    };
  });
}
