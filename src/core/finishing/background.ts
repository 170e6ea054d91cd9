/**
 * What is put behind the model in the finish: an even grey, two colours that grade into each other, paper, or a
 * picture. Displayed values, linear, by place in the picture alone, so that it is the same in a tile, a small look and
 * a large sheet.
 */
import type { Background, PictureBackground } from '../brief/brief';
import type { Corner } from '../catalogue/corners';
import { luminanceOfLightness } from '../color/lightness';
import { decodeSrgb, srgbOfHex } from '../color/srgb';
import { valueNoise } from '../math/value-noise';
import type { SheetShare } from '../output/size';

/** Writes three linear values, 0 to 1, for a place of the picture whose corners are 0, 0 and 1, 1. */
export type Behind = (u: number, v: number, out: number[]) => void;

/** A picture to stand behind the model, as large as it will be seen or smaller: rgba8, encoded sRGB, alpha not used. */
export interface BackdropImage {
  width: number;
  height: number;
  pixels: Uint8Array;
}

/** Null where the surroundings are seen, or nothing is. `aspect`: width over height of the sheet. */
export function backgroundShader(
  background: Background,
  aspect: number,
  image: BackdropImage | null = null
): Behind | null {
  switch (background.kind) {
    case 'plain': {
      const value = luminanceOfLightness(background.lightness);
      return (_u, _v, out) => out.fill(value, 0, 3);
    }
    case 'graded':
      return graded(
        srgbOfHex(background.from),
        srgbOfHex(background.to),
        background.angle_deg,
        background.spread,
        aspect
      );
    case 'paper':
      return paper(background.lightness, background.corner, background.fall, background.grain, aspect);
    case 'picture':
      return image && pictured(image, background, aspect);
    case 'own':
    case 'clear':
      return null;
  }
}

/**
 * From one colour to the other along a direction (0 downward, 90 to the right), over a share of the picture about its
 * middle; even steps to the eye, as sRGB has them.
 */
function graded(
  from: readonly number[],
  to: readonly number[],
  angle_deg: number,
  spread: number,
  aspect: number
): Behind {
  const angle = (angle_deg * Math.PI) / 180;
  const [x, y] = [Math.sin(angle), Math.cos(angle)];
  const reach = (Math.abs(x) * aspect + Math.abs(y)) * Math.max(spread, 1e-3);
  return (u, v, out) => {
    const t = smooth(0.5 + ((u - 0.5) * aspect * x + (v - 0.5) * y) / reach);
    for (let c = 0; c < 3; c++) out[c] = decodeSrgb(Math.min(1, Math.max(0, from[c]! + (to[c]! - from[c]!) * t)));
  };
}

// Cells of paper's grain to the picture's height, and what each weighs.
const CELLS = [
  { count: 220, weight: 0.5 },
  { count: 700, weight: 0.5 }
];

/**
 * A sheet of a lightness, L*, that grows lighter (or darker) by `fall` towards a corner and has a fine grain of `grain`
 * L*.
 */
function paper(lightness: number, corner: Corner | null, fall: number, grain: number, aspect: number): Behind {
  const [toRight, toBottom] = [corner?.endsWith('right') ?? false, corner?.startsWith('lower') ?? false];
  return (u, v, out) => {
    const near =
      corner === null
        ? 0
        : 1 - Math.hypot((toRight ? 1 - u : u) * aspect, toBottom ? 1 - v : v) / Math.hypot(aspect, 1);
    let fine = 0;
    for (const [i, { count, weight }] of CELLS.entries())
      fine += weight * (2 * valueNoise(u * aspect * count, v * count, 101 + i) - 1);
    const value = luminanceOfLightness(Math.min(100, Math.max(0, lightness + fall * smooth(near) + grain * fine)));
    out.fill(value, 0, 3);
  };
}

/**
 * What of a picture is seen on a sheet that it covers: its corner and size, as shares of the picture. `aspect`: width
 * over height of the sheet.
 */
export function coveredPart(
  image: { width: number; height: number },
  { across, down, enlarged }: Pick<PictureBackground, 'across' | 'down' | 'enlarged'>,
  aspect: number
): SheetShare {
  const own = image.width / image.height;
  const [width, height] =
    own > aspect ? [aspect / own / enlarged, 1 / enlarged] : [1 / enlarged, own / aspect / enlarged];
  return { x: (1 - width) * across, y: (1 - height) * down, width, height };
}

/**
 * How large a picture is best read for a sheet of so many pixels: so that one of it is one of the sheet's, and never
 * larger than it is.
 */
export function backdropPixels(
  image: { width: number; height: number },
  { enlarged }: Pick<PictureBackground, 'enlarged'>,
  width: number,
  height: number
): { width: number; height: number } {
  const scale = Math.min(1, enlarged * Math.max(width / image.width, height / image.height));
  return { width: Math.max(1, Math.round(image.width * scale)), height: Math.max(1, Math.round(image.height * scale)) };
}

const DECODED = Float32Array.from({ length: 256 }, (_, i) => decodeSrgb(i / 255));

/** A place beyond one end, mirrored at it. */
const mirrored = (i: number, count: number) => {
  const j = i < 0 ? -1 - i : i >= count ? 2 * count - 1 - i : i;
  return Math.min(count - 1, Math.max(0, j));
};

/**
 * A picture that covers the sheet, by cubic convolution (Keys 1981, a = -1/2) of linear light; what is smaller than a
 * pixel must be gone before. In the bleed it goes on mirrored, so that it lies the same with bleed and without.
 */
function pictured(image: BackdropImage, background: PictureBackground, aspect: number): Behind {
  const { width, height, pixels } = image;
  const part = coveredPart(image, background, aspect);
  const gain = 2 ** background.lighter_ev;
  const [across, down] = [new Float64Array(4), new Float64Array(4)];
  return (u, v, out) => {
    const x = (part.x + u * part.width) * width - 0.5;
    const y = (part.y + v * part.height) * height - 0.5;
    const [i, j] = [Math.floor(x), Math.floor(y)];
    cubicWeights(x - i, across);
    cubicWeights(y - j, down);
    let [r, g, b] = [0, 0, 0];
    for (let n = 0; n < 4; n++) {
      const row = mirrored(j + n - 1, height) * width;
      for (let m = 0; m < 4; m++) {
        const p = (row + mirrored(i + m - 1, width)) * 4;
        const w = across[m]! * down[n]!;
        r += w * DECODED[pixels[p]!]!;
        g += w * DECODED[pixels[p + 1]!]!;
        b += w * DECODED[pixels[p + 2]!]!;
      }
    }
    out[0] = Math.min(1, Math.max(0, r * gain));
    out[1] = Math.min(1, Math.max(0, g * gain));
    out[2] = Math.min(1, Math.max(0, b * gain));
  };
}

/** Of the values at -1, 0, 1 and 2 for a place `t` between 0 and 1. */
function cubicWeights(t: number, out: Float64Array): void {
  out[0] = t * (-0.5 + t * (1 - 0.5 * t));
  out[1] = 1 + t * t * (-2.5 + 1.5 * t);
  out[2] = t * (0.5 + t * (2 - 1.5 * t));
  out[3] = t * t * (-0.5 + 0.5 * t);
}

function smooth(t: number): number {
  const x = Math.min(1, Math.max(0, t));
  return x * x * (3 - 2 * x);
}
