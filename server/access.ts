/** Names under which this machine alone is reached. */
const LOCAL = new Set(['127.0.0.1', 'localhost', '[::1]']);

function hostOf(header: string): { name: string; port: string } | null {
  const match = /^(\[[0-9a-f:]+\]|[^:]+)(?::(\d+))?$/i.exec(header);
  return match ? { name: (match[1] ?? '').toLowerCase(), port: match[2] ?? '80' } : null;
}

/**
 * Whether a request comes to the application under its own name, and from its own pages: another site's page that
 * makes its name point here, or posts here, is refused. `allowed` names further hosts, comma separated.
 */
export function isOwn(host: string | null, origin: string | null, port: string | undefined, allowed = ''): boolean {
  const at = host === null ? null : hostOf(host);
  if (!at) return false;
  const extra = new Set(allowed.split(',').filter(Boolean));
  if (!LOCAL.has(at.name) && !extra.has(at.name)) return false;
  if (port !== undefined && at.port !== port && !extra.has(at.name)) return false;
  return origin === null || origin === `http://${host}` || (extra.has(at.name) && origin === `https://${host}`);
}

/**
 * Whether a write can have come from a page of the application's own, or from no page at all: a browser says where it
 * comes from in one of these even where it leaves the origin out.
 */
export function comesFromOwnPage(header: (name: string) => string | null): boolean {
  const [host, site, referer] = [header('host'), header('sec-fetch-site'), header('referer')];
  if (site !== null && site !== 'same-origin' && site !== 'none') return false;
  if (referer === null) return true;
  const at = URL.canParse(referer) ? new URL(referer) : null;
  return at !== null && at.host === host;
}
