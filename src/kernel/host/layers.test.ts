import { BRIEF_DEFAULTS } from '../../core/brief/brief';
import { describe, expect, it } from 'vitest';
import {
  dark,
  even,
  glowing,
  makeScene,
  matte,
  quad,
  renderScene,
  sphere,
  viewFrom
} from '../../../tests/support/scenes';
import type { Vec3 } from '../../core/math/vec3';
import { dimLamps } from '../../core/scene/dim-lamps';
import type { SceneLight } from '../../core/scene/scene';
import { groupLights } from '../../core/scene/light-groups';

const floor = quad([-3, 0, 3], [3, 0, 3], [3, 0, -3], [-3, 0, -3], matte(0.6));
const lights: SceneLight[] = [
  { kind: 'point', name: 'Desk lamp', position: [1, 1, 0], intensity: [20, 15, 10] },
  {
    kind: 'spot',
    name: 'Spot 1',
    position: [-1, 2, 0],
    direction: [0, -1, 0],
    intensity: [40, 40, 40],
    innerAngle: 0.3,
    outerAngle: 0.6
  },
  { kind: 'directional', name: 'Spot 2', direction: [0, -1, 0], illuminance: [3, 3, 3] }
];
const pieces = [
  floor,
  sphere([0, 0.4, 0], 0.4, { metallic: 1, roughness: 0.2 }, false, 12, 24),
  quad([-1, 2.5, -1], [1, 2.5, -1], [1, 2.5, 1], [-1, 2.5, 1], { ...glowing(4), name: 'ceiling panel' })
];
const scene = makeScene(pieces, lights);
const sun = { direction: [0.5, Math.sqrt(0.74), 0.1] as Vec3, radiance: [5e4, 5e4, 4e4] as Vec3, oneMinusCos: 1.1e-5 };
const light = { ...even(2), sun };
const view = viewFrom([0, 1.4, 3], [0, 0.5, 0]);
const { names } = groupLights(scene);
const options = { width: 24, height: 18, samples: 256, bounces: 5, light };
const indexOf = (name: string) => names.indexOf(name);

describe('light layers', () => {
  it('add up to the picture to rounding, and change nothing of it', () => {
    const plain = renderScene(scene, view, options);
    const layered = renderScene(scene, view, { ...options, layers: names.length });
    expect(names).toEqual(['surroundings', 'sun', 'ceiling panel', 'Desk lamp', 'Spot']);
    expect(layered.pixels).toEqual(plain.pixels);
    for (let c = 0; c < 3; c++) {
      const sum = layered.layerMeans.reduce((total, layer) => total + layer[c]!, 0);
      expect(Math.abs(sum / layered.mean[c]! - 1)).toBeLessThan(1e-5);
    }
    for (const layer of layered.layerMeans) expect(layer[0]!).toBeGreaterThan(0);
  });
  it('hold what each light gives alone', () => {
    const { layerMeans } = renderScene(scene, view, { ...options, samples: 2048, layers: names.length });
    const alone = (only: { lights?: SceneLight[]; glow?: boolean; sky?: boolean; sun?: boolean }) =>
      renderScene(
        makeScene(
          only.glow ? pieces : [pieces[0]!, pieces[1]!, { ...pieces[2]!, material: { ...matte(0), twoSided: false } }],
          only.lights ?? []
        ),
        view,
        { ...options, samples: 1024, light: { ...(only.sky ? even(2) : dark), sun: only.sun ? sun : null } }
      ).mean[1];
    const close = (name: string, expected: number) =>
      expect(Math.abs(layerMeans[indexOf(name)]![1]! / expected - 1), name).toBeLessThan(0.04);
    close('surroundings', alone({ sky: true }));
    close('sun', alone({ sun: true }));
    close('ceiling panel', alone({ glow: true }));
    close('Desk lamp', alone({ lights: [lights[0]!] }));
    close('Spot', alone({ lights: lights.slice(1) }));
  });
  it('are within 1 % what a brief shows that has one group alone', () => {
    const much = { ...options, samples: 4096 };
    // one of them alone is up to 1.2 % off, the polished sphere's glints
    const seeds = [1, 2, 3];
    const inAll = seeds.map((seed) => renderScene(scene, view, { ...much, layers: names.length, seed }).layerMeans);
    for (const group of ['ceiling panel', 'Desk lamp', 'Spot']) {
      const only = dimLamps(scene, { ...BRIEF_DEFAULTS.lamps, only: group });
      const ratios = seeds.map(
        (seed, i) =>
          inAll[i]![indexOf(group)]![1]! / renderScene(only, view, { ...much, light: dark, seed: seed + 20 }).mean[1]
      );
      expect(Math.abs(ratios.reduce((a, b) => a + b) / seeds.length - 1), group).toBeLessThan(0.01);
    }
  });
});
