import { describe, expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';

const { project, picture: first } = await boxProject();
const { addPicture } = await import('./add-picture');
const { requestProof } = await import('./request-proof');
const { continueProof, stopProof } = await import('./stop-proof');
const { viewPicture } = await import('./view-workspace');
const { sqliteQueue: queue } = await import('../store/job-queue');
const { findProof, haltProof } = await import('../store/proofs');

function ask(picture = newPicture()) {
  const asked = requestProof(picture);
  if (!asked.ok) throw new Error(asked.message);
  return asked.value;
}
function newPicture(): string {
  const made = addPicture(first);
  if (!made.ok) throw new Error(made.message);
  return made.value.id;
}
/** As the service does: the oldest first, until the one that is meant. */
function claim(id: string) {
  for (let next = queue.claim('render', 'worker', Date.now()); next; next = queue.claim('render', 'worker', Date.now()))
    if (next.id === id) return next;
  throw new Error('the job was not there to be claimed');
}

describe('stopProof', () => {
  it('keeps a waiting proof as an unfinished one', () => {
    const proof = ask();
    expect(stopProof(proof.id).ok).toBe(true);
    expect(findProof(proof.id)!.state).toBe('kept');
    expect(queue.ofProof(proof.id)!.state).toMatchObject({ name: 'stopped', mode: 'keep' });
    expect(viewPicture(proof.pictureId)!.proofs).toMatchObject([{ id: proof.id, state: 'kept' }]);
  });

  it('leaves a running proof to its worker and asks it to stop', () => {
    const proof = ask();
    const job = claim(queue.ofProof(proof.id)!.id);
    stopProof(proof.id);
    expect(findProof(proof.id)!.state).toBe('open');
    expect(queue.find(job.id)!.state).toMatchObject({ name: 'running', stop: 'keep' });
  });

  it('refuses a proof that is gone', () => {
    expect(stopProof('nothing')).toMatchObject({ ok: false, code: 'gone' });
    expect(continueProof('nothing')).toMatchObject({ ok: false, code: 'gone' });
  });
});

describe('continueProof', () => {
  it('puts an unfinished proof into the queue again, under its number', () => {
    const proof = ask();
    stopProof(proof.id);
    expect(continueProof(proof.id).ok).toBe(true);
    expect(viewPicture(proof.pictureId)!.proofs).toMatchObject([{ id: proof.id, number: 1, state: 'waiting' }]);
  });

  it('does so too when its job was swept meanwhile', () => {
    const proof = ask();
    stopProof(proof.id);
    queue.remove(queue.ofProof(proof.id)!.id);
    expect(continueProof(proof.id).ok).toBe(true);
    expect(queue.ofProof(proof.id)).toMatchObject({ kind: 'render', project, state: { name: 'waiting' } });
  });

  it('does so too while the job that was stopped is just being ended', () => {
    const proof = ask();
    const job = claim(queue.ofProof(proof.id)!.id);
    stopProof(proof.id);
    // the worker has written its last word, and the service has not heard of it yet
    haltProof(proof.id, 1);
    expect(continueProof(proof.id, Date.now() + 1).ok).toBe(true);
    queue.apply(job.id, { type: 'stopped', mode: 'keep', fence: job.fence, now: 2 });
    expect(findProof(proof.id)!.state).toBe('open');
    expect(queue.ofProof(proof.id)!.state.name).toBe('waiting');
    expect(viewPicture(proof.pictureId)!.proofs).toMatchObject([{ state: 'waiting' }]);
  });

  it('is what rendering the same brief again does: it does not begin at nothing', () => {
    const proof = ask();
    stopProof(proof.id);
    expect(ask(proof.pictureId)).toMatchObject({ id: proof.id, state: 'waiting' });
  });

  it('leaves a proof that is done as it is', () => {
    const proof = ask();
    const job = claim(queue.ofProof(proof.id)!.id);
    queue.apply(job.id, { type: 'complete', fence: job.fence, now: 1 });
    haltProof(proof.id, 1);
    continueProof(proof.id);
    continueProof(proof.id);
    expect(viewPicture(proof.pictureId)!.proofs).toHaveLength(1);
  });
});
