import { describe, expect, it } from 'vitest';
import { glowing, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';

// A wall whose front looks away from the camera, and behind it a glowing card that both of its sides light from.
const wall = (material: object) => quad([-9, -9, 0], [-9, 9, 0], [9, 9, 0], [9, -9, 0], { ...matte(0.5), ...material });
const card = quad([-9, -9, -1], [9, -9, -1], [9, 9, -1], [-9, 9, -1], glowing(3));
const seen = (material: object, openBacks: boolean) =>
  renderScene(makeScene([wall(material), card]), viewFrom([0, 0, 5], [0, 0, 0]), {
    width: 8,
    height: 8,
    samples: 64,
    openBacks
  }).mean[0];

describe('a one-sided surface seen from behind', () => {
  it('is there, and is looked through when the picture asks for it', () => {
    // under even light of 1 a matte half gives back a half (Lambert)
    expect(seen({ twoSided: false }, false)).toBeCloseTo(0.5, 1);
    expect(seen({ twoSided: false }, true)).toBeCloseTo(3, 5);
  });
  it('stays when it has two sides or is a body of glass', () => {
    expect(seen({ twoSided: true }, true)).toBeCloseTo(0.5, 1);
    const glass = { transmission: 1, solid: true, roughness: 0, ior: 1.5, baseColor: [1, 1, 1, 1] };
    expect(seen({ ...glass, twoSided: false }, true)).toBe(seen({ ...glass, twoSided: false }, false));
  });
  it('still stands in the way of light', () => {
    const floor = quad([-1, 0, 1], [1, 0, 1], [1, 0, -1], [-1, 0, -1], matte(1));
    // its front looks up, away from the floor
    const roof = quad([-9, 1, 9], [9, 1, 9], [9, 1, -9], [-9, 1, -9], { ...matte(0), twoSided: false });
    const sun = [{ kind: 'directional', name: '', direction: [0, -1, 0], illuminance: [1, 1, 1] }] as never;
    const { mean } = renderScene(makeScene([floor, roof], sun), viewFrom([0, 0.5, 0], [0, 0, 0]), {
      width: 8,
      height: 8,
      samples: 16,
      openBacks: true,
      light: { even: [0, 0, 0], image: null, sun: null } as never
    });
    expect(mean[0]).toBe(0);
  });
});
