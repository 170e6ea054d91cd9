/**
 * What is done to the surface of a developed picture: sharpening, and a texture of film or paper. Adjustments over rows
 * of displayed light (float-rows.ts).
 */
import type { Finish } from '../brief/brief';
import { lightness, luminanceOfLightness } from '../color/lightness';
import { luminanceAt } from '../color/spaces';
import { lookUp, tableOf } from '../math/curve-table';
import { valueNoise } from '../math/value-noise';
import type { Adjustment } from './float-rows';

// Of a shrunk picture, a radius of less than this is nothing that its pixels can show.
const LEAST_PX = 0.3;

/** `height`: of the sheet, px of the picture. `scale`: pixels of the picture to one of the film. */
export function surfaceAdjustments({ surface }: Finish, height: number, scale: number): Adjustment[] {
  const { sharpen, sharpen_px, texture, texture_amount } = surface;
  const radius = sharpen_px * scale;
  return [
    ...(sharpen > 0 && radius >= LEAST_PX ? [sharpening(sharpen, radius)] : []),
    ...(texture !== 'none' && texture_amount > 0 ? [textured(texture, texture_amount, height)] : [])
  ];
}

const LIGHTNESS = tableOf(lightness);
const lightnessOf = (rows: Float32Array, p: number) => lookUp(LIGHTNESS, luminanceAt(rows, p));

/** Gives a place another lightness, L*, in its own colour. */
function setLightness(out: Float32Array, o: number, from: Float32Array, p: number, to: number): void {
  const y = luminanceAt(from, p);
  const wanted = luminanceOfLightness(Math.min(100, Math.max(0, to)));
  if (y <= 1e-6) {
    out.fill(wanted, o, o + 3);
    return;
  }
  const k = wanted / y;
  for (let c = 0; c < 3; c++) out[o + c] = Math.min(1, from[p + c]! * k);
}

/**
 * Adds to each lightness `amount` of its difference from a blurred one (unsharp masking, a darkroom practice), but never
 * beyond the lightest and darkest of its neighbours: edges grow steeper and get no halos.
 */
function sharpening(amount: number, radius: number): Adjustment {
  const halo = Math.ceil(radius * 2);
  const weights = Array.from({ length: halo + 1 }, (_, i) => Math.exp(-(i * i) / (2 * radius * radius)));
  const whole = weights.reduce((sum, w, i) => sum + (i === 0 ? w : 2 * w), 0);
  // within which nothing may become lighter or darker than what is there
  const near = Math.max(1, Math.round(radius));
  return {
    halo: Math.max(halo, near),
    apply: (source, out, { width, first, count }) => {
      const rows = source.length / (width * 4);
      const light = new Float32Array(rows * width);
      for (let i = 0; i < light.length; i++) light[i] = lightnessOf(source, i * 4);
      const across = new Float32Array(light.length);
      for (let y = 0; y < rows; y++)
        for (let x = 0; x < width; x++) {
          let sum = weights[0]! * light[y * width + x]!;
          for (let d = 1; d <= halo; d++)
            sum +=
              weights[d]! * (light[y * width + Math.max(0, x - d)]! + light[y * width + Math.min(width - 1, x + d)]!);
          across[y * width + x] = sum / whole;
        }
      for (let y = 0; y < count; y++)
        for (let x = 0; x < width; x++) {
          const row = first + y;
          const at = row * width + x;
          let sum = weights[0]! * across[at]!;
          for (let d = 1; d <= halo; d++)
            sum +=
              weights[d]! *
              (across[Math.max(0, row - d) * width + x]! + across[Math.min(rows - 1, row + d) * width + x]!);
          const own = light[at]!;
          let [low, high] = [own, own];
          for (let v = Math.max(0, row - near); v <= Math.min(rows - 1, row + near); v++)
            for (let u = Math.max(0, x - near); u <= Math.min(width - 1, x + near); u++) {
              const l = light[v * width + u]!;
              if (l < low) low = l;
              else if (l > high) high = l;
            }
          const o = (y * width + x) * 4;
          const sharper = own + amount * (own - sum / whole);
          setLightness(out, o, source, at * 4, Math.min(high, Math.max(low, sharper)));
          out[o + 3] = source[at * 4 + 3]!;
        }
    }
  };
}

/** Cells of a texture to the picture's height, and what each weighs. */
const TEXTURES = {
  film: [
    { cells: 900, weight: 0.65 },
    { cells: 400, weight: 0.35 }
  ],
  paper: [
    { cells: 700, weight: 0.4 },
    { cells: 220, weight: 0.6 }
  ]
} as const;
// The spread of value noise between -1 and 1.
const NOISE_SPREAD = 0.35;

/** Film has its grain in the mid tones, where silver and its lack are mixed; paper has it everywhere. */
function textured(kind: 'film' | 'paper', amount: number, height: number): Adjustment {
  return {
    halo: 0,
    apply: (source, out, { width, first, count, y: top }) => {
      for (let y = 0; y < count; y++)
        for (let x = 0; x < width; x++) {
          const p = ((first + y) * width + x) * 4;
          const o = (y * width + x) * 4;
          const own = lightnessOf(source, p);
          let noise = 0;
          for (const [i, { cells, weight }] of TEXTURES[kind].entries())
            noise += weight * (2 * valueNoise((x * cells) / height, ((top + y) * cells) / height, 301 + i) - 1);
          const share = kind === 'film' ? (4 * own * (100 - own)) / 10_000 : 1;
          setLightness(out, o, source, p, own + (noise * share * amount) / NOISE_SPREAD);
          out[o + 3] = source[p + 3]!;
        }
    }
  };
}
