/**
 * Light that brings little is left to Russian roulette before its shadow ray is cast: rightly on the mean (closed forms), and
 * with fewer rays.
 */
import { describe, expect, it } from 'vitest';
import {
  dark,
  even,
  makeScene,
  matte,
  quad,
  type RenderOptions,
  renderScene,
  viewFrom
} from '../../../tests/support/scenes';
import type { SceneLight, SceneMaterial } from '../../core/scene/scene';

const floorOf = (material: Partial<SceneMaterial>) =>
  quad([-50, 0, 50], [50, 0, 50], [50, 0, -50], [-50, 0, -50], material);
const point = (x: number, y: number, z: number, cd: number): SceneLight => ({
  kind: 'point',
  name: '',
  position: [x, y, z],
  intensity: [cd, cd, cd]
});
const onto = viewFrom([0, 1, 0], [0, 0, 0], { projection: 'parallel', height_m: 0.01 });
const render = (material: Partial<SceneMaterial>, lights: SceneLight[], options: RenderOptions) =>
  renderScene(makeScene([floorOf(material)], lights), onto, {
    samples: 4096,
    bounces: 1,
    light: dark,
    width: 8,
    height: 8,
    leavesSlight: true,
    ...options
  });

describe('slight light', () => {
  // 2 m above: a quarter of the candelas in lx, over pi; a hundredth of white is slight
  const lamp = point(0, 2, 0, 4 * Math.PI);
  it('of a lamp comes one time in so many and counts so many times', () => {
    const slight = render(matte(1), [lamp], { white: 800 });
    expect(Math.abs(slight.mean[0] - 1)).toBeLessThan(0.01);
    // of eight shadow rays one is cast
    const whole = render(matte(1), [lamp], { white: 90 });
    expect(whole.rays).toBeGreaterThan(2.9);
    expect(Math.abs(whole.rays - slight.rays - 7 / 8)).toBeLessThan(0.01);
  });
  it('of a dim sky too; of a faint one nothing is looked for', () => {
    const raysOf = (white: number) => {
      const { mean, rays } = render(matte(0.5), [], { white, light: even(1) });
      expect(Math.abs(mean[0] / 0.5 - 1)).toBeLessThan(0.01);
      return rays;
    };
    const [whole, dim, faint] = [1, 90, 1000].map(raysOf) as [number, number, number];
    // half of the directions that are drawn lie below the ground and have no ray anyway
    expect(whole - faint).toBeGreaterThan(0.45);
    expect(dim).toBeLessThan(whole - 0.2);
    expect(dim).toBeGreaterThan(faint + 0.05);
  });
  it('of many lamps, near and far, on matte and on glossy ground', () => {
    const lamps = Array.from({ length: 60 }, (_, i) =>
      point(((i * 7) % 12) - 6, 0.3 + (i % 5), ((i * 5) % 13) - 6, 1 + (i % 3))
    );
    for (const material of [
      matte(0.8),
      { ...matte(0.8), roughness: 0.35, specular: 1 },
      { ...matte(0.8), roughness: 0.2, specular: 1 }
    ]) {
      const whole = render(material, lamps, { leavesSlight: false, samples: 16384 });
      // from some being slight to all
      for (const share of [1, 20]) {
        const some = [1, 2, 3].map((seed) =>
          render(material, lamps, { white: whole.mean[0] * 100 * share, samples: 16384, seed })
        );
        for (const { rays } of some) expect(rays).toBeLessThan(whole.rays);
        // one alone is up to 2 % off, the mean of six within 0.5
        expect(Math.abs(some.reduce((sum, { mean }) => sum + mean[0] / 3, 0) / whole.mean[0] - 1)).toBeLessThan(0.015);
      }
    }
  });
  it('is the same picture where each light has a layer', () => {
    const [plain, layered] = [{}, { layers: 3 }].map((more) => render(matte(1), [lamp], { white: 800, ...more }));
    expect(layered!.pixels).toEqual(plain!.pixels);
    expect(layered!.layerMeans.reduce((sum, [r]) => sum + r!, 0)).toBeCloseTo(plain!.mean[0], 4);
  });
});
