/**
 * The field that a person types in while what is typed is put: all that comes of one go at a field is one act, however
 * often it is saved on the way.
 */
let field: string | null = null;

export const typedIn = (): string | null => field;

/** Does something on behalf of a field. */
export function typing<T>(key: string, work: () => T): T {
  field = key;
  try {
    return work();
  } finally {
    field = null;
  }
}
