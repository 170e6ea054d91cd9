/**
 * The light of a film to displayed light: what lies behind taken away or put there, and the finish of each place
 * (grade.ts). One tile at a time, so a sheet of any size needs little memory. The film is never changed. What comes out
 * is linear light, 0 to 1, in the primaries of sRGB; encode-rows.ts makes codes of it.
 */
import type { Finish } from '../brief/brief';
import type { ColourTable } from '../color/table';
import { BACKDROP, BACKDROP_SHARE, CHANNELS, EVEN, ODD } from '../film/film';
import { BEHIND, BEHIND_SHARE, LIGHT } from '../film/light';
import { type SheetShare, WHOLE_SHEET } from '../output/size';
import type { Around } from './around';
import { type BackdropImage, backgroundShader } from './background';
import { createGrade, type Gamut } from './grade';

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
  /** Of finishes that look at the whole picture; without it they do not. */
  around?: Around;
  /** Of finishes that name one; without it they are shown without. */
  table?: ColourTable | null;
  /** How far colours may go; within sRGB when that is not said. */
  gamut?: Gamut;
}

/** A rectangle of a picture with its light, LIGHT floats a pixel. */
export interface LightTile {
  x: number;
  y: number;
  width: number;
  height: number;
  light: Float32Array;
}

/**
 * Writes a tile's pixels as rgba f32 into `out`, which holds whole rows of the picture from row `from` on. Colours under
 * partial coverage are not premultiplied.
 */
export type DevelopTile = (tile: LightTile, out: Float32Array, from?: number) => void;

// Less coverage than this is none.
const MIN_COVER = 1 / 512;

export function createDeveloper({
  width: pictureWidth,
  height: pictureHeight,
  white,
  finish,
  within = WHOLE_SHEET,
  backdrop = null,
  around,
  table = null,
  gamut = 'srgb'
}: Development): DevelopTile {
  const { background } = finish;
  const aspect = (pictureWidth * within.height) / (pictureHeight * within.width);
  const behind = backgroundShader(background, aspect, backdrop);
  const clear = behind !== null || background.kind === 'clear';
  const grade = createGrade(finish, white, aspect, around, table, gamut);
  const back: number[] = [0, 0, 0];
  const rgb = new Float64Array(3);
  return ({ x: left, y: top, width, height, light }, out, from = 0) => {
    for (let y = 0; y < height; y++) {
      const v = (top + y + 0.5) / pictureHeight;
      const sheetY = within.y + within.height * v;
      for (let x = 0; x < width; x++) {
        const p = (y * width + x) * LIGHT;
        const o = ((top - from + y) * pictureWidth + left + x) * 4;
        const u = (left + x + 0.5) / pictureWidth;
        const sheetX = within.x + within.width * u;
        let cover = 1;
        if (clear) {
          cover = Math.min(1, Math.max(0, 1 - light[p + BEHIND_SHARE]!));
          if (cover < MIN_COVER) {
            if (behind) {
              behind(sheetX, sheetY, back);
              for (let c = 0; c < 3; c++) out[o + c] = back[c]!;
              out[o + 3] = 1;
            } else out.fill(0, o, o + 4);
            continue;
          }
          for (let c = 0; c < 3; c++) rgb[c] = (light[p + c]! - light[p + BEHIND + c]!) / cover;
        } else for (let c = 0; c < 3; c++) rgb[c] = light[p + c]!;
        grade(rgb, u, v, sheetX, sheetY);
        if (behind && cover < 1) {
          behind(sheetX, sheetY, back);
          for (let c = 0; c < 3; c++) out[o + c] = rgb[c]! * cover + back[c]! * (1 - cover);
          out[o + 3] = 1;
        } else {
          for (let c = 0; c < 3; c++) out[o + c] = rgb[c]!;
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
