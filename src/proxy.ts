import { NextResponse, type NextRequest } from 'next/server';

/** Whether a path says what it means: of bytes that are no text nothing can be found. */
function sound(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

/**
 * A Content-Security-Policy that allows this server and no other host; scripts come from it, or carry a nonce. Letters are set
 * by WebAssembly.
 */
export function proxy(request: NextRequest): NextResponse {
  if (!sound(request.nextUrl.pathname)) return new NextResponse('Not found', { status: 404 });
  const nonce = Buffer.from(crypto.randomUUID()).toString('base64');
  const dev = process.env.NODE_ENV === 'development';
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'${dev ? " 'unsafe-eval'" : ''}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  headers.set('Content-Security-Policy', policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set('Content-Security-Policy', policy);
  return response;
}

export const config = { matcher: [{ source: '/((?!_next/static|fonts|favicon).*)' }] };
