import { describe, expect, it } from 'vitest';
import { createRandom } from '../../sampling/random';
import { levelIrradiance } from '../ground/irradiance';
import { type ImageLike, reduceImage } from './reduce';

describe('an image made smaller', () => {
  const random = createRandom(4);
  const image = {
    width: 512,
    height: 256,
    pixels: Float32Array.from({ length: 512 * 256 * 3 }, () => random() ** 6 * 1000)
  };
  const lux = (of: ImageLike) =>
    levelIrradiance({
      even: null,
      sun: null,
      image: {
        ...of,
        scale: 1,
        rotation: 0,
        grid: {
          width: 1,
          height: 1,
          probability: new Float32Array(1),
          threshold: new Float32Array(1),
          alias: new Uint32Array(1),
          mean: new Float32Array(3).fill(-1)
        }
      }
    });
  it('brings the same light to the ground', () => {
    const small = reduceImage(image, 128);
    expect([small.width, small.height]).toEqual([128, 64]);
    for (const c of [0, 1, 2] as const) expect(lux(small)[c] / lux(image)[c]).toBeCloseTo(1, 3);
  });
  it('is left alone when it is small enough', () => expect(reduceImage(image, 512).pixels).toBe(image.pixels));
});
