import { type NextRequest, NextResponse } from 'next/server';

/** Answers only to this machine's own names, so that no web page can reach in through a name of its own. */
export function proxy(request: NextRequest) {
  const host = request.headers.get('host') ?? '';
  if (/^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host)) return NextResponse.next();
  return new NextResponse('Sphaera answers on this machine only.', { status: 421 });
}
