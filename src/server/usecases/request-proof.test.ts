import { describe, expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';

const { project, picture: first } = await boxProject();
const { addPicture } = await import('./add-picture');
const { changeBrief } = await import('./change-brief');
const { requestProof } = await import('./request-proof');
const { viewChanges, viewWorkspace, viewPicture, viewProofs } = await import('./view-workspace');
const { viewDesk } = await import('./view-desk');
const { sqliteQueue: queue } = await import('../store/job-queue');

/** A picture of the test's own whose brief nothing else asks for. */
let samples = 100;
function newPicture(): string {
  const made = addPicture(first);
  if (!made.ok) throw new Error(made.message);
  const { id, brief } = made.value;
  const size = { width_px: 120, height_px: 90 };
  changeBrief(id, { ...brief, size, quality: { ...brief.quality, samples: ++samples, scale: 1 } }, false);
  return id;
}
function ask(picture: string, ...rest: [patch?: Parameters<typeof requestProof>[1], saving?: unknown]) {
  const asked = requestProof(picture, ...rest);
  if (!asked.ok) throw new Error(asked.message);
  return asked.value;
}
const briefOf = (picture: string) => viewPicture(picture)!.picture.brief;

describe('requestProof', () => {
  it('opens a proof with a job in the queue, which the project’s changes tell of', () => {
    const picture = newPicture();
    const { stamp } = viewWorkspace(project)!;
    const proof = ask(picture);
    expect(proof).toMatchObject({ number: 1, state: 'waiting', width_px: 120, height_px: 90 });
    expect(queue.ofProof(proof.id)).toMatchObject({ kind: 'render', state: { name: 'waiting' } });
    expect(viewChanges(project, picture, stamp)).toMatchObject({
      proofs: [{ id: proof.id }],
      pictures: [{ id: picture, underWay: 1 }]
    });
    expect(viewDesk().waiting).toBeGreaterThan(0);
  });

  it('answers with the proof that is under way when the same brief is asked for again', () => {
    const picture = newPicture();
    const proof = ask(picture);
    expect(ask(picture).id).toBe(proof.id);
    const brief = briefOf(picture);
    changeBrief(picture, { ...brief, quality: { ...brief.quality, samples: 1000 } }, false);
    expect(ask(picture)).toMatchObject({ number: 2 });
  });

  it('does not share proofs between pictures', () => {
    const [a, b] = [newPicture(), newPicture()];
    changeBrief(b, briefOf(a), false);
    expect(ask(a).id).not.toBe(ask(b).id);
  });

  it('queues a patch before whole pictures, at full size', () => {
    const picture = newPicture();
    const brief = briefOf(picture);
    changeBrief(picture, { ...brief, quality: { ...brief.quality, scale: 0.5 } }, false);
    const proof = ask(picture, { x: 0.25, y: 0.25, width: 0.5, height: 0.5 });
    expect(proof).toMatchObject({ width_px: 60, height_px: 45 });
    expect(queue.ofProof(proof.id)!.kind).toBe('patch');
  });

  it('refuses a picture that is gone and a saving that was not measured', () => {
    expect(requestProof('nothing')).toMatchObject({ ok: false, code: 'gone' });
    const unmeasured = requestProof(newPicture(), null, { kind: 'bounces', to: 4 });
    expect(unmeasured.ok ? '' : unmeasured.message).toContain('measure again');
  });

  it('refuses a brief whose captured image is not there', () => {
    const picture = newPicture();
    const brief = briefOf(picture);
    const captured = { kind: 'captured', file: '0'.repeat(64), rotation_deg: 0, brightness_ev: 0 };
    const changed = changeBrief(picture, { ...brief, surroundings: captured }, false);
    expect(changed.ok).toBe(true);
    expect(requestProof(picture)).toMatchObject({ ok: false });
  });
});

describe('the proofs of a picture', () => {
  it('come in pages, newest first, and the rest is counted', () => {
    const picture = newPicture();
    for (let i = 0; i < 34; i++) {
      const brief = briefOf(picture);
      changeBrief(picture, { ...brief, quality: { ...brief.quality, samples: 2000 + i } }, false);
      ask(picture);
    }
    const { proofs, earlier } = viewPicture(picture)!;
    expect([proofs[0]!.number, proofs.at(-1)!.number, proofs.length, earlier]).toEqual([34, 5, 30, 4]);
    const older = viewProofs(picture, proofs.at(-1)!.number);
    expect([older.proofs.map((p) => p.number), older.earlier]).toEqual([[4, 3, 2, 1], 0]);
  });
});
