import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from './brief';
import { rescaleBrief, turned } from './rescale';

const free = BRIEF_DEFAULTS.viewpoint as Extract<Brief['viewpoint'], { position_m: unknown }>;
const brief: Brief = {
  ...BRIEF_DEFAULTS,
  viewpoint: { ...free, position_m: [1, 2, 3], target_m: [0, 1, 0], focus_m: 4, focal_length_mm: 50 },
  seen: { ...BRIEF_DEFAULTS.seen, distance_m: 0.6 }
};

describe('rescaleBrief', () => {
  it('scales places and distances in the model, and no lens, no eye and no sky', () => {
    const small = rescaleBrief({ ...brief, surroundings: SURROUNDINGS_DEFAULTS.sky }, { factor: 0.001, turn_deg: 0 });
    expect(small.viewpoint).toMatchObject({ position_m: [0.001, 0.002, 0.003], focus_m: 0.004, focal_length_mm: 50 });
    expect(small.seen).toEqual(brief.seen);
    expect(small.surroundings).toEqual(SURROUNDINGS_DEFAULTS.sky);
    expect(small.size).toEqual(brief.size);
  });

  it('turns places and directions with the axis', () => {
    expect(turned([1, 2, 3], -90)).toEqual([1, 3, -2]);
    expect(turned(turned([1, 2, 3], -90), 90)).toEqual([1, 2, 3]);
    expect(rescaleBrief(brief, { factor: 1, turn_deg: -90 }).viewpoint).toMatchObject({ position_m: [1, 3, -2] });
  });

  it('comes back to what it was', () => {
    const there = rescaleBrief(brief, { factor: 1000, turn_deg: 90 });
    expect(rescaleBrief(there, { factor: 0.001, turn_deg: -90 })).toEqual(brief);
  });

  it('leaves a camera of the model by its name', () => {
    const named = { ...brief, viewpoint: { camera: 'Front' } };
    expect(rescaleBrief(named, { factor: 10, turn_deg: 0 }).viewpoint).toEqual({ camera: 'Front' });
  });
});
