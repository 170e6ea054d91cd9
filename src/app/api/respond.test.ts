import { describe, expect, it, vi } from 'vitest';
import { MoveStepBody, NoBody, PreviewBody } from '../../contracts/requests';
import { ok, refused } from '../../core/result/result';
import { mutation, changeEvents, isCrossOriginStream } from './respond';

const HOST = '127.0.0.1:4300';
function request(body: string | null, headers: Record<string, string> = {}): Request {
  return new Request(`http://${HOST}/api/x`, {
    method: 'POST',
    headers: { host: HOST, origin: `http://${HOST}`, ...headers },
    ...(body === null ? {} : { body })
  });
}
const params = { params: Promise.resolve({ picture: 'p' }) };
const move = mutation(MoveStepBody, ({ by }, { picture }: { picture: string }) => ok({ by, picture }));
const answer = async (response: Promise<Response>) => {
  const { status } = await response;
  return { status, body: await (await response).json() };
};

describe('a mutation', () => {
  it('hands a checked body and its parameters on, and the result back', async () => {
    expect(await answer(move(request('{"by":1}'), params))).toEqual({ status: 200, body: { by: 1, picture: 'p' } });
    const empty = mutation(NoBody, () => ok('done'));
    expect(await answer(empty(request(null), { params: Promise.resolve({}) }))).toEqual({ status: 200, body: 'done' });
  });
  it.each([
    ['another origin', { origin: 'http://evil.example' }],
    ['another port', { origin: 'http://127.0.0.1:1' }],
    ['no origin', { origin: '' }],
    ['a cross-site fetch', { 'sec-fetch-site': 'cross-site' }],
    ['a host of another name', { host: 'evil.example', origin: 'http://evil.example' }]
  ])('is refused from %s', async (_, headers) => {
    expect(await answer(move(request('{"by":1}', headers), params))).toMatchObject({
      status: 403,
      body: { code: 'cross_origin' }
    });
  });
  it.each([
    ['no JSON', '{"by":', /must be JSON/],
    ['JSON that is too deep', `{"by":${'['.repeat(5000)}`, /at most 32 levels/],
    ['no object', '[1]', /request must be an object/],
    ['a wrong value', '{"by":2}', /request\.by must be 1 or -1, got 2/],
    ['an unknown field', '{"by":1,"extra":true}', /request\.extra is not a known field/],
    ['too much', `{"by":1,"x":"${'a'.repeat(1_000_001)}"}`, /at most a megabyte/]
  ])('of %s is refused by name', async (_, body, message) => {
    const { status, body: said } = await answer(move(request(body), params));
    expect([status, said.code]).toEqual([400, 'bad_input']);
    expect(said.message).toMatch(message);
  });
  it('answers refusals and faults in one shape, and never with an exception’s own text', async () => {
    const gone = mutation(NoBody, () => refused('it is no longer there', 'gone'));
    expect(await answer(gone(request(null), params))).toEqual({
      status: 404,
      body: { code: 'gone', message: 'it is no longer there' }
    });
    const log = vi.spyOn(console, 'error').mockImplementation(() => {});
    const broken = mutation(NoBody, () => {
      throw new Error('a pointer went astray');
    });
    const { status, body } = await answer(broken(request(null), params));
    expect([status, body.code, /astray/.test(body.message)]).toEqual([500, 'fault', false]);
    expect(log).toHaveBeenCalled();
    log.mockRestore();
  });
  it.each([
    ['SQLITE_FULL', 507, 'full', /make room/],
    ['EROFS', 507, 'read_only', /allow writing/],
    ['SQLITE_BUSY', 503, 'locked', /try it again/]
  ])('says what is wrong with the storage: %s', async (code, status, told, sentence) => {
    const broken = mutation(NoBody, () => {
      throw Object.assign(new Error('of the system'), { code });
    });
    const said = await answer(broken(request(null), params));
    expect([said.status, said.body.code]).toEqual([status, told]);
    expect(said.body.message).toMatch(sentence);
  });
  it('checks the keys and sizes that a preview asks with', async () => {
    const preview = mutation(PreviewBody, (body) => ok(body.width));
    const asked = (more: object) =>
      answer(
        preview(
          request(
            JSON.stringify({
              brief: {},
              width: 64,
              height: 48,
              pack: null,
              rig: null,
              light: null,
              exact: true,
              ...more
            })
          ),
          params
        )
      );
    expect(await asked({})).toEqual({ status: 200, body: 64 });
    expect((await asked({ width: 5000 })).body.message).toContain(
      'request.width must be a whole number from 1 to 4096'
    );
    expect((await asked({ rig: 'x'.repeat(65) })).status).toBe(400);
  });
});

describe('the stream of changes', () => {
  /** The first things that a stream says. */
  async function heard(request: Request, count: number, stamps: Map<string, number>[]) {
    let version = 0;
    const response = changeEvents(
      request,
      () => version++,
      () => stamps[Math.min(version - 1, stamps.length - 1)]!
    );
    const reader = response.body!.getReader();
    const said: unknown[] = [];
    while (said.length < count) {
      const { value } = await reader.read();
      said.push(JSON.parse(new TextDecoder().decode(value).replace(/^data: /, '')));
    }
    await reader.cancel();
    return said;
  }
  const at = 'http://127.0.0.1:4300/api/events';

  it('tells all counters at first, then those that have grown', async () => {
    const first = new Map([
      ['desk', 4],
      ['pier', 2]
    ]);
    const then = new Map([...first, ['pier', 3]] as [string, number][]);
    expect(await heard(new Request(at), 2, [first, then])).toEqual([{ desk: 4, pier: 2 }, { pier: 3 }]);
  });

  it('has a limit', () => {
    const open = Array.from({ length: 64 }, () =>
      changeEvents(
        new Request(at),
        () => 0,
        () => new Map()
      )
    );
    expect(
      changeEvents(
        new Request(at),
        () => 0,
        () => new Map()
      ).status
    ).toBe(429);
    for (const response of open) void response.body!.cancel();
    const again = changeEvents(
      new Request(at),
      () => 0,
      () => new Map()
    );
    expect(again.status).toBe(200);
    void again.body!.cancel();
  });

  it.each([
    [{ host: '127.0.0.1:4300', 'sec-fetch-site': 'same-origin' }, false],
    [{ host: '127.0.0.1:4300', origin: 'http://127.0.0.1:4300' }, false],
    [{ host: '127.0.0.1:4300', origin: 'http://evil.example' }, true],
    [{ host: '127.0.0.1:4300', 'sec-fetch-site': 'cross-site' }, true],
    [{ host: 'evil.example' }, true]
  ])('of %o is foreign: %s', (headers, foreign) => {
    expect(isCrossOriginStream(new Request(at, { headers: headers as Record<string, string> }))).toBe(foreign);
  });
});
