import { describe, expect, it } from 'vitest';
import { luminance } from '../../color/spaces';
import { dot, normalize, type Vec3 } from '../../math/vec3';
import { createRandom } from '../../sampling/random';
import { cutSun, findSun } from './find-sun';
import { level } from './level';

const WIDTH = 512;
const HEIGHT = 256;
const TEXEL = Math.PI / HEIGHT;
const random = createRandom(11);

function directionAt(x: number, y: number): Vec3 {
  const phi = ((x + 0.5) / WIDTH - 0.5) * 2 * Math.PI;
  const theta = ((y + 0.5) / HEIGHT) * Math.PI;
  return [Math.sin(theta) * Math.cos(phi), Math.cos(theta), Math.sin(theta) * Math.sin(phi)];
}

/** A grained sky with a disc of `radius` radians about `sun`. */
function skyWith(sun: Vec3, radius: number, bright: Vec3): { width: number; height: number; pixels: Float32Array } {
  const pixels = new Float32Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const inside = dot(directionAt(x, y), sun) > Math.cos(radius);
      for (let c = 0; c < 3; c++) pixels[(y * WIDTH + x) * 3 + c] = inside ? bright[c]! : 0.5 + random();
    }
  }
  return { width: WIDTH, height: HEIGHT, pixels };
}

describe('the sun in a captured image', () => {
  it.each([[[0.3, 0.6, 0.7]], [[-0.9, 0.2, 0.05]], [[0.1, 0.98, -0.1]], [[-1, 0.4, 0.001]]] as [Vec3][])(
    'towards %j is found within one texel, also at the seam and near the zenith',
    (towards) => {
      const sun = normalize(towards);
      const found = findSun(skyWith(sun, 0.03, [4000, 3600, 3000]))!;
      expect(Math.acos(Math.min(1, dot(found.direction, sun)))).toBeLessThan(TEXEL);
      expect(found.radius).toBeCloseTo(0.03, 2);
    }
  );
  it('is measured by its light beyond the sky about it: radiance times solid angle', () => {
    const { irradiance } = findSun(skyWith(normalize([0.3, 0.6, 0.7]), 0.05, [4000, 3600, 3000]))!;
    const solid = 2 * Math.PI * (1 - Math.cos(0.05));
    expect(irradiance[0] / (4000 * solid)).toBeCloseTo(1, 1);
    expect(irradiance[2] / irradiance[0]).toBeCloseTo(0.75, 2);
  });
  it('is none where nothing stands out: an even sky, or a wide window', () => {
    expect(findSun(skyWith([0, 1, 0], 0.0001, [0, 0, 0]))).toBeNull();
    expect(findSun(skyWith(normalize([1, 0.3, 0]), 0.6, [30, 30, 30]))).toBeNull();
  });
  it('is cut out without a trace, and the rest is as it was', () => {
    const image = skyWith(normalize([0.3, 0.6, 0.7]), 0.03, [4000, 3600, 3000]);
    const found = findSun(image)!;
    const cut = cutSun(image, found);
    let most = 0;
    let changed = 0;
    for (let i = 0; i < WIDTH * HEIGHT; i++) {
      most = Math.max(most, luminance(cut.pixels.subarray(i * 3, i * 3 + 3)));
      if (cut.pixels[i * 3] !== image.pixels[i * 3]) changed++;
    }
    expect(most).toBeLessThan(1.6);
    expect(changed).toBeLessThan(found.texels.length * 4);
    expect(findSun(cut)).toBeNull();
  });
});

describe('a captured image set upright', () => {
  it('brings the sun where it stood: a camera that looked up by 10 degrees saw it 10 degrees too low before it', () => {
    const radians = (d: number) => (d * Math.PI) / 180;
    // before the camera, along +X, and to its right side, along +Z
    const ahead = skyWith([Math.cos(radians(20)), Math.sin(radians(20)), 0], 0.03, [4000, 4000, 4000]);
    expect(Math.asin(findSun(level(ahead, { pitch_deg: 10, roll_deg: 0 }))!.direction[1])).toBeCloseTo(radians(30), 2);
    const right = skyWith([0, Math.sin(radians(20)), Math.cos(radians(20))], 0.03, [4000, 4000, 4000]);
    expect(Math.asin(findSun(level(right, { pitch_deg: 0, roll_deg: 10 }))!.direction[1])).toBeCloseTo(radians(10), 2);
  });
  it('is the same image when nothing is askew', () => {
    const image = skyWith([0, 1, 0], 0.03, [4000, 4000, 4000]);
    expect(level(image, { pitch_deg: 0, roll_deg: 0 })).toBe(image);
  });
});
