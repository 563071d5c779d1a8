/** Requests that are refused before anything is made of them. */

export interface Refusal {
  readonly status: number;
  readonly code: string;
  readonly message: string;
}

const METHODS = new Set(['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);
const LONGEST_URL = 8000;

function unreadable(path: string): boolean {
  try {
    return decodeURIComponent(path).includes('\0');
  } catch {
    return true;
  }
}

/** Why a request's first line is refused, or null. */
export function refusalOf(method: string, url: string): Refusal | null {
  if (!METHODS.has(method)) return { status: 405, code: 'bad-method', message: `${method} is not supported here.` };
  if (url.length > LONGEST_URL) return { status: 414, code: 'too-long', message: 'The address is too long.' };
  if (!url.startsWith('/')) return { status: 400, code: 'bad-address', message: 'The address must be a path.' };
  const [path = ''] = url.split('?');
  if (unreadable(path)) return { status: 400, code: 'bad-address', message: 'The address could not be read.' };
  return null;
}
