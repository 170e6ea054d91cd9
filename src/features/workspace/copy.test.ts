import { describe, expect, it } from 'vitest';
import type { ProofDto } from '../../contracts/dto';
import { moonSentence, rightOfView, stageNote, sunSentence } from './copy';

const plain = (text: string) => text.replaceAll('\u00a0', ' ');
const picture = { samples: 12, grain: 2.34, ended: false } as never;
const preview = { picture: null, fault: null, waitsFor: null, samples: 0 };
const seen = {
  proof: null,
  changes: 0,
  until: null,
  tried: null,
  showModel: false,
  share: null,
  paper: true,
  preview,
  drawn: true
};
const proof = { number: 7 } as ProofDto;

describe('what the stage says it shows', () => {
  const note = (part: object) => plain(stageNote({ ...seen, ...part }));
  it('a proof, how many changes it is behind, and at what share of its true size', () => {
    expect(note({ proof, share: 0.5 })).toBe('Proof 7. 50 % of true size');
    expect(note({ proof, changes: 1, share: 1, paper: false })).toBe('Proof 7, one change behind. 100 % of its pixels');
    expect(note({ proof, until: 8 })).toBe('Proof 7, until proof 8 has its first tiles.');
    expect(note({ proof, changes: 3 })).toBe('Proof 7, three changes behind.');
    expect(note({ proof, changes: 3, tried: 'with dark walnut plain' })).toBe('Proof 7, with dark walnut plain.');
  });
  it('the model, or how far its true picture has come, and what that waits for', () => {
    expect(note({})).toBe('The model.');
    expect(note({ proof, showModel: true, share: 0.25 })).toBe('The model. 25 % of true size');
    expect(note({ drawn: false })).toBe('The preview is on its way.');
    expect(note({ preview: { ...preview, fault: 'this browser has no shared memory' } })).toBe(
      'The model. No preview: this browser has no shared memory.'
    );
    expect(note({ preview: { ...preview, picture } })).toBe('Preview, 12 samples, grain before denoising 2.3.');
    expect(note({ preview: { ...preview, picture: { samples: 2.04, grain: null, ended: false } } })).toBe(
      'Preview, 2.0 samples.'
    );
    expect(note({ preview: { ...preview, picture: { samples: 0, grain: null, ended: false } } })).toBe(
      'Preview, first look.'
    );
    expect(
      note({
        preview: { picture: { samples: 256, grain: 0.5, ended: true }, fault: null, waitsFor: 'a proof that renders' }
      })
    ).toBe('Preview at its end, 256 samples, grain before denoising 0.5. The preview waits for a proof that renders.');
  });
});

describe('where sun and moon stand', () => {
  it('shadows are as long as the cotangent of the height says', () => {
    expect(sunSentence(45, 180, 0)).toBe(
      'Sun 45° high in the south, straight ahead; shadows 1.0 times as long as tall.'
    );
    expect(sunSentence(26.565, 90, 90)).toBe(
      'Sun 27° high in the east, on the right; shadows 2.0 times as long as tall.'
    );
    expect(sunSentence(1, 270, 0)).toContain('in the west, straight ahead; shadows endlessly long');
  });
  it('below the horizon there is twilight as far as astronomers have it, 18 degrees (common practice), then night', () => {
    expect(sunSentence(-6, 315, 0)).toBe('Twilight: the sun stands 6° below the horizon in the north-west.');
    expect(sunSentence(-17.9, 0, 0)).toMatch(/^Twilight/);
    expect(sunSentence(-18.1, 0, 0)).toBe('Night: the sun is far below the horizon.');
  });
  it('to the right is clockwise from above, all the way round, by eighths', () => {
    const said = (right: number) => sunSentence(30, 0, right).replace(/^.*north, |; .*$/g, '');
    expect([0, 45, 90, 135, 180, 225, 270, 315].map(said)).toEqual([
      'straight ahead',
      'ahead to the right',
      'on the right',
      'behind you to the right',
      'behind you',
      'behind you to the left',
      'on the left',
      'ahead to the left'
    ]);
    expect([360, -45, 405, -720].map(said)).toEqual([
      'straight ahead',
      'ahead to the left',
      'ahead to the right',
      'straight ahead'
    ]);
    // looking along -Z, +X lies to the right; looking along +X, +Z does
    expect(rightOfView([1, 0, 0], { position_m: [0, 1, 5], target_m: [0, 1, 0] })).toBeCloseTo(90, 10);
    expect(rightOfView([0, 0, 1], { position_m: [0, 1, 5], target_m: [3, 0, 5] })).toBeCloseTo(90, 10);
    expect(said(rightOfView([-1, 0.3, 0], { position_m: [0, 1, 5], target_m: [0, 1, 0] }))).toBe('on the left');
  });
  it('the moon has its lit share, and what the whole of it gives: about a quarter of a lux when full', () => {
    const deg = Math.PI / 180;
    expect(moonSentence({ elevation: -0.1, azimuth: 0, phase: 0 }, 0)).toBe('The moon is below the horizon.');
    const full = plain(moonSentence({ elevation: 40 * deg, azimuth: 180 * deg, phase: 0 }, 0));
    expect(full).toMatch(
      /^Moon 40° high in the south, straight ahead, 100 % of it lit; a true one gives 0\.[23] lx\.$/
    );
    expect(plain(moonSentence({ elevation: 40 * deg, azimuth: 90 * deg, phase: 90 * deg }, 0))).toContain(
      '50 % of it lit'
    );
  });
});
