import { describe, expect, it } from 'vitest';
import { dark, glowing, makeScene, matte, quad, renderScene, sphere, viewFrom } from '../../../tests/support/scenes';
import type { SceneMaterial } from '../../core/scene/scene';
import { sharesBeforeGlass } from './behind-glass';
import { collectEmitters } from './pack-lights';

const glass: Partial<SceneMaterial> = { baseColor: [1, 1, 1, 1], transmission: 1, roughness: 0, solid: true, ior: 1.5 };
const lamp = sphere([0, 0, 0], 0.1, glowing(10), false, 12, 24);
const share = (...pieces: Parameters<typeof makeScene>[0]) => {
  const scene = makeScene(pieces);
  return [...sharesBeforeGlass(scene, collectEmitters(scene)).values()][0] ?? 1;
};

describe('how much of a glow can be aimed at', () => {
  it('all of it without glass, or with glass elsewhere', () => {
    expect(share(lamp)).toBe(1);
    expect(share(lamp, sphere([5, 0, 0], 0.1, glass))).toBeGreaterThan(0.98);
  });
  it('little within a globe of glass, half beside a wall of it', () => {
    expect(share(lamp, sphere([0, 0, 0], 0.3, glass))).toBe(0.1);
    expect(share(lamp, quad([-50, -50, -0.2], [50, -50, -0.2], [50, 50, -0.2], [-50, 50, -0.2], glass))).toBeCloseTo(
      0.5,
      1
    );
  });
  it('a thin pane lets shadow rays through and does not count', () => {
    expect(share(lamp, sphere([0, 0, 0], 0.3, { ...glass, solid: false }))).toBe(1);
  });
  it('never changes what is seen: a floor below a lamp and a point of light, with glass over them or not', () => {
    const floor = quad([-2, -1, 2], [2, -1, 2], [2, -1, -2], [-2, -1, -2], matte(0.5));
    const roof = quad([-2, 0.5, -2], [2, 0.5, -2], [2, 0.5, 2], [-2, 0.5, 2], glass);
    const seen = (...pieces: Parameters<typeof makeScene>[0]) =>
      renderScene(
        makeScene(pieces, [{ kind: 'point', name: 'point', position: [0.8, 0, 0.3], intensity: [0.2, 0.2, 0.2] }]),
        viewFrom([0, -0.5, 0.01], [0, -1, 0]),
        { light: dark, bounces: 1, samples: 1024 }
      ).mean[1]!;
    expect(seen(lamp, floor, roof) / seen(lamp, floor)).toBeCloseTo(1, 2);
    expect(seen(lamp, floor)).toBeGreaterThan(1.2 * seen(floor));
  });
});
