import { describe, expect, it } from 'vitest';
import { luminance } from '../../color/spaces';
import { add, dot, length, normalize, scale, subtract, type Vec3 } from '../../math/vec3';
import {
  anglesOf,
  lampDirection,
  lampLuminance,
  lampRectangles,
  lumenFor,
  type StudioLamp,
  standForReflection
} from './lamp';
import { lampsOfSet, STUDIO_SET_KEYS } from './sets';
import { buildStudio, type StudioChoice } from './studio';

const bounds = { min: [-0.1, 0, -0.1] as const, max: [0.1, 0.5, 0.1] as const };
const choice: StudioChoice = {
  set: 'three',
  lamps: null,
  backdrop: null,
  paper: null,
  rotation_deg: 0,
  brightness_ev: 0
};
const lamp: StudioLamp = {
  name: 'Key',
  role: 'key',
  form: 'softbox',
  on: true,
  azimuth_deg: -40,
  elevation_deg: 30,
  distance_m: 2,
  width_m: 0.8,
  height_m: 1.2,
  turn_deg: 0,
  kelvin: 5000,
  tint: 0,
  lumen: 12_000
};

describe('a studio', () => {
  it('stands the model on its paper and reaches beyond the camera', () => {
    const [paper] = buildStudio(choice, bounds, 2).papers;
    let lowest = Number.POSITIVE_INFINITY;
    let widest = 0;
    for (let i = 0; i < paper!.positions.length; i += 3) {
      lowest = Math.min(lowest, paper!.positions[i + 1]!);
      widest = Math.max(widest, Math.hypot(paper!.positions[i]!, paper!.positions[i + 2]!));
    }
    expect(lowest).toBeLessThanOrEqual(0);
    expect(lowest).toBeGreaterThan(-1e-3);
    expect(widest).toBeGreaterThan(2);
  });
  it('has sets sized by the model: ten times the model has ten times the softbox, as bright', () => {
    const box = (k: number) =>
      buildStudio(choice, { min: [-0.1 * k, 0, -0.1 * k], max: [0.1 * k, 0.5 * k, 0.1 * k] }, 2 * k).lights[0]!;
    expect(box(10).width / box(1).width).toBeCloseTo(10, 6);
    expect(luminance(box(10).radiance)).toBeCloseTo(luminance(box(1).radiance), 6);
  });
  it('turns with its rotation, brightens by stops, and leaves out what is off', () => {
    const [a] = buildStudio(choice, bounds, 2).lights;
    const [b] = buildStudio({ ...choice, rotation_deg: 180, brightness_ev: 1 }, bounds, 2).lights;
    expect(b!.position[0]).toBeCloseTo(-a!.position[0], 6);
    expect(b!.radiance[0] / a!.radiance[0]).toBeCloseTo(2);
    expect(buildStudio({ ...choice, lamps: [lamp, { ...lamp, on: false }] }, bounds, 2).lights).toHaveLength(1);
  });
  it('has six sets, each with one key, that keep above the ground and look at the model', () => {
    expect(STUDIO_SET_KEYS).toHaveLength(6);
    for (const key of STUDIO_SET_KEYS) {
      const lamps = lampsOfSet(key, 1);
      expect(lamps.filter((l) => l.role === 'key')).toHaveLength(1);
      for (const light of buildStudio({ ...choice, set: key }, { min: [-0.5, 0, -0.5], max: [0.5, 1, 0.5] }, 3)
        .lights) {
        expect(dot(normalize(subtract([0, 0.5, 0], light.position)), light.direction)).toBeGreaterThan(0.7);
        expect(light.position[1]).toBeGreaterThan(0);
      }
    }
  });
  it('rises its roll of paper behind the model', () => {
    const [paper] = buildStudio({ ...choice, backdrop: 'sweep' }, bounds, 2).papers;
    const highest = { y: 0, z: 0 };
    for (let i = 0; i < paper!.positions.length; i += 3)
      if (paper!.positions[i + 1]! > highest.y)
        [highest.y, highest.z] = [paper!.positions[i + 1]!, paper!.positions[i + 2]!];
    expect(highest.y).toBeGreaterThan(1);
    expect(highest.z).toBeLessThan(-0.5);
    expect(buildStudio({ ...choice, backdrop: 'none' }, bounds, 2).papers).toEqual([]);
  });
});

describe('a studio lamp', () => {
  it('gives off its lumen whatever its form: pi L A over its pieces', () => {
    for (const form of ['softbox', 'strip', 'ring', 'window'] as const) {
      const pieces = lampRectangles({ ...lamp, form }, [0, 0, 0], 0, 1);
      const lumen = pieces.reduce((sum, p) => sum + Math.PI * luminance(p.radiance) * p.width * p.height, 0);
      expect(lumen).toBeCloseTo(12_000, 3);
    }
    expect(lumenFor(lampLuminance(lamp), lamp)).toBeCloseTo(12_000, 6);
  });
  it('stands where its angles say, which come back from its direction', () => {
    expect(anglesOf(lampDirection(lamp))).toEqual({
      azimuth_deg: expect.closeTo(-40, 9),
      elevation_deg: expect.closeTo(30, 9)
    });
    const [one] = lampRectangles(lamp, [1, 2, 3], 15, 1);
    expect(length(subtract(one!.position, [1, 2, 3]))).toBeCloseTo(2, 9);
    expect(anglesOf(subtract(one!.position, [1, 2, 3])).azimuth_deg).toBeCloseTo(-25, 9);
  });
  it('is put where its mirror image appears at the point that was pressed (law of reflection)', () => {
    const eye: Vec3 = [0, 1, 4];
    const centre: Vec3 = [0, 0.5, 0];
    const normal = normalize([0.3, 0.4, 0.9]);
    const point: Vec3 = [0.1, 0.6, 0.2];
    const angles = standForReflection(eye, point, normal, centre, 2)!;
    const at = add(centre, scale(lampDirection(angles), 2));
    const out = normalize(subtract(at, point));
    const back = normalize(subtract(eye, point));
    // the normal halves the angle between both
    expect(dot(normalize(add(out, back)), normal)).toBeCloseTo(1, 9);
    expect(standForReflection(eye, point, scale(normal, -1), centre, 2)).toBeNull();
    expect(standForReflection(eye, [0, 0.5, 3], [0, 0, 1], centre, 2)).toBeNull();
  });
});
