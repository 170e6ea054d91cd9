import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';

// A matte sheet under even light of 1 gives back its reflectance (Lambert).
describe('colours of vertices', () => {
  it.each([0.0015, 0.005, 0.01, 0.03, 0.4])('of %f are rendered within 1 %%', (value) => {
    const scene = makeScene([quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], matte(1))]);
    const code = Math.round(65_535 * value);
    for (let v = 0; v < 4; v++) scene.geometry.colors.set([code, code, 65_535, 65_535], v * 4);
    const { mean } = renderScene(scene, viewFrom([0, 5, 0], [0, 0, 0]), { width: 8, height: 8, samples: 64 });
    expect(Math.abs(mean[0] / value - 1)).toBeLessThan(0.01);
    expect(mean[2]).toBeCloseTo(1, 2);
  });
});

describe('glass that a colour cannot pass', () => {
  it.each([0.01, 0.05])('of %f m is dark in it, and clear in the others', (thickness) => {
    const glass = {
      transmission: 1,
      roughness: 0,
      solid: true,
      ior: 1,
      attenuationColor: [0, 1, 1] as [number, number, number],
      attenuationDistance: 0.5
    };
    const up = quad([-1, thickness, 1], [1, thickness, 1], [1, thickness, -1], [-1, thickness, -1], glass);
    const down = quad([-1, 0, -1], [1, 0, -1], [1, 0, 1], [-1, 0, 1], glass);
    const { mean } = renderScene(makeScene([up, down]), viewFrom([0, 4, 0], [0, 0, 0], { focal_length_mm: 200 }), {
      width: 8,
      height: 8,
      samples: 64
    });
    expect(mean[0]).toBeLessThan(1e-3);
    expect(mean[1]).toBeGreaterThan(0.98);
  });
});
