import { describe, expect, it } from 'vitest';
import { kernelModule } from '../../../tests/support/scenes';
import { createGuidedFilter } from '../../core/finishing/denoise/guided';
import { createReferenceSteps } from '../../core/finishing/denoise/guided-reference';
import { createRandom } from '../../core/sampling/random';
import { guidedFilter } from './guided-filter';

const [WIDTH, HEIGHT] = [80, 48];

/** Planes of random light over boards of two reflectances and two normals; `error` below 0 for one sample a pixel. */
function planes(seed: number, error: number): Float32Array {
  const random = createRandom(seed);
  const plane = WIDTH * HEIGHT;
  const out = new Float32Array(10 * plane);
  for (let i = 0; i < plane; i++) {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    const light = random() < 0.3 ? 3 * random() : 0;
    for (let c = 0; c < 3; c++) {
      const reflectance = 0.2 + 0.5 * ((x >> 4) & 1) + 0.05 * c;
      out[c * plane + i] = light * reflectance;
      out[(3 + c) * plane + i] = reflectance;
      out[(6 + c) * plane + i] = c === (y < 20 ? 1 : 2) ? 1 : 0.5;
    }
    out[9 * plane + i] = error < 0 ? -1 : error * random();
  }
  return out;
}

describe('the kernel’s guided filter', () => {
  it.each([
    ['one sample a pixel', -1],
    ['known errors', 0.2],
    ['small errors', 0.002]
  ])('agrees with its reference: %s', async (_name, error) => {
    const own = await guidedFilter(kernelModule).run(planes(4, error), HEIGHT, WIDTH);
    const reference = await createGuidedFilter(createReferenceSteps()).run(planes(4, error), HEIGHT, WIDTH);
    let worst = 0;
    for (let i = 0; i < own.length; i++) worst = Math.max(worst, Math.abs(own[i]! - reference[i]!));
    expect(worst).toBeLessThan(1e-4);
    expect(Math.max(...own)).toBeGreaterThan(0.1);
  });

  it('shows nothing of what lies beyond a row’s end in its memory, be it no number', async () => {
    const [width, height] = [16, 16];
    const plane = width * height;
    const input = new Float32Array(10 * plane).fill(0.5);
    // the first mean of a row, in double precision, begins with the bits of a single NaN: 1 and nine bits at 2^-22 to
    // 2^-30
    input.fill(0, 9 * plane);
    input.set([1, 511 * 2 ** -30], 9 * plane);
    input.fill(1, 3 * plane, 6 * plane);
    const out = await guidedFilter(kernelModule).run(input, height, width);
    expect([...out].every((v) => Math.abs(v - 0.5) < 1e-4)).toBe(true);
  });

  it('serves pictures of any size one after another', async () => {
    const filter = guidedFilter(kernelModule);
    const first = await filter.run(planes(5, 0.1), HEIGHT, WIDTH);
    await filter.run(new Float32Array(10 * 304 * 208), 208, 304);
    expect(await filter.run(planes(5, 0.1), HEIGHT, WIDTH)).toEqual(first);
  });
});
