/**
 * Film to displayed pixels: mean of the samples, exposure, white balance, tone curve, sRGB, background. One tile at a
 * time, so a sheet of any size needs little memory. The film is never changed.
 */
import { encodeSrgb } from '../color/srgb';
import { mixTone, toneCurve } from '../color/tone';
import { balanceMatrix } from '../color/white-balance';
import type { Finish } from '../brief/brief';
import { CHANNELS, type TileRect } from '../film/film';
import { type SheetShare, WHOLE_SHEET } from '../output/size';
import { type BackdropImage, behindOf } from './background';

// Encoding by table: 4096 steps of linear light, finer than 8 bits need anywhere but in the deepest shadow, which has
// its own.
const STEPS = 4096;
const CODES = Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * encodeSrgb(i / STEPS)));
function code(linear: number): number {
  if (linear >= 1) return 255;
  return linear < 0.02 ? Math.round(255 * encodeSrgb(Math.max(0, linear))) : CODES[Math.round(linear * STEPS)]!;
}

// The code that the tone curve makes of a scene value, kept by the leading bits of the value's float: 512 steps an
// octave, most of which have one code alone. In the others it is reckoned anew, so that the result is that of the
// curve, in a third of the time.
const DROPPED_BITS = 14;
const UNKNOWN = 256;
const SEVERAL = 257;
const tonedCodes = new Uint16Array(1 << (31 - DROPPED_BITS)).fill(UNKNOWN);
const float = new Float32Array(1);
const bits = new Uint32Array(float.buffer);
/** Largest rounding of a float, relative. */
const HALF_ULP = 2 ** -24;

function tonedCode(scene: number): number {
  if (!(scene > 0)) return 0;
  float[0] = scene;
  const at = bits[0]! >>> DROPPED_BITS;
  const known = tonedCodes[at]!;
  if (known < UNKNOWN) return known;
  const exact = code(toneCurve(scene));
  if (known === UNKNOWN) {
    bits[0] = at << DROPPED_BITS;
    const least = code(toneCurve(float[0] * (1 - HALF_ULP)));
    bits[0] = (at + 1) << DROPPED_BITS;
    tonedCodes[at] = least === code(toneCurve(float[0])) ? least : SEVERAL;
  }
  return exact;
}

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
 * Writes a tile's pixels as rgba8 into `out`, which holds whole rows of the picture from row `from` on. Colours under
 * partial coverage are not premultiplied.
 */
export type DevelopTile = (tile: FilmTile, out: Uint8Array, from?: number) => void;

export function createDeveloper({
  width: pictureWidth,
  height: pictureHeight,
  white,
  finish,
  within = WHOLE_SHEET,
  backdrop = null
}: Development): DevelopTile {
  const { background } = finish;
  const behind = behindOf(background, (pictureWidth * within.height) / (pictureHeight * within.width), backdrop);
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
        let r = tile[p]! + tile[p + 3]!;
        let g = tile[p + 1]! + tile[p + 4]!;
        let b = tile[p + 2]! + tile[p + 5]!;
        let cover = 1;
        if (clear) {
          cover = samples > 0 ? Math.min(1, Math.max(0, 1 - tile[p + 9]! / samples)) : 0;
          if (cover < 1 / 512) {
            if (behind) {
              putBehind(x, y);
              for (let c = 0; c < 3; c++) out[o + c] = code(back[c]!);
              out[o + 3] = 255;
            } else out.fill(0, o, o + 4);
            continue;
          }
          r = (r - tile[p + 6]!) / cover;
          g = (g - tile[p + 7]!) / cover;
          b = (b - tile[p + 8]!) / cover;
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
          for (let c = 0; c < 3; c++) out[o + c] = code(toneCurve(rgb[c]!) * cover + back[c]! * (1 - cover));
          cover = 1;
        } else for (let c = 0; c < 3; c++) out[o + c] = tonedCode(rgb[c]!);
        out[o + 3] = Math.round(cover * 255);
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
    for (let c = 0; c < 3; c++) out[i * 4 + c] = (tile[p + c]! + tile[p + 3 + c]! - (clear ? tile[p + 6 + c]! : 0)) * k;
    out[i * 4 + 3] = clear ? Math.min(1, Math.max(0, 1 - tile[p + 9]! * k)) : 1;
  }
}
