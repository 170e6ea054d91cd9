import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { JobKind } from '../../core/job/kinds';

vi.stubEnv('SPHAERA_DATA', mkdtempSync(join(tmpdir(), 'sphaera-queue-')));
const { sqliteQueue: queue } = await import('./job-queue');
const { closeDatabase, prepared } = await import('./database');
const { leaseOf, LeaseLost } = await import('./lease');
const { findProof, insertProof, listProofsSince, writeProof } = await import('./proofs');
const { insertProject, insertRevision } = await import('./projects');
const { markRemoved } = await import('./removal');
const { insertPicture, listPicturesSince } = await import('./pictures');
const { stampOf } = await import('./stamps');

beforeAll(() => {
  insertProject({ id: 'project', name: 'Pier', client: '', kind: '', created_at_ms: 0 });
  insertRevision({
    id: 'revision',
    project_id: 'project',
    number: 1,
    glb_sha256: 'a'.repeat(64),
    source_name: 'pier.glb',
    report_json: '{}',
    unrepaired_sha256: null,
    created_at_ms: 0
  });
  insertPicture({ id: 'picture', project_id: 'project', position: 0, name: 'Pier', step: 0, created_at_ms: 0 }, '{}');
});
afterAll(closeDatabase);

let made = 0;
function proof(): string {
  const id = `proof-${++made}`;
  insertProof({
    id,
    picture_id: 'picture',
    revision_id: 'revision',
    number: made,
    brief_json: '{}',
    key_sha256: id,
    width_px: 10,
    height_px: 10,
    created_at_ms: made
  });
  return id;
}
const enqueue = (id: string, kind: JobKind, now: number) =>
  queue.enqueue({ id, kind, project: 'project', proof: proof(), now });

describe('the queue in the database', () => {
  it('hands out patches before whole pictures and the older first, each to one worker', () => {
    enqueue('old', 'render', 1);
    enqueue('new', 'render', 2);
    enqueue('patch', 'patch', 3);
    enqueue('finish', 'finish', 4);
    const claimed = [1, 2, 3, 4].map((n) => queue.claim('render', `w${n}`, 100)?.id ?? null);
    expect(claimed).toEqual(['patch', 'old', 'new', null]);
    // a finish never waits behind a render
    expect(queue.claim('finish', 'w', 100)?.id).toBe('finish');
    expect(queue.open().map((job) => [job.id, job.state.name])).toContainEqual(['old', 'running']);
    for (const { id, fence } of queue.open()) queue.apply(id, { type: 'complete', fence, now: 200 });
    expect(queue.open()).toEqual([]);
  });

  it('gives a job whose lease has run out to another worker, and the first can write nothing any more', () => {
    enqueue('stolen', 'render', 1);
    const first = queue.claim('render', 'first', 100)!;
    const id = first.proof!;
    writeProof(id, leaseOf(first), { samples: 3 });
    const second = queue.claim('render', 'second', 100_000)!;
    expect(second).toMatchObject({ id: 'stolen', fence: first.fence + 1 });
    expect(() => writeProof(id, leaseOf(first), { samples: 99, state: 'done' })).toThrow(LeaseLost);
    expect(queue.apply('stolen', { type: 'complete', fence: first.fence, now: 1 })).toBe(false);
    expect(findProof(id)).toMatchObject({ samples: 3, state: 'open' });
    writeProof(id, leaseOf(second), { samples: 4, file_bytes: { png: 1, jpg: 2, exr: 3 } });
    expect(findProof(id)).toMatchObject({ samples: 4, file_bytes_json: '{"png":1,"jpg":2,"exr":3}' });
    queue.apply('stolen', { type: 'complete', fence: second.fence, now: 1 });
    expect(() => writeProof(id, leaseOf(second), { samples: 5 })).toThrow(LeaseLost);
  });

  it('forgets jobs whose askers are gone, and no others', () => {
    queue.begin({ id: 'import', kind: 'import', project: null, proof: null, now: 0 }, 'web');
    enqueue('waits', 'render', 5);
    queue.sweep(1);
    expect(queue.find('import')).not.toBeNull();
    queue.sweep(1_000_000);
    expect(queue.find('import')).toBeNull();
    expect(queue.find('waits')).not.toBeNull();
    queue.remove('waits');
  });

  it('counts every change of a project once it can be seen, and heartbeats not at all', () => {
    const grows = (act: () => void) => {
      const before = [stampOf('project'), stampOf('desk')];
      act();
      return [stampOf('project') > before[0]!, stampOf('desk') > before[1]!];
    };
    let job = enqueue('counted', 'render', 6);
    expect(grows(() => (job = queue.claim('render', 'w', 100)!))).toEqual([true, true]);
    expect(grows(() => queue.apply(job.id, { type: 'heartbeat', fence: job.fence, now: 200 }))).toEqual([false, false]);
    const since = stampOf('project');
    writeProof(job.proof!, leaseOf(job), { share: 0.5 });
    expect(listProofsSince('picture', since).map((p) => p.id)).toEqual([job.proof]);
    expect(listPicturesSince('project', since)).toEqual([]);
    writeProof(job.proof!, leaseOf(job), { picture_count: 1 });
    expect(listPicturesSince('project', since).map((p) => p.id)).toEqual(['picture']);
    const before = stampOf('project');
    markRemoved('proof', job.proof!, 1);
    expect(listProofsSince('picture', before)).toMatchObject([{ id: job.proof, removed_at_ms: 1 }]);
    queue.remove(job.id);
  });
});

describe('migration 015', () => {
  it('keeps foreign keys: the forecasts of a proof go with it', () => {
    const id = proof();
    prepared(
      `INSERT INTO forecast_pairs (proof_id, project_id, forecast_seconds, took_seconds, ended_at_ms)
       VALUES (?, 'project', 1, 1, 1)`
    ).run(id);
    prepared('DELETE FROM proofs WHERE id = ?').run(id);
    expect(prepared('SELECT count(*) AS n FROM forecast_pairs').get()).toEqual({ n: 0 });
  });
});
