/**
 * The ground of a product picture against closed forms: without the model it is not there, below a wall it has half its
 * sky.
 */
import { describe, expect, it } from 'vitest';
import { dark, even, glowing, makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { levelIrradiance } from '../../core/lights/ground/irradiance';
import { cutBelow } from '../../core/lights/ground/polygon';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';
import { addSet } from '../../core/scene/lit-scene';
import type { SceneLight } from '../../core/scene/scene';
import type { GroundSettings } from './settings';

const ground = (light: SurroundingsLight, more: Partial<GroundSettings> = {}): GroundSettings => ({
  height_m: 0,
  middle_m: [0, 0],
  fade_m: [1e4, 2e4],
  polish: 0,
  roughness: 0,
  irradiance: levelIrradiance(light),
  ...more
});
const empty = makeScene([]);
const down = viewFrom([0, 2, 0.01], [0, 0, 0]);
/** A black wall, endless to the right and left and up, above the line z = 0. */
const wall = makeScene([quad([-1e3, 0, 0], [1e3, 0, 0], [1e3, 1e3, 0], [-1e3, 1e3, 0], matte(0))]);
const gradient = (() => {
  const [width, height] = [64, 32];
  const pixels = Float32Array.from(
    { length: width * height * 3 },
    (_, i) => 1 + Math.floor(i / (3 * width)) / height + (i % 3) * 0.2
  );
  return {
    even: null,
    sun: null,
    image: {
      pixels,
      width,
      height,
      scale: 2,
      rotation: 0.4,
      grid: {
        width: 1,
        height: 1,
        probability: Float32Array.of(1),
        threshold: Float32Array.of(1),
        alias: Uint32Array.of(0),
        mean: Float32Array.of(-1, -1, -1)
      }
    }
  };
})();

describe('the irradiance of a level plane', () => {
  it('is pi times an even radiance, and the cosine integral of an image (closed form of a linear gradient)', () => {
    expect(levelIrradiance(even(2))).toEqual([2 * Math.PI, 2 * Math.PI, 2 * Math.PI]);
    const { height } = gradient.image;
    // of rows that hold 1 + row/height, the sum over bands of (sin^2 b - sin^2 a) pi
    let expected = 0;
    for (let y = 0; y < height / 2; y++)
      expected +=
        (1 + y / height) *
        Math.PI *
        (Math.sin((Math.PI * (y + 1)) / height) ** 2 - Math.sin((Math.PI * y) / height) ** 2);
    expect(levelIrradiance(gradient)[0]).toBeCloseTo(2 * expected, 4);
    expect(levelIrradiance(gradient)[1]).toBeCloseTo(2 * (expected + 0.2 * Math.PI), 4);
  });
  it('takes a sun by the sine of its height', () => {
    const sun = { direction: [0.8, 0.6, 0] as const, radiance: [1000, 1000, 1000] as const, oneMinusCos: 1e-5 };
    expect(levelIrradiance({ even: null, image: null, sun })[0]).toBeCloseTo(1000 * 2 * Math.PI * 1e-5 * 0.6, 9);
    expect(levelIrradiance({ even: null, image: null, sun: { ...sun, direction: [0.8, -0.6, 0] } })[0]).toBe(0);
  });
});

describe('a lamp that dips below the ground', () => {
  it('is cut at its height', () => {
    expect(
      cutBelow(
        [
          [0, -1, 0],
          [2, -1, 0],
          [2, 1, 0],
          [0, 1, 0]
        ],
        0
      )
    ).toEqual([
      [2, 0, 0],
      [2, 1, 0],
      [0, 1, 0],
      [0, 0, 0]
    ]);
    expect(
      cutBelow(
        [
          [0, 1, 0],
          [1, 1, 0],
          [0, 2, 0]
        ],
        0
      )
    ).toHaveLength(3);
    expect(
      cutBelow(
        [
          [0, -1, 0],
          [1, -1, 0],
          [0, -2, 0]
        ],
        0
      )
    ).toEqual([]);
  });
});

describe('a ground', () => {
  it('that nothing stands on shows the surroundings as if it were not there', () => {
    const light = even(3);
    const { mean, shares } = renderScene(empty, down, { light, ground: ground(light), samples: 256 });
    for (const c of mean) expect(c / 3).toBeCloseTo(1, 2);
    expect(shares.reduce((a, b) => a + b, 0) / shares.length).toBeCloseTo(1, 2);
  });
  it('in the shadow of an endless wall has half the light of an even sky: form factor 1/2 (Howell, C-9)', () => {
    const light = even(3);
    const at = { ...ground(light), fade_m: [1e6, 2e6] as const };
    const near = viewFrom([0, 1, 0.5], [0, 0, 0.001], { projection: 'parallel', height_m: 0.0005 });
    const { mean, shares } = renderScene(wall, near, {
      light,
      ground: at,
      samples: 1024,
      width: 4,
      height: 4,
      bounces: 1
    });
    expect(mean[1] / 3).toBeCloseTo(0.5, 1);
    expect(Math.abs(mean[1] / 3 - 0.5)).toBeLessThan(0.015);
    expect(shares.reduce((a, b) => a + b, 0) / shares.length).toBeCloseTo(mean[1] / 3, 3);
  });
  it('is lit by the lamps of the set as if they belonged to what lies behind it, and by the model’s own beyond that', () => {
    const lamp: SceneLight = {
      kind: 'rectangle',
      name: 'box',
      position: [0.6, 1, 0.2],
      direction: [-0.3, -1, 0],
      up: [0, 0, 1],
      width: 1,
      height: 0.6,
      radiance: [50, 40, 30]
    };
    const options = { light: even(1), ground: ground(even(1)), samples: 512, bounces: 2 };
    const ofSet = renderScene(addSet(empty, [], [lamp]), down, options);
    for (const c of ofSet.mean) expect(c).toBeCloseTo(1, 1);
    expect(Math.abs(ofSet.mean[0] - 1)).toBeLessThan(0.02);
    const ofModel = renderScene({ ...empty, lights: [lamp] }, down, options);
    expect(ofModel.mean[0]).toBeGreaterThan(2);
  });
  it('shows its shadow where the surroundings are black, and fades to them', () => {
    const lamp: SceneLight = {
      kind: 'rectangle',
      name: 'box',
      position: [0, 3, 0],
      direction: [0, -1, 0],
      up: [0, 0, 1],
      width: 1,
      height: 1,
      radiance: [50, 50, 50]
    };
    const sheet = makeScene([quad([-0.5, 1, 0.5], [0.5, 1, 0.5], [0.5, 1, -0.5], [-0.5, 1, -0.5], matte(0))]);
    const aside = viewFrom([0, 0.5, 0.4], [0, 0, 0]);
    const black = { ...dark, even: [0, 0, 0] as const };
    const shadow = renderScene(addSet(sheet, [], [lamp]), aside, {
      light: black,
      ground: ground(black),
      samples: 64,
      bounces: 1
    });
    expect(shadow.shares.reduce((a, b) => a + b, 0) / shadow.shares.length).toBeLessThan(0.15);
    const faded = renderScene(addSet(sheet, [], [lamp]), aside, {
      light: black,
      ground: ground(black, { fade_m: [0, 1e-4] }),
      samples: 64,
      bounces: 1
    });
    expect(faded.shares.every((s) => s === 1)).toBe(true);
  });
  it('mirrors the model alone: a glowing wall by the strength of its polish, the surroundings not at all', () => {
    const light = even(1);
    const screen = makeScene([quad([-1e3, 0, -1], [1e3, 0, -1], [1e3, 1e3, -1], [-1e3, 1e3, -1], glowing(10))]);
    const options = { light, samples: 256, bounces: 4, width: 8, height: 8 };
    const look = viewFrom([0, 1, 1], [0, 0, 0], { projection: 'parallel', height_m: 0.1 });
    const matteGround = renderScene(screen, look, { ...options, ground: ground(light) }).mean[1];
    const polished = renderScene(screen, look, { ...options, ground: ground(light, { polish: 0.5 }) }).mean[1];
    // Schlick at 45 degrees of 0.5; the mirrored line meets the screen everywhere
    const share = 0.5 + 0.5 * (1 - Math.SQRT1_2) ** 5;
    expect(polished).toBeCloseTo(share * 10 + (1 - share) * matteGround, 0);
    const bare = renderScene(empty, look, { ...options, ground: ground(light, { polish: 0.5, roughness: 0.4 }) });
    expect(bare.mean[1]).toBeCloseTo(1, 2);
    expect(bare.shares.reduce((a, b) => a + b, 0) / bare.shares.length).toBeCloseTo(1, 2);
  });
});
