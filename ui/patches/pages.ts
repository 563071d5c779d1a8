/** Rows that are read at once. */
export const PAGE = 60;

/** The pages that a range of rows lies on, within as many rows as there are. */
export function pagesOf([from, to]: readonly [number, number], total: number): number[] {
  const last = Math.min(to, total - 1);
  if (last < from) return [];
  const first = Math.floor(Math.max(0, from) / PAGE);
  return Array.from({ length: Math.floor(last / PAGE) - first + 1 }, (_, i) => first + i);
}
