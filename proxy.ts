import { NextResponse } from 'next/server';
import type { NextRequest } from 'next/server';
import { comesFromOwnPage, isOwn } from '@/server/access';
import { securityHeaders } from '@/server/headers';

function policy(nonce: string): string {
  const scripts = process.env.NODE_ENV === 'development' ? " 'unsafe-eval'" : '';
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${scripts}`,
    `style-src 'self' 'nonce-${nonce}'`,
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

export function proxy(request: NextRequest): NextResponse {
  const { FENVO_PORT: port, FENVO_HOSTS: hosts } = process.env;
  const own = isOwn(request.headers.get('host'), request.headers.get('origin'), port, hosts);
  const reads = request.method === 'GET' || request.method === 'HEAD';
  if (!own || (!reads && !comesFromOwnPage((name) => request.headers.get(name)))) {
    const error = { code: 'foreign', message: 'This address or page is not Fenvo’s own.', details: null };
    return NextResponse.json({ error }, { status: 403, headers: securityHeaders });
  }
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const passed = new Headers(request.headers);
  passed.set('x-nonce', nonce);
  passed.set('Content-Security-Policy', policy(nonce));
  const response = NextResponse.next({ request: { headers: passed } });
  response.headers.set('Content-Security-Policy', policy(nonce));
  for (const [name, value] of Object.entries(securityHeaders)) response.headers.set(name, value);
  return response;
}
