import { type NextRequest, NextResponse } from 'next/server';
import { isLocalHost } from './app/local-host';

/** Answers only to this machine's own names, so that no web page can reach in through a name of its own. */
export function proxy(request: NextRequest) {
  const host = request.headers.get('host') ?? '';
  if (isLocalHost(host)) return NextResponse.next();
  return new NextResponse('Sphaera answers on this machine only.', { status: 421 });
}

// A body that passes here is held in memory and cut off at 10 MB; uploads check who asks by themselves
// (app/api/respond.ts).
export const config = { matcher: ['/((?!api/uploads).*)'] };
