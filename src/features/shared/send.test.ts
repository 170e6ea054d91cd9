import { afterEach, describe, expect, it, vi } from 'vitest';
import { bytes, follow, send, withAdded } from './send';

afterEach(() => vi.unstubAllGlobals());
const answers = (make: () => Response | Promise<Response>) =>
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => make())
  );
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });

describe('send', () => {
  it('gives the value of an answer and sends its body as JSON', async () => {
    answers(() => json({ id: 'a' }));
    expect(await send('PUT', '/api/x', { name: 'n' })).toEqual({ ok: true, value: { id: 'a' } });
    expect(fetch).toHaveBeenCalledWith('/api/x', {
      method: 'PUT',
      headers: { 'Content-Type': 'application/json' },
      signal: null,
      body: '{"name":"n"}',
      keepalive: true
    });
  });
  it('sends a small body to its end though its page is closed, which browsers do not do for large ones', async () => {
    answers(() => json({}));
    await send('PUT', '/api/x', { name: 'n'.repeat(40_000) });
    expect(vi.mocked(fetch).mock.lastCall![1]).toMatchObject({ keepalive: false });
  });
  it('gives the sentence and the code of a refusal', async () => {
    answers(() => json({ message: 'no room', code: 'no_room' }, 409));
    expect(await send('POST', '/api/x')).toEqual({ ok: false, message: 'no room', code: 'no_room' });
  });
  it('has a sentence of its own for answers without one and for no answer at all', async () => {
    answers(() => new Response('<html>', { status: 502 }));
    expect(await send('POST', '/api/x')).toMatchObject({ ok: false, message: 'the server answered 502' });
    answers(() => Promise.reject(new TypeError('failed to fetch')));
    const failed = await send('POST', '/api/x');
    expect(failed.ok ? '' : failed.message).toMatch(/does not answer/);
  });
});

describe('follow', () => {
  /** An answer that comes in pieces, which need not end where lines end. */
  const pieces = (...texts: string[]) =>
    new Response(
      new ReadableStream({
        start(controller) {
          for (const text of texts) controller.enqueue(new TextEncoder().encode(text));
          controller.close();
        }
      })
    );
  const run = async (stop = new AbortController().signal) => {
    const progress: number[] = [];
    const sent = await follow<string, number>('/api/x', {}, (p) => progress.push(p), stop);
    return { sent, progress };
  };
  it('reports progress line by line, however it is cut, and ends with the value', async () => {
    answers(() => pieces('{"progress":1}\n{"prog', 'ress":2}\n', '{"value":"done"}\n'));
    expect(await run()).toEqual({ sent: { ok: true, value: 'done' }, progress: [1, 2] });
  });
  it('ends with the refusal', async () => {
    answers(() => pieces('{"progress":1}\n', '{"code":"busy","message":"something renders"}\n'));
    expect((await run()).sent).toEqual({ ok: false, code: 'busy', message: 'something renders' });
  });
  it('says that an answer is incomplete, and gives the sentence of one that was refused at once', async () => {
    answers(() => pieces('{"progress":1}\n'));
    expect((await run()).sent).toMatchObject({ ok: false, message: expect.stringContaining('incomplete') });
    answers(() => json({ message: 'bad body' }, 400));
    expect((await run()).sent).toMatchObject({ ok: false, message: 'bad body' });
  });
  it('tells a stop from a server that does not answer', async () => {
    answers(() => Promise.reject(new TypeError('failed')));
    expect((await run(AbortSignal.abort())).sent).toMatchObject({ ok: false, message: 'stopped' });
    expect((await run()).sent).toMatchObject({ ok: false, message: expect.stringContaining('does not answer') });
  });
});

describe('withAdded', () => {
  it('adds what is new and nothing twice', () => {
    const all = [{ sha256: 'a' }];
    expect(withAdded(all, { sha256: 'b' })).toEqual([{ sha256: 'a' }, { sha256: 'b' }]);
    expect(withAdded(all, { sha256: 'a' })).toEqual(all);
  });
});

describe('bytes', () => {
  it('chooses the unit by the size', () => {
    expect([10, 25_400, 25_400_000, 79.2e9].map(bytes)).toEqual([
      '1\u00a0kB',
      '25\u00a0kB',
      '25.4\u00a0MB',
      '79.2\u00a0GB'
    ]);
  });
});
