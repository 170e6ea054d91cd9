import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it, vi } from 'vitest';

vi.stubEnv('SPHAERA_DATA', await mkdtemp(join(tmpdir(), 'sphaera-attend-')));
const { attendJob, isRendering } = await import('./attend-job');
const { underWay } = await import('./under-way');
type Making<P> = import('./under-way').Making<P>;
const { sqliteQueue: queue } = await import('../store/job-queue');

/** Work that ends when it is told to. */
function work() {
  let began = false;
  let finish!: (value: string) => void;
  let fail!: (error: Error) => void;
  const end = new Promise<string>((resolve, reject) => {
    finish = resolve;
    fail = reject;
  });
  return {
    run: () => {
      began = true;
      return end;
    },
    began: () => began,
    finish,
    fail
  };
}
const settled = () => new Promise((resolve) => setTimeout(resolve, 20));

describe('attendJob', () => {
  it('is seen in the queue while it runs and gone after it', async () => {
    const probe = work();
    const attended = attendJob('measure', null, probe.run);
    await settled();
    expect(queue.open('measure')).toMatchObject([{ kind: 'measure', state: { name: 'running' } }]);
    expect(isRendering()).toBe(false);
    probe.finish('measured');
    expect(await attended).toBe('measured');
    expect(queue.open('measure')).toEqual([]);
  });

  it('runs one measurement after the other', async () => {
    const [first, second] = [work(), work()];
    const both = [first, second].map((one) => attendJob('measure', null, one.run));
    await settled();
    expect([first.began(), second.began()]).toEqual([true, false]);
    first.finish('1');
    await settled();
    expect(second.began()).toBe(true);
    second.finish('2');
    expect(await Promise.all(both)).toEqual(['1', '2']);
  });

  it('does not let a delivery wait for a measurement', async () => {
    const [measure, deliver] = [work(), work()];
    const both = [attendJob('measure', null, measure.run), attendJob('deliver', null, deliver.run)];
    await settled();
    expect(deliver.began()).toBe(true);
    measure.finish('measured');
    deliver.finish('delivered');
    await Promise.all(both);
  });

  it('leaves no job behind when the work fails', async () => {
    const failing = work();
    const attended = attendJob('preview', null, failing.run);
    await settled();
    failing.fail(new Error('no room'));
    await expect(attended).rejects.toThrow('no room');
    expect(queue.open('preview')).toEqual([]);
  });
});

describe('underWay', () => {
  it('makes what several ask for once, and again after it ended', async () => {
    let made = 0;
    const slow = work();
    const make = () => {
      made++;
      return slow.run();
    };
    const both = [underWay('strip', 'a', make), underWay('strip', 'a', make)];
    slow.finish('done');
    expect(await Promise.all(both)).toEqual(['done', 'done']);
    expect(made).toBe(1);
    await underWay('strip', 'a', make);
    expect(made).toBe(2);
  });

  it('keeps apart what has another key or is another thing', async () => {
    const values = [
      underWay('strip', 'b', async () => 1),
      underWay('strip', 'c', async () => 2),
      underWay('crop', 'b', async () => 3)
    ];
    expect(await Promise.all(values)).toEqual([1, 2, 3]);
  });

  it('tells all who asked how far it is, and is stopped when the last of them has gone', async () => {
    const slow = work();
    const heard: string[] = [];
    let making: Making<number> | null = null;
    const make = (m: Making<number>) => {
      making = m;
      return slow.run();
    };
    const [first, second] = [new AbortController(), new AbortController()];
    const asked = [first, second].map(({ signal }, i) =>
      underWay('file', 'e', make, { signal, onProgress: (share: number) => heard.push(`${i} ${share}`) })
    );
    making!.report(0.25);
    first.abort();
    making!.report(0.5);
    expect(heard).toEqual(['0 0.25', '1 0.25', '1 0.5']);
    expect(making!.signal.aborted).toBe(false);
    second.abort();
    expect(making!.signal.aborted).toBe(true);
    // who asks now does not get what is being stopped
    expect(await underWay('file', 'e', async () => 'anew')).toBe('anew');
    slow.finish('stopped');
    expect(await Promise.all(asked)).toEqual(['stopped', 'stopped']);
  });

  it('goes on for one who stays, whoever goes', async () => {
    const slow = work();
    let stopped = false;
    const make = ({ signal }: Making<never>) => {
      signal.addEventListener('abort', () => (stopped = true));
      return slow.run();
    };
    const gone = new AbortController();
    const staying = underWay('file', 'f', make);
    const leaving = underWay('file', 'f', make, { signal: gone.signal });
    gone.abort();
    slow.finish('whole');
    expect(await Promise.all([staying, leaving])).toEqual(['whole', 'whole']);
    expect(stopped).toBe(false);
  });

  it('gives a failure to all who asked and tries again for the next', async () => {
    const failing = async (): Promise<number> => {
      throw new Error('failed');
    };
    const both = [underWay('strip', 'd', failing), underWay('strip', 'd', failing)];
    expect((await Promise.allSettled(both)).map((r) => r.status)).toEqual(['rejected', 'rejected']);
    expect(await underWay('strip', 'd', async () => 4)).toBe(4);
  });
});
