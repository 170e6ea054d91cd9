import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS } from '../../core/brief/brief';
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { lampGroup } from '../../core/scene/lamp-groups';
import { fillOpening, hangAt, newLamp } from './new-lamp';

const view = BRIEF_DEFAULTS.viewpoint as FreeViewpoint;

describe('a new lamp', () => {
  it('is a group of its own beside others of its form', () => {
    const first = newLamp('spot', view, []);
    const second = newLamp('spot', view, [first]);
    const third = newLamp('spot', view, [first, second]);
    expect(new Set([first, second, third].map((l) => lampGroup(l.name))).size).toBe(3);
  });
  it('hangs clear of a ceiling and shines down from it', () =>
    expect(hangAt('spot', [1, 2.5, -3], [0, -1, 0])).toEqual({ position_m: [1, 2.42, -3], direction: [0, -1, 0] }));
  it('fills an opening from behind, as bright as a window: 4,000 cd/m2 times pi times its area', () => {
    const filled = fillOpening(newLamp('window', view, []), {
      middle: [0, 1.5, -4],
      normal: [0, 0, 1],
      width_m: 1.2,
      height_m: 1.5,
      depth_m: 0.02
    });
    expect(filled).toMatchObject({ position_m: [0, 1.5, -4.03], direction: [0, 0, 1], width_m: 1.2, height_m: 1.5 });
    expect(filled.lumen! / (4000 * Math.PI * 1.8)).toBeCloseTo(1, 3);
  });
});
