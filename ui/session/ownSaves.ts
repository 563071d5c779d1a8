/** The saves that this tab sent, by their keys: one that an older page of it sent, and did not stay for, is its own. */
const MOST = 20;

const nameOf = (id: string): string => `fenvo.saves.${id}`;

function kept(id: string): string[] {
  try {
    const list: unknown = JSON.parse(sessionStorage.getItem(nameOf(id)) ?? '[]');
    return Array.isArray(list) ? list.filter((k) => typeof k === 'string') : [];
  } catch {
    return [];
  }
}

export function noteSave(id: string, key: string): void {
  try {
    sessionStorage.setItem(nameOf(id), JSON.stringify([...kept(id), key].slice(-MOST)));
  } catch {
    // Without it a save of the page before is taken for another's: both versions are kept, and the person is asked.
  }
}

export const isOwnSave = (id: string, key: string | null): boolean => key !== null && kept(id).includes(key);
