import { NextResponse } from 'next/server';
import type { NextRequest } from 'next/server';
import { isOwn } from '@/server/access';

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

const headers = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'X-Frame-Options': 'DENY',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Permissions-Policy': 'camera=(), microphone=(), geolocation=()',
};

export function proxy(request: NextRequest): NextResponse {
  const own = isOwn(
    request.headers.get('host'),
    request.headers.get('origin'),
    process.env.FENVO_PORT,
    process.env.FENVO_HOSTS,
  );
  if (!own) {
    const error = { code: 'foreign', message: 'This address or page is not Fenvo’s own.', details: null };
    return NextResponse.json({ error }, { status: 403, headers });
  }
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const passed = new Headers(request.headers);
  passed.set('x-nonce', nonce);
  passed.set('Content-Security-Policy', policy(nonce));
  const response = NextResponse.next({ request: { headers: passed } });
  response.headers.set('Content-Security-Policy', policy(nonce));
  for (const [name, value] of Object.entries(headers)) response.headers.set(name, value);
  return response;
}
