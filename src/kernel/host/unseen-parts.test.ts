import { describe, expect, it } from 'vitest';
import { glowing, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import type { SceneMaterial } from '../../core/scene/scene';

type Unseen = NonNullable<SceneMaterial['unseen']>;
const black = (unseen?: Unseen) => ({ ...matte(0), ...(unseen ? { unseen } : {}) });
/** Of the mean pixel, under even light of 1 unless it is dark. */
const mean = (scene: ReturnType<typeof makeScene>, view: ReturnType<typeof viewFrom>, dark = false) =>
  renderScene(scene, view, {
    width: 8,
    height: 8,
    samples: 64,
    ...(dark ? { light: { even: [0, 0, 0], image: null, sun: null } as never } : {})
  }).mean[0];

describe('a part that the camera does not see', () => {
  it('is looked through', () => {
    const card = (unseen?: Unseen) => quad([-9, -9, 0], [9, -9, 0], [9, 9, 0], [-9, 9, 0], black(unseen));
    const behind = quad([-9, -9, -1], [9, -9, -1], [9, 9, -1], [-9, 9, -1], glowing(3));
    const seen = (unseen?: Unseen) => mean(makeScene([card(unseen), behind]), viewFrom([0, 0, 5], [0, 0, 0]));
    expect(seen()).toBe(0);
    expect(seen('camera')).toBeCloseTo(3, 5);
    expect(seen('mirrors')).toBeCloseTo(3, 5);
  });
  it('casts its shadow', () => {
    const floor = quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], matte(1));
    const roof = (unseen?: Unseen) => quad([-9, 1, 9], [9, 1, 9], [9, 1, -9], [-9, 1, -9], black(unseen));
    const sun = [{ kind: 'directional', name: '', direction: [0, -1, 0], illuminance: [1, 1, 1] }] as never;
    const view = viewFrom([0, 2, 0], [0, 0, 0]);
    for (const unseen of ['camera', 'mirrors'] as const)
      expect(mean(makeScene([floor, roof(unseen)], sun), view, true)).toBe(0);
    // without the roof a white floor gives back 1/pi of the sun's light (Lambert)
    expect(mean(makeScene([floor], sun), view, true)).toBeCloseTo(1 / Math.PI, 2);
  });
  it('is mirrored, unless its shadow alone is wanted', () => {
    const mirror = quad([-1, -1, 0], [1, -1, 0], [1, 1, 0], [-1, 1, 0], {
      baseColor: [1, 1, 1, 1],
      metallic: 1,
      roughness: 0
    });
    const card = (unseen?: Unseen) => quad([-90, -90, 9], [90, -90, 9], [90, 90, 9], [-90, 90, 9], black(unseen));
    const seen = (unseen?: Unseen) =>
      mean(makeScene([mirror, card(unseen)]), viewFrom([0, 0, 3], [0, 0, 0], { focal_length_mm: 85 }));
    expect(seen()).toBeLessThan(0.01);
    expect(seen('camera')).toBeLessThan(0.01);
    expect(seen('mirrors')).toBeCloseTo(1, 2);
  });
});
