import { describe, expect, it } from 'vitest';
import { spokenProgress } from './spoken';

const proof = { number: 3, state: 'running' as const, share: 0, denoise_share: null, error: null };

describe('what is spoken of a render', () => {
  it('changes at quarters and at the end, five times in a whole render', () => {
    const said = Array.from({ length: 100 }, (_, i) => spokenProgress({ ...proof, share: i / 100 }));
    said.push(spokenProgress({ ...proof, share: 1, denoise_share: 0.3 }), spokenProgress({ ...proof, state: 'done' }));
    expect([...new Set(said)]).toEqual([
      'Proof 3: 0 %.',
      'Proof 3: 25 %.',
      'Proof 3: 50 %.',
      'Proof 3: 75 %.',
      'Proof 3 is rendered and being denoised.',
      'Proof 3 is ready.'
    ]);
  });
  it('says why it failed', () => {
    expect(spokenProgress({ ...proof, state: 'failed', error: 'The disk is full.' })).toBe(
      'Proof 3 failed. The disk is full.'
    );
    expect(spokenProgress({ ...proof, state: 'kept' })).toContain('unfinished');
  });
});
