/** Step numbers as people count them, from 1, as they are kept, from 0; null where one is no such number. */
export function readSteps(text: string): number[] | null {
  const steps = text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number);
  return steps.some((s) => !Number.isInteger(s) || s < 1 || s > 64) ? null : steps.map((s) => s - 1);
}
