import { describe, expect, it } from 'vitest';
import { even, makeScene, matte, quad, renderScene, sphere, viewFrom } from '../../../tests/support/scenes';
import type { SceneMaterial } from '../../core/scene/scene';

// A level sheet under the same light from everywhere, seen straight from above.
const seen = (material: Partial<SceneMaterial>, unmirrored: boolean) =>
  renderScene(
    makeScene([quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], material)]),
    viewFrom([0, 5, 0], [0, 0, 0]),
    { width: 8, height: 8, samples: 1024, light: even(1), unmirrored }
  ).mean[1];

describe('surroundings that reflections do not show', () => {
  it('light what is matte as before', () => expect(seen(matte(0.5), true)).toBeCloseTo(0.5, 2));
  it('are not in mirrors nor in rough metal', () => {
    for (const roughness of [0, 0.4]) {
      const metal = { metallic: 1, roughness, baseColor: [0.9, 0.9, 0.9, 1] as [number, number, number, number] };
      expect(seen(metal, false)).toBeGreaterThan(0.75);
      expect(seen(metal, true)).toBeLessThan(1e-6);
    }
  });
  it('leave a varnished surface what its colour alone gives back', () => {
    // at normal incidence a dielectric of 1.5 mirrors 4 %
    const varnished = { baseColor: [0.5, 0.5, 0.5, 1] as [number, number, number, number], roughness: 0.3, ior: 1.5 };
    const [with_, without] = [seen(varnished, false), seen(varnished, true)];
    expect(with_ - without).toBeGreaterThan(0.02);
    expect(with_ - without).toBeLessThan(0.09);
  });
  it('are seen straight on, through clear panes and behind things', () => {
    const pane = quad([-9, -9, 0], [9, -9, 0], [9, 9, 0], [-9, 9, 0], { transmission: 1, roughness: 0 });
    const view = viewFrom([0, 0, 2], [0, 0, 0], { projection: 'parallel', height_m: 0.2 });
    expect(renderScene(makeScene([]), view, { samples: 16, light: even(1), unmirrored: true }).mean[1]).toBe(1);
    // of the pane's light only the 4 % and more that it mirrors are gone
    expect(
      renderScene(makeScene([pane]), view, { samples: 4096, light: even(1), unmirrored: true }).mean[1]
    ).toBeCloseTo(0.96, 2);
  });
  it('light a wall that a mirror shows', () => {
    // inside a white matte ball the mirror sees nothing but the wall, which is lit by itself glowing: no difference
    const scene = makeScene([
      sphere([0, 0, 0], 5, { ...matte(0.5), emissive: [1, 1, 1], twoSided: false }, true),
      quad([-1, -1, 0], [1, -1, 0], [1, 1, 0], [-1, 1, 0], { metallic: 1, roughness: 0 })
    ]);
    const at = (unmirrored: boolean) =>
      renderScene(scene, viewFrom([0, 0, 2], [0, 0, 0], { focal_length_mm: 60 }), {
        samples: 256,
        light: even(1),
        unmirrored,
        bounces: 8
      }).mean[1];
    expect(at(true)).toBeCloseTo(at(false), 6);
  });
});
