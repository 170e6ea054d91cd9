/**
 * Film to displayed light: mean of the samples, exposure, white balance, tone curve, background. One tile at a time, so a
 * sheet of any size needs little memory. The film is never changed. What comes out is linear light, 0 to 1, in the
 * primaries of sRGB; encode-rows.ts makes codes of it.
 */
import { mixTone, toneCurve } from '../color/tone';
import { balanceMatrix } from '../color/white-balance';
import type { Finish } from '../brief/brief';
import { BACKDROP, BACKDROP_SHARE, CHANNELS, EVEN, ODD, type TileRect } from '../film/film';
import { lookUp, tableOf } from '../math/curve-table';
import { type SheetShare, WHOLE_SHEET } from '../output/size';
import { type BackdropImage, backgroundShader } from './background';

const TONE = tableOf(toneCurve);

/** What makes a picture of a film. */
export interface Development {
  /** Of the picture, px. */
  width: number;
  height: number;
  /** Luminance of displayed white, cd/m2. */
  white: number;
  finish: Finish;
  /** What the picture shows of its sheet, over which a background spreads; all of it when that is not said. */
  within?: SheetShare;
  /** Of a background that is a picture; without it the surroundings are seen. */
  backdrop?: BackdropImage | null;
}

/** A tile with the sum of its samples. */
export interface FilmTile extends Omit<TileRect, 'index'> {
  data: Float32Array;
  samples: number;
}

/**
 * Writes a tile's pixels as rgba f32 into `out`, which holds whole rows of the picture from row `from` on. Colours under
 * partial coverage are not premultiplied.
 */
export type DevelopTile = (tile: FilmTile, out: Float32Array, from?: number) => void;

// Less coverage than this is none.
const MIN_COVER = 1 / 512;

export function createDeveloper({
  width: pictureWidth,
  height: pictureHeight,
  white,
  finish,
  within = WHOLE_SHEET,
  backdrop = null
}: Development): DevelopTile {
  const { background } = finish;
  const behind = backgroundShader(
    background,
    (pictureWidth * within.height) / (pictureHeight * within.width),
    backdrop
  );
  const clear = behind !== null || background.kind === 'clear';
  const balance = finish.white && balanceMatrix(finish.white);
  const back: number[] = [0, 0, 0];
  const rgb: number[] = [0, 0, 0];
  return ({ x: left, y: top, width, height, data: tile, samples }, out, from = 0) => {
    const k = samples > 0 ? 2 ** finish.exposure_ev / (samples * white) : 0;
    const putBehind = (x: number, y: number) =>
      behind!(
        within.x + (within.width * (left + x + 0.5)) / pictureWidth,
        within.y + (within.height * (top + y + 0.5)) / pictureHeight,
        back
      );
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const p = (y * width + x) * CHANNELS;
        const o = ((top - from + y) * pictureWidth + left + x) * 4;
        let r = tile[p + EVEN]! + tile[p + ODD]!;
        let g = tile[p + EVEN + 1]! + tile[p + ODD + 1]!;
        let b = tile[p + EVEN + 2]! + tile[p + ODD + 2]!;
        let cover = 1;
        if (clear) {
          cover = samples > 0 ? Math.min(1, Math.max(0, 1 - tile[p + BACKDROP_SHARE]! / samples)) : 0;
          if (cover < MIN_COVER) {
            if (behind) {
              putBehind(x, y);
              for (let c = 0; c < 3; c++) out[o + c] = back[c]!;
              out[o + 3] = 1;
            } else out.fill(0, o, o + 4);
            continue;
          }
          r = (r - tile[p + BACKDROP]!) / cover;
          g = (g - tile[p + BACKDROP + 1]!) / cover;
          b = (b - tile[p + BACKDROP + 2]!) / cover;
        }
        if (balance) {
          const [toR, toG, toB] = balance;
          [r, g, b] = [
            toR[0] * r + toR[1] * g + toR[2] * b,
            toG[0] * r + toG[1] * g + toG[2] * b,
            toB[0] * r + toB[1] * g + toB[2] * b
          ];
        }
        mixTone(rgb, r * k, g * k, b * k);
        if (behind && cover < 1) {
          putBehind(x, y);
          for (let c = 0; c < 3; c++) out[o + c] = lookUp(TONE, rgb[c]!) * cover + back[c]! * (1 - cover);
          out[o + 3] = 1;
        } else {
          for (let c = 0; c < 3; c++) out[o + c] = lookUp(TONE, rgb[c]!);
          out[o + 3] = cover;
        }
      }
    }
  };
}

/**
 * Mean radiance of a tile as rgba f32 (alpha the coverage); clear film has what stands before the surroundings only,
 * premultiplied as OpenEXR wants it.
 */
export function linearTile(
  tile: Float32Array,
  pixels: number,
  samples: number,
  clear: boolean,
  out: Float32Array
): void {
  const k = samples > 0 ? 1 / samples : 0;
  for (let i = 0; i < pixels; i++) {
    const p = i * CHANNELS;
    for (let c = 0; c < 3; c++)
      out[i * 4 + c] = (tile[p + EVEN + c]! + tile[p + ODD + c]! - (clear ? tile[p + BACKDROP + c]! : 0)) * k;
    out[i * 4 + 3] = clear ? Math.min(1, Math.max(0, 1 - tile[p + BACKDROP_SHARE]! * k)) : 1;
  }
}
