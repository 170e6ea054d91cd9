/**
 * Solid textures: weights that sum to 1, no period within 20 m, and a wide footprint that sees the mean of what narrow
 * ones see.
 */
import { describe, expect, it } from 'vitest';
import { kernelModule } from '../../../tests/support/scenes';
import {
  meanColor,
  parseSolidTexture,
  SOLID_KINDS,
  type SolidKind,
  type SolidTexture
} from '../../core/materials/solid-texture';
import { createRandom } from '../../core/sampling/random';
import { createMemory, instantiate } from './kernel';
import { writeSolid } from './pack-materials';

const AT = 0x400000;
const OUT = AT + 256;
const memory = createMemory(AT + 65_536);
const kernel = instantiate(kernelModule, memory, 0);
const f32 = new Float32Array(memory.buffer);
const u32 = new Uint32Array(memory.buffer);

const texture = (kind: SolidKind, seed = 3): SolidTexture => ({
  kind,
  size_m: 0.1,
  colors: [
    [0.1, 0.1, 0.1],
    [0.5, 0.5, 0.5],
    [0.9, 0.9, 0.9]
  ],
  relief_m: 0,
  roughness_change: 0,
  axis: 'x',
  seed
});
/** Grey that the pattern gives with the colours above, and its height. */
function look(
  x: number,
  y: number,
  z: number,
  width: number
): { grey: number; height: number; sum: number; least: number } {
  kernel.probeSolid(AT, x, y, z, width, 0, 0, 1, OUT);
  const [a, b, c, height] = f32.subarray(OUT >> 2, (OUT >> 2) + 4) as unknown as [number, number, number, number];
  return { grey: 0.1 * a + 0.5 * b + 0.9 * c, height, sum: a + b + c, least: Math.min(a, b, c) };
}

describe.each(SOLID_KINDS)('%s', (kind) => {
  it('gives weights that sum to 1 and stay within 0 to 1, and varies', () => {
    writeSolid(f32, u32, AT >> 2, texture(kind));
    const random = createRandom(1);
    const greys: number[] = [];
    for (let i = 0; i < 500; i++) {
      const { sum, least, grey, height } = look(40 * random(), 40 * random(), 40 * random(), 1e-3);
      expect(Math.abs(sum - 1)).toBeLessThan(1e-5);
      expect(least).toBeGreaterThanOrEqual(0);
      expect(Math.abs(height)).toBeLessThan(2);
      greys.push(grey);
    }
    const mean = greys.reduce((a, b) => a + b) / greys.length;
    expect(Math.sqrt(greys.reduce((s, g) => s + (g - mean) ** 2, 0) / greys.length)).toBeGreaterThan(0.03);
  });

  it('does not repeat within 20 m', () => {
    writeSolid(f32, u32, AT >> 2, texture(kind));
    const random = createRandom(2);
    // the look of a patch is compared with that of patches one lattice step to 20 m (200 units) on: a period would
    // match exactly
    const patch = Array.from({ length: 60 }, () => [6 * random(), 6 * random(), 6 * random()] as const);
    const here = patch.map(([x, y, z]) => look(x, y, z, 1e-3).grey);
    for (const axis of [0, 1, 2]) {
      for (let shift = 6; shift <= 200; shift += 2) {
        const there = patch.map(
          (p) =>
            look(
              p[0] + (axis === 0 ? shift : 0),
              p[1] + (axis === 1 ? shift : 0),
              p[2] + (axis === 2 ? shift : 0),
              1e-3
            ).grey
        );
        const apart = there.reduce((s, g, i) => s + Math.abs(g - here[i]!), 0) / patch.length;
        // a course of bricks keeps its joints along the course, but not its bricks; ribs are alike, but not quite straight
        expect(apart).toBeGreaterThan(kind === 'ribs' ? 0.002 : 0.01);
      }
    }
  });

  it('seen from farther and farther keeps the mean of what is seen from near, and from afar is calm', () => {
    writeSolid(f32, u32, AT >> 2, texture(kind));
    const random = createRandom(3);
    const from = (width: number) =>
      Array.from({ length: 8000 }, () => look(300 * random(), 300 * random(), 300 * random(), width).grey);
    const [near, far] = [from(1e-3), from(20)];
    const mean = (v: number[]) => v.reduce((a, b) => a + b) / v.length;
    const deviation = (v: number[]) => Math.sqrt(v.reduce((s, g) => s + (g - mean(v)) ** 2, 0) / v.length);
    // 8,000 places scatter by 0.003
    for (const width of [0.05, 0.15, 0.3, 0.6, 1, 3])
      expect(Math.abs(mean(from(width)) - mean(near)), `${width}`).toBeLessThan(0.02);
    expect(Math.abs(mean(far) - mean(near))).toBeLessThan(0.01);
    expect(deviation(far)).toBeLessThan(0.5 * deviation(near));
  });

  it('has the mean that views without it show', () => {
    writeSolid(f32, u32, AT >> 2, texture(kind));
    const random = createRandom(4);
    let sum = 0;
    for (let i = 0; i < 20_000; i++) sum += look(200 * random(), 200 * random(), 200 * random(), 1e-3).grey;
    expect(Math.abs(sum / 20_000 - meanColor(texture(kind))[0])).toBeLessThan(0.01);
  });

  it('differs by seed', () => {
    const at = (seed: number) => {
      writeSolid(f32, u32, AT >> 2, texture(kind, seed));
      return Array.from({ length: 20 }, (_, i) => look(i * 0.37, i * 0.21, i * 0.11, 1e-3).grey);
    };
    expect(at(3)).toEqual(at(3));
    expect(at(3)).not.toEqual(at(4));
  });
});

describe('a solid texture in a file', () => {
  const good = {
    kind: 'wood',
    size_m: 0.004,
    colors: [
      [0.1, 0.1, 0.1],
      [0.2, 0.2, 0.2],
      [0, 0, 0]
    ]
  };
  it('is read with its defaults', () => {
    expect(parseSolidTexture(good)).toMatchObject({ axis: 'x', relief_m: 0, seed: 1 });
    expect(parseSolidTexture(undefined)).toBeNull();
  });
  it('is refused by the name of what is wrong', () => {
    expect(() => parseSolidTexture({ ...good, kind: 'cheese' })).toThrow(
      /solid_texture.kind "cheese" is not known; it is one of noise, wood/
    );
    expect(() => parseSolidTexture({ ...good, size_m: -1 })).toThrow(
      /solid_texture.size_m is -1; expected a number from/
    );
    expect(() => parseSolidTexture({ ...good, colors: [[2, 0, 0]] })).toThrow(/three times three numbers/);
  });
});
