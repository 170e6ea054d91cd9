import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from '../brief/brief';
import { type Cost, costSentence, savingsOf, takeSaving, triedWith, trySaving, worthSaying } from './costs';

const brief: Brief = { ...BRIEF_DEFAULTS, quality: { ...BRIEF_DEFAULTS.quality, bounces: 16, layers: true } };
const plain = (cost: Omit<Cost, 'at'>) => costSentence(cost, brief).replaceAll('\u00a0', ' ');
/** A measured share of the time, equally clean, and how far it may be off. */
const takes = (share: number, off = 0.004) => ({
  pair: { whole: { seconds: [1], squaredGrain: [0] }, less: { seconds: [1 - share], squaredGrain: [0] } },
  error: off / 2
});

describe('what costs time', () => {
  it('is looked for where there is something to lessen', () => {
    expect(savingsOf(brief, ['Hall'], [{ group: 'Spruce', triangles: 5 }])).toEqual([
      { kind: 'bounces', to: 8 },
      { kind: 'bounces', to: 4 },
      { kind: 'layers' },
      { kind: 'lamps', group: 'Hall' },
      { kind: 'objects', group: 'Spruce', triangles: 5 }
    ]);
    const weighed = [{ group: 'Spruce', triangles: 50, slim: 5 }];
    expect(savingsOf({ ...brief, quality: { ...brief.quality, bounces: 4, layers: false } }, [], weighed)).toEqual([
      { kind: 'objects', group: 'Spruce', triangles: 50 },
      { kind: 'slim', group: 'Spruce', triangles: 50, slim: 5 }
    ]);
    expect(
      savingsOf({ ...brief, quality: { ...brief.quality, bounces: 4, layers: false, slim: ['spruce'] } }, [], weighed)
    ).toEqual([{ kind: 'objects', group: 'Spruce', triangles: 50 }]);
    expect(
      savingsOf(
        { ...BRIEF_DEFAULTS, quality: { ...BRIEF_DEFAULTS.quality, bounces: 4, aside: ['spruce'] } },
        [],
        [{ group: 'Spruce', triangles: 5 }]
      )
    ).toEqual([]);
  });
  it('is said with its figures, and says when nothing is seen of it', () => {
    expect(plain({ saving: { kind: 'bounces', to: 8 }, ...takes(0.17), changes: 0.31 })).toBe(
      'Light that bounces more than 8 times takes 17 ± 1 % of the time; 8 bounces instead of 16 change the picture by 0.3 L*.'
    );
    expect(plain({ saving: { kind: 'lamps', group: 'hall lamps' }, ...takes(0.09), changes: 0.01 })).toBe(
      'Hall lamps: 9 ± 1 % of the time; switched off, that changes nothing to see here.'
    );
    expect(plain({ saving: { kind: 'objects', group: 'spruce', triangles: 412_000 }, ...takes(0.3), changes: 4 })).toBe(
      'Spruce, 412,000 triangles: 30 ± 1 % of the time; set aside in quick looks.'
    );
    expect(
      plain({
        saving: { kind: 'slim', group: 'spruce', triangles: 412_000, slim: 41_200 },
        ...takes(0.22),
        changes: 0.61
      })
    ).toBe(
      'Spruce simplified to 41,200 triangles instead of 412,000 spares 22 ± 1 % of the time and changes the picture by 0.6 L*.'
    );
  });
  it('of a material is said with what it covers', () => {
    const saving = { kind: 'material', name: 'weathered copper', covers: 0.12 } as const;
    expect(plain({ saving, ...takes(0.09), changes: 1.24 })).toBe(
      'Weathered copper, 12 % of the picture: 9 ± 1 % of the time; made plain, that changes the picture by 1.2 L*.'
    );
    expect(takeSaving(saving, brief).quality?.plain).toEqual(['weathered copper']);
  });
  it('of a captured image is its memory, and its time where that is more than noise', () => {
    const saving = { kind: 'captured', from: 8192, to: 4096, bytes: 402_653_184 } as const;
    expect(plain({ saving, ...takes(0.01), changes: 0.01 })).toBe(
      'The captured image of 8,192 px taken at 4,096 px spares 403 MB of memory; that changes nothing to see here.'
    );
    expect(plain({ saving, ...takes(0.06), changes: 0.01 })).toContain('403 MB of memory and 6 ± 1 % of the time');
    const captured: Brief = { ...brief, surroundings: { ...SURROUNDINGS_DEFAULTS.captured, file: 'a' } };
    expect(takeSaving(saving, captured)).toEqual({ surroundings: { ...captured.surroundings, most_px: 4096 } });
    expect(takeSaving(saving, brief)).toEqual({});
    expect(worthSaying([{ saving, ...takes(0), changes: 0, at: { x: 0, y: 0 } }], brief)).toHaveLength(1);
  });
  it('is taken by the words of the brief that it is about', () => {
    expect(takeSaving({ kind: 'bounces', to: 8 }, brief).quality?.bounces).toBe(8);
    expect(takeSaving({ kind: 'layers' }, brief).quality?.layers).toBe(false);
    expect(takeSaving({ kind: 'objects', group: 'Spruce', triangles: 1 }, brief).quality?.aside).toEqual(['Spruce']);
    expect(takeSaving({ kind: 'slim', group: 'Spruce', triangles: 50, slim: 5 }, brief).quality?.slim).toEqual([
      'Spruce'
    ]);
    expect(takeSaving({ kind: 'lamps', group: 'Hall' }, brief).lamps?.groups).toMatchObject([
      { group: 'Hall', on: false }
    ]);
  });
  it('is tried as it would be taken, quick looks’ savings as a quick look', () => {
    const present: Brief = { ...brief, quality: { ...brief.quality, step: 'present' } };
    expect(trySaving({ kind: 'bounces', to: 8 }, present)).toEqual({
      ...present,
      quality: { ...present.quality, bounces: 8 }
    });
    expect(trySaving({ kind: 'slim', group: 'Spruce', triangles: 50, slim: 5 }, present).quality).toEqual({
      ...present.quality,
      step: 'study',
      slim: ['Spruce']
    });
    expect(
      trySaving(
        { kind: 'objects', group: 'Spruce', triangles: 50 },
        { ...brief, quality: { ...brief.quality, step: 'glance' } }
      ).quality.step
    ).toBe('glance');
  });
  it('says of a patch what it was tried with', () => {
    const captured: Brief = {
      ...brief,
      surroundings: { ...SURROUNDINGS_DEFAULTS.captured, file: 'a' },
      quality: { ...brief.quality, aovs: true }
    };
    const tries: [Cost['saving'], string | null][] = [
      [{ kind: 'material', name: 'dark walnut', covers: 0.2 }, 'with dark walnut plain'],
      [{ kind: 'objects', group: 'spruce', triangles: 1 }, 'without spruce'],
      [{ kind: 'slim', group: 'spruce', triangles: 50, slim: 5 }, 'with spruce simplified'],
      [{ kind: 'lamps', group: 'hall' }, 'with hall off'],
      [{ kind: 'bounces', to: 8 }, 'with 8 bounces'],
      [{ kind: 'layers' }, 'without each light’s share'],
      [{ kind: 'aovs' }, 'without masks and depth'],
      [{ kind: 'captured', from: 8192, to: 4096, bytes: 1 }, 'with the image at 4,096\u00a0px']
    ];
    for (const [saving, said] of tries) expect(triedWith(trySaving(saving, captured), captured)).toBe(said);
    expect(triedWith(captured, captured)).toBeNull();
  });
  it('is left unsaid where it is noise', () => {
    const cost = (share: number, off?: number): Cost => ({
      saving: { kind: 'layers' },
      ...takes(share, off),
      changes: 0,
      at: { x: 0, y: 0 }
    });
    const [a, b] = [cost(0.05), cost(0.4)];
    expect(worthSaying([cost(0.02), a, b, cost(-0.1), cost(0.1, 0.2)], brief)).toEqual([b, a]);
  });
});
