/**
 * The web side of use cases: same-origin checks, results as responses, files, streams of events, and long work that
 * reports its progress.
 */
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { readJson } from '../../contracts/read-json';
import { check } from '../../contracts/validate';
import { ok, type Refused, type Result, refused } from '../../core/result/result';
import { STORAGE_SENTENCES, storageTroubleOf } from '../../core/result/storage-trouble';
import { untilWritable } from '../../server/usecases/storage';
import { isLocalHost } from '../local-host';

const STATUS: Record<string, number> = {
  gone: 404,
  fault: 500,
  bad_input: 400,
  full: 507,
  read_only: 507,
  locked: 503
};

/** A result as an answer: its value, or its code and message. One shape of error for all routes. */
export function toResponse(result: Result<unknown>): Response {
  if (result.ok) return Response.json(result.value);
  const { code, message } = result;
  return Response.json({ code, message }, { status: STATUS[code] ?? 422 });
}

/** Content-Disposition of a file to save: its name in any script, and a plain one for what cannot read that (RFC 6266). */
export const attachment = (name: string): string =>
  `attachment; filename="${name.replace(/[^\x20-\x7e]|"/g, '-')}"; filename*=UTF-8''${encodeURIComponent(name)}`;

/** A mutation must come from our own pages: same host in Origin, and a host that is this machine's own. */
export function isCrossOrigin(request: Request): boolean {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const same = origin !== null && origin.replace(/^https?:\/\//, '') === host;
  return !(isLocalHost(host) && same && (site === null || site === 'same-origin'));
}

/** A stream is read by GET, which sends no Origin from our own pages; browsers say where it comes from otherwise. */
export function isCrossOriginStream(request: Request): boolean {
  const host = request.headers.get('host') ?? '';
  const origin = request.headers.get('origin');
  const site = request.headers.get('sec-fetch-site');
  const foreign = origin !== null && origin.replace(/^https?:\/\//, '') !== host;
  return !isLocalHost(host) || foreign || (site !== null && site !== 'same-origin' && site !== 'none');
}

/** An error that no use case expected; what it says itself goes to the log alone. */
function faultOf(error: unknown): Refused {
  const trouble = storageTroubleOf(error);
  if (trouble) return refused(STORAGE_SENTENCES[trouble], trouble);
  console.error(error);
  return FAULT;
}
const LOCKED = refused(STORAGE_SENTENCES.locked, 'locked');
const FAULT = refused('something went wrong on our side; try it again', 'fault');
export const CROSS_ORIGIN = refused('this request did not come from Sphaera itself', 'cross_origin');

// Larger bodies than any brief; files are streamed to a route of their own.
const MAX_BODY_BYTES = 1_000_000;

async function readBody(request: Request): Promise<Result<unknown>> {
  const tooLarge = refused('the request must be JSON of at most a megabyte', 'bad_input');
  if (Number(request.headers.get('content-length') ?? 0) > MAX_BODY_BYTES) return tooLarge;
  const text = await request.text();
  if (text.length > MAX_BODY_BYTES) return tooLarge;
  const sent = text === '' ? ok({}) : readJson(text);
  return sent.ok ? sent : { ...sent, message: `the request is not valid: ${sent.message}` };
}

type Context<P> = { params: Promise<P> };

/**
 * The only way to a route that changes something: same origin, a body that meets its contract, and a result or a response
 * of the route's own. Faults become the same error as everything else.
 */
export function mutation<B extends object, P>(
  contract: new () => B,
  work: (body: B, params: P, request: Request) => Promise<Result<unknown> | Response> | Result<unknown> | Response
): (request: Request, context: Context<P>) => Promise<Response> {
  return async (request, { params }) => {
    if (isCrossOrigin(request)) return Response.json(CROSS_ORIGIN, { status: 403 });
    const sent = await readBody(request);
    if (!sent.ok) return toResponse(sent);
    const body = check(contract, sent.value, 'request');
    if (!body.ok) return toResponse(body);
    try {
      if (!(await untilWritable())) return toResponse(LOCKED);
      const result = await work(body.value, await params, request);
      return result instanceof Response ? result : toResponse(result);
    } catch (error) {
      return toResponse(faultOf(error));
    }
  };
}

/** A route that only reads: a value, or null for what is not there. */
export function query<P>(
  work: (asked: URLSearchParams, params: P) => object | null | Promise<object | null>,
  /** Said of null. */
  missing = 'it is no longer there; reload the page'
): (request: Request, context: Context<P>) => Promise<Response> {
  return async (request, { params }) => {
    try {
      const value = await work(new URL(request.url).searchParams, await params);
      if (!value) return toResponse(refused(missing, 'gone'));
      return Response.json(value, { headers: { 'Cache-Control': 'no-store' } });
    } catch (error) {
      return toResponse(faultOf(error));
    }
  };
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

const LOOK_MS = 400;
const SIGN_OF_LIFE_MS = 15_000;
const MOST_STREAMS = 64;
let streams = 0;

/**
 * Server-sent events of JSON: the counters of changes that have grown, by scope; all of them at first. `version` changes
 * with every write to the database, so that nothing is asked of it while nothing happens.
 */
export function changeEvents(
  request: Request,
  version: () => number | string,
  stamps: () => ReadonlyMap<string, number>
): Response {
  if (streams >= MOST_STREAMS)
    return Response.json(refused('too many windows are open; close some', 'too_many'), { status: 429 });
  streams++;
  const encoder = new TextEncoder();
  let timer: ReturnType<typeof setInterval> | undefined;
  let open = true;
  const close = (end?: () => void) => {
    if (!open) return;
    open = false;
    streams--;
    clearInterval(timer);
    try {
      end?.();
    } catch {
      // closed already
    }
  };
  const stream = new ReadableStream({
    start(controller) {
      const told = new Map<string, number>();
      let seen: number | string = '';
      let spoke_ms = 0;
      const say = (text: string) => {
        controller.enqueue(encoder.encode(text));
        spoke_ms = Date.now();
      };
      const look = () => {
        try {
          const now = version();
          if (now !== seen) {
            seen = now;
            const grown = [...stamps()].filter(([scope, number]) => told.get(scope) !== number);
            for (const [scope, number] of grown) told.set(scope, number);
            if (grown.length > 0) say(`data: ${JSON.stringify(Object.fromEntries(grown))}\n\n`);
          }
          // a comment now and then keeps the connection from being taken for dead
          if (Date.now() - spoke_ms > SIGN_OF_LIFE_MS) say(': here\n\n');
        } catch {
          close(() => controller.close());
        }
      };
      look();
      timer = setInterval(look, LOOK_MS);
      request.signal.addEventListener('abort', () => close(() => controller.close()));
    },
    cancel() {
      close();
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
 * Lines of JSON: `{progress}` as often as it is reported, then `{value}` or a refusal. `work` is told to stop when the one
 * who asked has gone.
 */
export function reportProgress<T, N>(
  request: Request,
  work: (report: (progress: N) => void, stop: AbortSignal) => Promise<Result<T>>
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
        const outcome = await work((progress) => line({ progress }), gone.signal);
        line(outcome.ok ? { value: outcome.value } : { code: outcome.code, message: outcome.message });
      } catch (error) {
        const { code, message } = faultOf(error);
        line({ code, message });
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
