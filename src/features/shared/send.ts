/** Requests to our own server. A refusal comes back as its sentence. */
export type Sent<T> =
  | { ok: true; value: T }
  | { ok: false; message: string /** Which refusal it is, of those that have an answer. */; code?: string };

/** Nobody answered: the server is away, or the answer took too long. */
export const UNREACHABLE = 'unreachable';
const AWAY = 'Sphaera’s server does not answer; is it still running?';

// Browsers carry no more than 64 KiB for pages that are gone, all requests together.
const MOST_OUTLIVING = 30_000;

/** A body that is sent to its end though its page is closed, where it is small enough. */
const outliving = (body: string) => ({ body, keepalive: body.length < MOST_OUTLIVING });

export async function send<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body: unknown = {},
  /** After so long without an answer nobody is thought to be there; null for work that takes its time. */
  answerMs: number | null = null
): Promise<Sent<T>> {
  const limit = answerMs === null ? null : AbortSignal.timeout(answerMs);
  try {
    const response = await fetch(
      path,
      method === 'GET'
        ? { cache: 'no-store', signal: limit }
        : { method, headers: { 'Content-Type': 'application/json' }, ...outliving(JSON.stringify(body)), signal: limit }
    );
    const json = (await response.json().catch(() => null)) as (T & { message?: string; code?: string }) | null;
    if (response.ok) return { ok: true, value: json as T };
    return { ok: false, message: json?.message ?? `the server answered ${response.status}`, code: json?.code };
  } catch {
    return { ok: false, code: UNREACHABLE, message: AWAY };
  }
}

/** Asks for long work and reports its progress. `stop` ends the work. */
export async function follow<T, N>(
  path: string,
  body: unknown,
  onProgress: (progress: N) => void,
  stop: AbortSignal
): Promise<Sent<T>> {
  try {
    const response = await fetch(path, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
      signal: stop
    });
    if (!response.ok || !response.body)
      return {
        ok: false,
        message:
          ((await response.json().catch(() => null)) as { message?: string } | null)?.message ??
          `the server answered ${response.status}`
      };
    const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
    let rest = '';
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return { ok: false, message: 'the answer is incomplete. Try again' };
      const lines = (rest + value).split('\n');
      rest = lines.pop()!;
      for (const line of lines) {
        const said = JSON.parse(line) as { progress: N } | { value: T } | { message: string; code?: string };
        if ('progress' in said) onProgress(said.progress);
        else
          return 'value' in said
            ? { ok: true, value: said.value }
            : { ok: false, message: said.message, code: said.code };
      }
    }
  } catch {
    return { ok: false, message: stop.aborted ? 'stopped' : AWAY };
  }
}

/** Streams a file up, telling how far it is (0 to 1). */
export function upload(
  file: File,
  onShare: (share: number) => void,
  signal: AbortSignal
): Promise<Sent<{ upload: string; bytes: number }>> {
  return new Promise((resolve) => {
    const request = new XMLHttpRequest();
    request.open('POST', '/api/uploads');
    request.upload.onprogress = (e) => onShare(e.lengthComputable ? e.loaded / e.total : 0);
    request.onload = () => {
      let json: { upload: string; bytes: number; message?: string } | null = null;
      try {
        json = JSON.parse(request.responseText);
      } catch {
        // said below
      }
      if (request.status === 200 && json) resolve({ ok: true, value: json });
      else resolve({ ok: false, message: json?.message ?? 'the file was not uploaded completely. Choose it again' });
    };
    request.onerror = () => resolve({ ok: false, message: AWAY });
    request.onabort = () => resolve({ ok: false, message: 'stopped; nothing was brought in' });
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
}

/** A file that came with its folder. */
export type PlacedFile = File & { relativePath?: string };

/** With the folder that it came in: "chair/textures/oak.png". */
const nameWithin = (file: PlacedFile): string =>
  (file.relativePath || file.webkitRelativePath || file.name).replace(/^\.?\/+/, '');

/** Files of one model up, one after the other, telling how far all of them are (0 to 1). */
export async function uploadAll(
  files: readonly PlacedFile[],
  onShare: (share: number) => void,
  signal: AbortSignal
): Promise<Sent<{ upload: string; name: string }[]>> {
  const size = Math.max(
    1,
    files.reduce((sum, f) => sum + f.size, 0)
  );
  const value: { upload: string; name: string }[] = [];
  let before = 0;
  for (const file of files) {
    const sent = await upload(file, (share) => onShare((before + share * file.size) / size), signal);
    if (!sent.ok) return sent;
    before += file.size;
    value.push({ upload: sent.value.upload, name: nameWithin(file) });
  }
  return { ok: true, value };
}

/** A file up, and into the library that `path` adds to. */
export async function bringIn<T>(
  path: string,
  file: File,
  onShare: (share: number) => void,
  more: object = {}
): Promise<Sent<T>> {
  const sent = await upload(file, onShare, new AbortController().signal);
  return sent.ok ? send<T>('POST', path, { ...more, upload: sent.value.upload, name: file.name }) : sent;
}

/** One more of a library, unless it is there. */
export const withAdded = <T extends { sha256: string }>(all: readonly T[], added: T): T[] =>
  all.some((one) => one.sha256 === added.sha256) ? [...all] : [...all, added];

export const bytes = (n: number): string =>
  n < 1e6
    ? `${Math.max(1, Math.round(n / 1e3))}\u00a0kB`
    : n < 1e9
      ? `${(n / 1e6).toFixed(1)}\u00a0MB`
      : `${(n / 1e9).toFixed(1)}\u00a0GB`;
