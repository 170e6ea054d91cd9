/**
 * Large captured images, seen by the copy that fits: without grain where a pixel covers many texels, sharp where it
 * does not, and the same light.
 */
import { describe, expect, it } from 'vitest';
import { makeScene, matte, quad, renderScene, viewFrom } from '../../../tests/support/scenes';
import { buildImportanceGrid } from '../../core/lights/captured/importance';
import { coarsest } from '../../core/lights/captured/levels';
import type { ImageLike } from '../../core/lights/captured/reduce';
import type { SurroundingsLight } from '../../core/lights/surroundings-light';

const WIDTH = 4096;
const HEIGHT = WIDTH / 2;
const lit = (image: ImageLike): SurroundingsLight => {
  const sampled = coarsest(image);
  return {
    even: null,
    sun: null,
    image: { ...image, scale: 1, rotation: 0, grid: buildImportanceGrid(sampled.pixels, sampled.width, sampled.height) }
  };
};
const painted = (at: (x: number, y: number) => number): ImageLike => {
  const pixels = new Float32Array(WIDTH * HEIGHT * 3);
  for (let i = 0; i < WIDTH * HEIGHT; i++) pixels.fill(at(i % WIDTH, Math.floor(i / WIDTH)), i * 3, i * 3 + 3);
  return { width: WIDTH, height: HEIGHT, pixels };
};
const spread = (pixels: readonly (readonly number[])[]) => {
  const values = pixels.map((p) => p[1]!);
  const mean = values.reduce((a, b) => a + b) / values.length;
  return { mean, deviation: Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length) };
};

// every other texel shines: 0 and 2 in turn
const checks = lit(painted((x, y) => 2 * ((x + y) % 2)));
const mirror = quad([-9, -9, 0], [9, -9, 0], [9, 9, 0], [-9, 9, 0], {
  metallic: 1,
  roughness: 0,
  baseColor: [1, 1, 1, 1]
});
const narrow = { focal_length_mm: 24 / (2 * Math.tan((16 * Math.PI) / HEIGHT / 8)) }; // 16 px over four texels

describe('a large captured image', () => {
  it('shows its mean at once where a pixel covers many texels, straight on and in a mirror', () => {
    for (const scene of [makeScene([]), makeScene([mirror])]) {
      const { mean, deviation } = spread(
        renderScene(scene, viewFrom([0, 0, 2], [0.1, 0, 0], { focal_length_mm: 20 }), { samples: 1, light: checks })
          .pixels
      );
      expect(mean).toBeCloseTo(1, 2);
      expect(deviation).toBeLessThan(0.02);
    }
  });
  it('shows its texels where a pixel is smaller than they are', () => {
    const { deviation } = spread(
      renderScene(makeScene([]), viewFrom([0, 0, 0], [1, 0.02, 0.3], narrow), { samples: 64, light: checks }).pixels
    );
    // 1/3 is what bilinear filtering leaves of them, and the pixel's own filter takes a little
    expect(deviation).toBeGreaterThan(0.25);
  });
  it('lights what is matte as its reduced copy does, bit for bit', () => {
    const image = painted((x, y) =>
      y > 700 && y < 730 && x > 900 && x < 960 ? 500 : 0.2 + ((x * 7919 + y * 104_729) % 97) / 97
    );
    const plate = makeScene([quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], matte(0.5))]);
    const seen = (light: SurroundingsLight) =>
      renderScene(plate, viewFrom([0, 5, 0], [0, 0, 0]), { width: 8, height: 8, samples: 64, light }).pixels;
    expect(seen(lit(image))).toEqual(seen(lit(coarsest(image))));
  });
  it('has light and scattering agree on gloss: with the lamp-like spot sampled both ways no energy is lost', () => {
    const spot = painted((x, y) => (y > 700 && y < 730 && x > 2000 && x < 2060 ? 500 : 0.2));
    const metal = (roughness: number) =>
      makeScene([
        quad([-9, 0, 9], [9, 0, 9], [9, 0, -9], [-9, 0, -9], { metallic: 1, roughness, baseColor: [1, 1, 1, 1] })
      ]);
    for (const roughness of [0.05, 0.15, 0.4]) {
      const at = (light: SurroundingsLight) =>
        renderScene(metal(roughness), viewFrom([-3, 1.9, 0], [0, 0, 0], { focal_length_mm: 30 }), {
          width: 16,
          height: 16,
          samples: 1024,
          light
        }).mean[1];
      const [fine, coarse] = [at(lit(spot)), at(lit(coarsest(spot)))];
      expect(fine / coarse).toBeGreaterThan(0.98);
      expect(fine / coarse).toBeLessThan(1.02);
    }
  });
});
