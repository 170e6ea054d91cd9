import { describe, expect, it } from 'vitest';
import { isClaimable, type Job, LEASE_MS, reduceJob } from './job';

const waiting: Job = {
  id: 'a',
  kind: 'render',
  project: 'p',
  proof: 'q',
  state: { name: 'waiting' },
  fence: 0,
  attempts: 0,
  share: 0,
  created_ms: 0,
  started_ms: null,
  ended_ms: null
};
const claim = (job: Job, now: number, worker = 'w') => reduceJob(job, { type: 'claim', worker, now })!;
const progress = (job: Job, share: number) =>
  reduceJob(job, { type: 'progress', fence: job.fence, phase: 'render', share, secondsLeft: 10 })!;

describe('a job', () => {
  it('is claimed once while its lease lasts, and again after it has run out', () => {
    const first = claim(waiting, 100);
    expect(first).toMatchObject({
      fence: 1,
      started_ms: 100,
      state: { name: 'running', leaseUntil_ms: 100 + LEASE_MS }
    });
    expect(reduceJob(first, { type: 'claim', worker: 'other', now: 100 + LEASE_MS })).toBeNull();
    expect(isClaimable(first, 101 + LEASE_MS)).toBe(true);
    expect(claim(first, 101 + LEASE_MS, 'other')).toMatchObject({ fence: 2, started_ms: 100 });
  });

  it('keeps its lease by heartbeats', () => {
    const running = reduceJob(claim(waiting, 0), { type: 'heartbeat', fence: 1, now: 5000 })!;
    expect(isClaimable(running, LEASE_MS + 1)).toBe(false);
    expect(isClaimable(running, 5001 + LEASE_MS)).toBe(true);
  });

  it('ignores every action of a worker that lost its lease', () => {
    const stolen = claim(claim(waiting, 0), 10_000, 'other');
    for (const action of [
      { type: 'heartbeat', fence: 1, now: 1 },
      { type: 'progress', fence: 1, phase: 'render', share: 0.5, secondsLeft: null },
      { type: 'release', fence: 1 },
      { type: 'complete', fence: 1, now: 1 },
      { type: 'stopped', fence: 1, mode: 'keep', now: 1 },
      { type: 'fail', fence: 1, message: 'x', now: 1 }
    ] as const)
      expect(reduceJob(stolen, action)).toBeNull();
    expect(reduceJob(stolen, { type: 'complete', fence: 2, now: 1 })).toMatchObject({ state: { name: 'done' } });
  });

  it('fails after five claims that got no further, and not while each gets further', () => {
    let stuck = waiting;
    const at = (claims: number) => claims * 10_000;
    for (let i = 1; i <= 5; i++) stuck = claim(stuck, at(i));
    expect(stuck.state.name).toBe('running');
    expect(claim(stuck, at(6)).state).toMatchObject({ name: 'failed' });

    let moving = waiting;
    for (let i = 0; i < 30; i++) moving = progress(claim(moving, at(i + 7)), (i + 1) / 40);
    expect(moving.state.name).toBe('running');
  });

  it('is not counted as failed when its worker hands it back', () => {
    let job = waiting;
    for (let i = 0; i < 12; i++) job = reduceJob(claim(job, i * 10), { type: 'release', fence: i + 1 })!;
    expect(job).toMatchObject({ attempts: 0, state: { name: 'waiting' } });
  });

  it('ends at once when it is stopped before it began, and else by its worker', () => {
    expect(reduceJob(waiting, { type: 'request stop', mode: 'keep', now: 5 })).toMatchObject({
      state: { name: 'stopped', mode: 'keep' },
      ended_ms: 5
    });
    const asked = reduceJob(claim(waiting, 0), { type: 'request stop', mode: 'drop', now: 5 })!;
    expect(asked.state).toMatchObject({ name: 'running', stop: 'drop' });
    // a service that died meanwhile does not forget it
    expect(claim(asked, 10_000).state).toMatchObject({ name: 'running', stop: 'drop' });
  });

  it('goes on from a failure or a stop, and from nothing else', () => {
    const failed = reduceJob(progress(claim(waiting, 0), 0.4), { type: 'fail', fence: 1, message: 'x', now: 9 })!;
    expect(reduceJob(failed, { type: 'retry' })).toMatchObject({
      state: { name: 'waiting' },
      share: 0.4,
      ended_ms: null
    });
    expect(reduceJob(waiting, { type: 'retry' })).toBeNull();
  });
});
