/** The quantile of a list. */
export function quantile(list: readonly number[], share: number): number {
  const sorted = [...list].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}

export function row(list: readonly number[]): string {
  const at = (share: number): string => quantile(list, share).toFixed(2);
  return `p50 ${at(0.5)}, p95 ${at(0.95)}, worst ${at(1)} of ${list.length}`;
}
