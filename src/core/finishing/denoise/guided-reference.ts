/** What the guided filter does to pixels, in plain TypeScript: slow, and what the kernel's is held to. */
import { LUMINANCE_REC709 } from '../../color/spaces';
import {
  BLIND_SPECK,
  ERRORS,
  GUIDES,
  type GuidedSteps,
  MIN_REFLECTANCE,
  LIGHT,
  LONE,
  LONE_EASE,
  NORMAL_SCALE,
  REFLECTANCE_SCALE,
  SPECK
} from './guided';

/** Light over reflectance, its error, and the guides. */
function divide(planes: Float32Array, plane: number, light: Float32Array, guides: Float32Array, blind: boolean): void {
  for (let at = 0; at < 3 * plane; at++) {
    const reflectance = Math.max(planes[3 * plane + at]!, MIN_REFLECTANCE);
    light[at] = planes[at]! / reflectance;
    guides[at] = reflectance * REFLECTANCE_SCALE;
    guides[3 * plane + at] = (planes[6 * plane + at]! * 2 - 1) * NORMAL_SCALE;
  }
  const reflected = luminances(guides, plane);
  for (let i = 0; i < plane; i++)
    light[3 * plane + i] = blind ? -1 : planes[9 * plane + i]! / (reflected[i]! / REFLECTANCE_SCALE) ** 2;
}

/** Of the first three planes. */
function luminances(planes: Float32Array, plane: number): Float32Array {
  const [r, g, b] = LUMINANCE_REC709;
  const out = new Float32Array(plane);
  for (let i = 0; i < plane; i++) out[i] = r * planes[i]! + g * planes[plane + i]! + b * planes[2 * plane + i]!;
  return out;
}

/** The guides' means with their neighbours before and behind along rows (1) or columns (the width), weighted 1 2 1. */
function blur(guides: Float32Array, width: number, height: number, along: number): void {
  const plane = width * height;
  const from = guides.slice();
  const last = (along === 1 ? width : height) - 1;
  for (let i = 0, y = 0; i < GUIDES * plane; y = y === height - 1 ? 0 : y + 1) {
    for (let x = 0; x < width; x++, i++) {
      const at = along === 1 ? x : y;
      guides[i] = (from[at === 0 ? i : i - along]! + 2 * from[i]! + from[at === last ? i : i + along]!) / 4;
    }
  }
}

/**
 * A pixel much brighter than all but one around it is dimmed to a multiple of the second brightest: one stray sample
 * would become a blot.
 */
function despeckle(light: Float32Array, width: number, height: number, times: number): void {
  const plane = width * height;
  const lum = luminances(light, plane);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      let most = 0;
      let second = 0;
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
        for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
          const l = lum[v * width + u]!;
          if (l <= second || (u === x && v === y)) continue;
          second = Math.min(most, l);
          most = Math.max(most, l);
        }
      }
      if (!(lum[i]! > times * second)) continue;
      const k = (times * second) / lum[i]!;
      for (let c = 0; c < 3; c++) light[c * plane + i] = light[c * plane + i]! * k;
      const e = 3 * plane + i;
      if (light[e]! > 0) light[e] = light[e]! * k * k;
    }
  }
}

/**
 * The error of one pixel by its two halves says little; the mean over 7 x 7 does. Where there is but one half, the
 * spread of luminance there.
 */
function smoothErrors(light: Float32Array, width: number, height: number, blind: boolean): void {
  const plane = width * height;
  const errors = light.subarray(3 * plane);
  if (!blind) {
    errors.set(boxMean(errors, width, height, 3));
    return;
  }
  const lum = luminances(light, plane);
  const mean = boxMean(lum, width, height, 3);
  for (let i = 0; i < plane; i++) lum[i] = lum[i]! ** 2;
  const squares = boxMean(lum, width, height, 3);
  for (let i = 0; i < plane; i++) errors[i] = Math.max(0, squares[i]! - mean[i]! ** 2);
}

/** Mean over a square of `radius` px around, what lies outside left out. */
function boxMean(values: Float32Array, width: number, height: number, radius: number): Float64Array {
  const rows = new Float64Array(values.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let sum = 0;
      const from = Math.max(0, x - radius);
      const to = Math.min(width - 1, x + radius);
      for (let u = from; u <= to; u++) sum += values[y * width + u]!;
      rows[y * width + x] = sum / (to - from + 1);
    }
  }
  const out = new Float64Array(values.length);
  for (let y = 0; y < height; y++) {
    const from = Math.max(0, y - radius);
    const to = Math.min(height - 1, y + radius);
    for (let v = from; v <= to; v++)
      for (let x = 0; x < width; x++) out[y * width + x] = out[y * width + x]! + rows[v * width + x]!;
    for (let x = 0; x < width; x++) out[y * width + x] = out[y * width + x]! / (to - from + 1);
  }
  return out;
}

/** The weight 1 / e^x is taken as (1 - x / 4)^4 below x = 4: within 0.07 of it. */
export function createReferenceSteps(): GuidedSteps {
  const slots: Float32Array[] = [];
  let guides: Float32Array = new Float32Array();
  let width = 0;
  let height = 0;
  return {
    prepare(planes, w, h, blind) {
      [width, height] = [w, h];
      const plane = w * h;
      guides = new Float32Array(plane * GUIDES);
      for (const slot of [0, 1, 2]) slots[slot] = new Float32Array(plane * LIGHT);
      const light = slots[0]!;
      divide(planes, plane, light, guides, blind);
      despeckle(light, width, height, blind ? BLIND_SPECK : SPECK);
      smoothErrors(light, width, height, blind);
      if (blind) for (const along of [1, width]) blur(guides, width, height, along);
    },
    finish: (slot) =>
      slots[slot]!.slice(0, 3 * width * height).map((light, i) => light * (guides[i]! / REFLECTANCE_SCALE)),
    smooth(from, known, to, step, radius) {
      const plane = width * height;
      const light = slots[from]!;
      const out = slots[to]!;
      const lum = known === null ? new Float32Array(plane) : luminances(slots[known]!, plane);
      for (let i = 0; i < plane; i++) {
        const perError =
          known === null ? 0 : 1 / (ERRORS * Math.sqrt(slots[known]![3 * plane + i]!) + 1e-3 * lum[i]! + 1e-9);
        const [x, y] = [i % width, Math.floor(i / width)];
        let sums = [0, 0, 0, 0, 0];
        for (let ease = 1; ; ease = LONE_EASE) {
          sums = [0, 0, 0, 0, 0];
          for (let v = -radius; v <= radius; v++) {
            for (let u = -radius; u <= radius; u++) {
              const [xx, yy] = [x + u * step, y + v * step];
              if (xx < 0 || yy < 0 || xx >= width || yy >= height) continue;
              const j = yy * width + xx;
              let far = Math.abs(lum[j]! - lum[i]!) * perError;
              for (let c = 0; c < GUIDES * plane; c += plane) far += (guides[c + j]! - guides[c + i]!) ** 2 * ease;
              if (far >= 4) continue;
              const w = KERNELS[radius][v + radius]! * KERNELS[radius][u + radius]! * (1 - far / 4) ** 4;
              for (let c = 0; c < 3; c++) sums[c] = sums[c]! + w * light[c * plane + j]!;
              sums[3] = sums[3]! + w * w * light[3 * plane + j]!;
              sums[4] = sums[4]! + w;
            }
          }
          if (step > 1 || ease < 1 || sums[4]! > LONE) break;
        }
        for (let c = 0; c < 3; c++) out[c * plane + i] = sums[c]! / sums[4]!;
        out[3 * plane + i] = sums[3]! / sums[4]! ** 2;
      }
    }
  };
}

// By radius: a binomial, the B3 spline.
const KERNELS = { 1: [1 / 4, 1 / 2, 1 / 4], 2: [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16] } as const;
