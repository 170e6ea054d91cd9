/** Halved copies of a texture down to one texel, averaged in linear light. Rgba8 in, rgba8 out, level 0 first. */
import { decodeSrgb, encodeSrgb } from '../../core/color/srgb';
import type { SceneTexture } from '../../core/scene/scene';
import { TEXTURE_MAX_LEVELS } from '../assembly/layout';

const DECODE = Float64Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));
const ENCODE = Uint8Array.from({ length: 4097 }, (_, i) => Math.round(255 * encodeSrgb(i / 4096)));

export function buildMipLevels(texture: SceneTexture): { width: number; height: number; pixels: Uint8Array }[] {
  const levels = [{ width: texture.width, height: texture.height, pixels: texture.pixels }];
  while (levels.length < TEXTURE_MAX_LEVELS) {
    const from = levels[levels.length - 1]!;
    if (from.width === 1 && from.height === 1) break;
    const width = Math.max(1, from.width >> 1);
    const height = Math.max(1, from.height >> 1);
    const pixels = new Uint8Array(width * height * 4);
    const source = from.pixels;
    for (let y = 0; y < height; y++) {
      const row0 = Math.min(from.height - 1, y * 2) * from.width;
      const row1 = Math.min(from.height - 1, y * 2 + 1) * from.width;
      for (let x = 0; x < width; x++) {
        const x0 = Math.min(from.width - 1, x * 2);
        const x1 = Math.min(from.width - 1, x * 2 + 1);
        const a = (row0 + x0) * 4;
        const b = (row0 + x1) * 4;
        const c = (row1 + x0) * 4;
        const d = (row1 + x1) * 4;
        const out = (y * width + x) * 4;
        for (let k = 0; k < 4; k++) {
          pixels[out + k] =
            texture.encoded && k < 3
              ? ENCODE[
                  Math.round(
                    (DECODE[source[a + k]!]! +
                      DECODE[source[b + k]!]! +
                      DECODE[source[c + k]!]! +
                      DECODE[source[d + k]!]!) *
                      1024
                  )
                ]!
              : (source[a + k]! + source[b + k]! + source[c + k]! + source[d + k]! + 2) >> 2;
        }
      }
    }
    levels.push({ width, height, pixels });
  }
  return levels;
}
