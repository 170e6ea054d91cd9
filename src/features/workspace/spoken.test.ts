import { describe, expect, it } from 'vitest';
import { newWords, spokenChange, spokenProgress } from './spoken';

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

describe('what is spoken of a change of the brief', () => {
  const part = (word: string) => ({ word, panel: 'size' as const, changed: true });
  it('is its new words', () => {
    const before = [part('an A2 sheet'), { text: ' at ' }, part('Study')];
    expect(newWords(before, [part('an A3 sheet'), { text: ', ' }, part('Study')])).toEqual(['an A3 sheet']);
    expect(newWords(before, before)).toEqual([]);
  });
  it('tells of undo and of the forecast', () => {
    expect(spokenChange(['an A3 sheet'], -1, '4 min')).toBe(
      'Undone. The brief says: an A3 sheet. It would take about 4 min.'
    );
    expect(spokenChange([], 1, null)).toBe('Redone.');
    expect(spokenChange([], null, '2 h')).toBe('It would take about 2 h.');
  });
});
