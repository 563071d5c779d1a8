/** The scale that was last told for a kind of file, so that it is asked once. */
const KEY = 'fenvo.scales';

function kept(): Record<string, string> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, string>;
  } catch {
    return {};
  }
}

export const keptScale = (kind: string, otherwise: string): string => kept()[kind] ?? otherwise;

export function keepScale(kind: string, value: string): void {
  try {
    localStorage.setItem(KEY, JSON.stringify({ ...kept(), [kind]: value }));
  } catch {
    // Then it is asked again.
  }
}
