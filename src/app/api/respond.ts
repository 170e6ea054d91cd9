/**
 * The web side of use cases: same-origin checks, outcomes to answers, files, streams of events, and long work that
 * tells how far it is.
 */
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import type { Result } from '../../core/result/result';

const STATUS: Record<string, number> = { gone: 404, fault: 500 };

export function answer<T>(outcome: Result<T>): Response {
  return outcome.ok
    ? Response.json(outcome.value)
    : Response.json({ code: outcome.code, message: outcome.message }, { status: STATUS[outcome.code] ?? 422 });
}

/** A mutation must come from our own pages: same host in Origin, and a host that is this machine's own. */
export function foreign(request: Request): Response | null {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const local = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/.test(host);
  const same = origin !== null && origin.replace(/^https?:\/\//, '') === host;
  if (local && same && (site === null || site === 'same-origin')) return null;
  return Response.json({ code: 'foreign', message: 'this request did not come from Sphaera itself' }, { status: 403 });
}

export async function readJson(request: Request): Promise<Record<string, unknown> | null> {
  if (Number(request.headers.get('content-length') ?? 0) > 1_000_000) return null;
  const body: unknown = await request.json().catch(() => null);
  return body !== null && typeof body === 'object' && !Array.isArray(body) ? (body as Record<string, unknown>) : null;
}

/** What a library is asked to take in: a file that has arrived, by its hash, under its name; or the refusal. */
export async function readUpload(
  request: Request,
  unnamed: string
): Promise<Response | { upload: string; name: string; body: Record<string, unknown> }> {
  const refusal = foreign(request);
  if (refusal) return refusal;
  const body = await readJson(request);
  if (!body || typeof body.upload !== 'string' || !/^[0-9a-f]{64}$/.test(body.upload)) return badJson();
  return { upload: body.upload, name: String(body.name ?? unnamed).slice(0, 120), body };
}

/** A file's bytes; ends quietly when the one who asked has gone, which Readable.toWeb does not. */
export const streamOf = (path: string): ReadableStream =>
  (ReadableStream as unknown as { from(bytes: AsyncIterable<Uint8Array>): ReadableStream }).from(
    createReadStream(path)
  );

/** A file; one that never changes under its address, unless `caching` says otherwise. */
export async function sendFile(
  path: string | null,
  type: string,
  caching = 'private, max-age=31536000, immutable'
): Promise<Response> {
  const size =
    path &&
    (await stat(path).then(
      (s) => s.size,
      () => null
    ));
  if (!path || size === null) return new Response(null, { status: 404 });
  return new Response(streamOf(path), {
    headers: { 'Content-Type': type, 'Content-Length': String(size), 'Cache-Control': caching }
  });
}

export const badJson = () =>
  Response.json({ code: 'bad_input', message: 'the request is not a JSON object' }, { status: 400 });

/** Server-sent events: sends a counter of changes whenever it has grown. */
export function events(request: Request, stamp: () => number, everyMs = 400): Response {
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setInterval> | undefined;
  const stream = new ReadableStream({
    start(controller) {
      let last = -1;
      let idle = 0;
      const close = () => {
        clearInterval(timer);
        try {
          controller.close();
        } catch {
          // closed already
        }
      };
      const look = () => {
        try {
          const now = stamp();
          if (now !== last) controller.enqueue(encoder.encode(`data: ${now}\n\n`));
          // a comment now and then keeps the connection from being taken for dead
          else if (++idle % 40 === 0) controller.enqueue(encoder.encode(': here\n\n'));
          last = now;
        } catch {
          close();
        }
      };
      look();
      timer = setInterval(look, everyMs);
      request.signal.addEventListener('abort', close);
    },
    cancel() {
      clearInterval(timer);
    }
  });
  return new Response(stream, {
    headers: {
      'Content-Type': 'text/event-stream; charset=utf-8',
      'Cache-Control': 'no-cache, no-transform',
      Connection: 'keep-alive'
    }
  });
}

/**
 * Lines of JSON: `{news}` as often as there is any, then `{value}` or a refusal. `work` is told to stop when the one
 * who asked has gone.
 */
export function tell<T, N>(
  request: Request,
  work: (news: (news: N) => void, stop: AbortSignal) => Promise<Result<T>>
): Response {
  const encoder = new TextEncoder();
  const gone = new AbortController();
  request.signal.addEventListener('abort', () => gone.abort());
  const stream = new ReadableStream({
    async start(controller) {
      const line = (of: object) => {
        if (!gone.signal.aborted) controller.enqueue(encoder.encode(`${JSON.stringify(of)}\n`));
      };
      try {
        const outcome = await work((news) => line({ news }), gone.signal);
        line(outcome.ok ? { value: outcome.value } : { code: outcome.code, message: outcome.message });
      } catch (error) {
        line({ code: 'fault', message: error instanceof Error ? error.message : String(error) });
      }
      if (!gone.signal.aborted) controller.close();
    },
    cancel() {
      gone.abort();
    }
  });
  return new Response(stream, {
    headers: { 'Content-Type': 'application/x-ndjson; charset=utf-8', 'Cache-Control': 'no-cache, no-transform' }
  });
}
