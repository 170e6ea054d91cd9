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
    for (let y = 0; y < height; y++) {
      const y0 = Math.min(from.height - 1, y * 2);
      const y1 = Math.min(from.height - 1, y * 2 + 1);
      for (let x = 0; x < width; x++) {
        const x0 = Math.min(from.width - 1, x * 2);
        const x1 = Math.min(from.width - 1, x * 2 + 1);
        for (let c = 0; c < 4; c++) {
          const at = (px: number, py: number) => from.pixels[(py * from.width + px) * 4 + c]!;
          const four = [at(x0, y0), at(x1, y0), at(x0, y1), at(x1, y1)];
          pixels[(y * width + x) * 4 + c] =
            texture.encoded && c < 3 ? ENCODE[Math.round((DECODE[four[0]!]! + DECODE[four[1]!]! + DECODE[four[2]!]! + DECODE[four[3]!]!) * 1024)]! : Math.round((four[0]! + four[1]! + four[2]! + four[3]!) / 4);
        }
      }
    }
    levels.push({ width, height, pixels });
  }
  return levels;
}
