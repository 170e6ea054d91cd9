/**
 * Textures are painted by a function of (x, y), 0 to 1, that returns linear reflectance and, if wanted, roughness and
 * height.
 */
import { encodeSrgb } from '../../core/color/srgb';

export interface Paint {
  color: readonly [number, number, number];
  roughness?: number;
  /** In metres; makes the normal map. */
  height?: number;
}

export interface PaintedTexture {
  width: number;
  height: number;
  color: Uint8Array;
  metalRough: Uint8Array | null;
  normal: Uint8Array | null;
}

/** `spanX`, `spanY`: metres that the texture covers, for the slope of its heights. */
export function paint(
  width: number,
  height: number,
  spanX: number,
  spanY: number,
  at: (x: number, y: number) => Paint
): PaintedTexture {
  const color = new Uint8Array(width * height * 4);
  const rough = new Uint8Array(width * height * 4);
  const heights = new Float32Array(width * height);
  let hasRough = false;
  let hasHeight = false;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const p = at((i + 0.5) / width, (j + 0.5) / height);
      const o = (j * width + i) * 4;
      for (let k = 0; k < 3; k++) color[o + k] = Math.round(255 * encodeSrgb(Math.min(1, Math.max(0, p.color[k]!))));
      color[o + 3] = 255;
      rough[o] = 255;
      rough[o + 1] = Math.round(255 * Math.min(1, Math.max(0, p.roughness ?? 1)));
      rough[o + 2] = 255;
      rough[o + 3] = 255;
      hasRough ||= p.roughness !== undefined;
      heights[j * width + i] = p.height ?? 0;
      hasHeight ||= p.height !== undefined;
    }
  }
  let normal: Uint8Array | null = null;
  if (hasHeight) {
    normal = new Uint8Array(width * height * 4);
    const h = (i: number, j: number) => heights[((j + height) % height) * width + ((i + width) % width)]!;
    for (let j = 0; j < height; j++) {
      for (let i = 0; i < width; i++) {
        const nx = ((h(i - 1, j) - h(i + 1, j)) * width) / (2 * spanX);
        // glTF's green points along +v upwards in the image, while rows run down
        const ny = -((h(i, j - 1) - h(i, j + 1)) * height) / (2 * spanY);
        const k = 1 / Math.hypot(nx, ny, 1);
        normal.set(
          [nx * k, ny * k, k, 1].map((c, n) => (n === 3 ? 255 : Math.round(127.5 * (c + 1)))),
          (j * width + i) * 4
        );
      }
    }
  }
  return { width, height, color, metalRough: hasRough ? rough : null, normal };
}

export const blend = (a: readonly number[], b: readonly number[], t: number): [number, number, number] => [
  a[0]! + (b[0]! - a[0]!) * t,
  a[1]! + (b[1]! - a[1]!) * t,
  a[2]! + (b[2]! - a[2]!) * t
];
export const dim = (a: readonly number[], k: number): [number, number, number] => [a[0]! * k, a[1]! * k, a[2]! * k];
