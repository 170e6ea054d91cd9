/**
 * Our own denoising filter: fast, for looks while the picture comes and where the learned one cannot be had. Radiance is divided by
 * reflectance, smoothed by an edge-avoiding a-trous wavelet transform, and multiplied back. What a tap counts falls with its difference in
 * normal and reflectance, and in luminance measured against the standard error that the two halves of the film give.
 * Sources: Dammertz et al. 2010, Edge-Avoiding A-Trous Wavelet Transform for fast Global Illumination Filtering; Schied et al. 2017,
 * Spatiotemporal Variance-Guided Filtering (the luminance weight and how variance is carried on; ours is of one frame).
 * Cost: 25 taps a level and pixel, 9 with one sample a pixel, where time counts most; the levels are the kernel's (kernel/host/guided-filter.ts), the smoother here is their slow
 * reference. It looks 64 px far and the 3 of its error estimate.
 * Limits: shadows softer than the grain lose their edge, light behind glass that follows no feature is smeared; the learned filter keeps both.
 */
import { luminanceAt } from '../../color/spaces';
import type { Filter } from './filter';

const LEVELS = 5;
/** A difference of so many standard errors weighs 1/e. */
export const ERRORS = 5;
// Squared differences of reflectance and of normals (0 to 4) that weigh 1/e are one over these.
const REFLECTANCE_FALL = 12;
const NORMAL_FALL = 4;
/** A pixel is alone when all taps together weigh less than this (itself 0.14, all alike 1); its guides then count so much. */
export const LONE = 0.4;
export const LONE_EASE = 0.1;
// Darker than this is not divided by: what a black surface mirrors is no light upon it.
const LEAST_REFLECTANCE = 0.04;
// With one sample a pixel luminance says nothing before so many levels have joined some.
const BLIND_LEVELS = 3;
/** Floats a pixel: light r, g, b, squared standard error of its luminance. */
export const LIGHT = 4;
/** Floats a pixel: reflectance 3, normal 3, both scaled so that a squared difference of 1 weighs 1/e, room for a luminance, nothing. */
export const GUIDES = 8;

/** Does the levels. Slots: 0 and 1 hold light in turn, 2 a first idea of it. */
export interface Smoother {
  begin(light: Float32Array, guides: Float32Array, width: number, height: number): void;
  /** One level from slot to slot, taps `step` px apart, `radius` to each side; pixels are compared by the luminance of slot `known` too, unless it is null. */
  smooth(from: Slot, known: Slot | null, to: Slot, step: number, radius: 1 | 2): void;
  read(slot: Slot): Float32Array;
}
export type Slot = 0 | 1 | 2;

const REACH_PX = 80;

export const createGuidedFilter = (smoother: Smoother): Filter => ({
  channels: 10,
  linear: true,
  reachPx: REACH_PX,
  async run(planes, height, width) {
    const plane = width * height;
    const reflectance = new Float32Array(plane * 3);
    const guides = new Float32Array(plane * GUIDES);
    const light = new Float32Array(plane * LIGHT);
    for (let i = 0; i < plane; i++) {
      const r = i * 3;
      const o = i * LIGHT;
      for (let c = 0; c < 3; c++) {
        reflectance[r + c] = Math.max(planes[(3 + c) * plane + i]!, LEAST_REFLECTANCE);
        guides[i * GUIDES + 3 + c] = (planes[(6 + c) * plane + i]! * 2 - 1) * Math.sqrt(NORMAL_FALL);
        light[o + c] = planes[c * plane + i]! / reflectance[r + c]!;
      }
      const error = planes[9 * plane + i]!;
      light[o + 3] = error < 0 ? -1 : error / luminanceAt(reflectance, r) ** 2;
    }
    const blind = !(light[3]! >= 0);
    despeckle(light, width, height, blind ? 6 : 2);
    smoothErrors(light, width, height, blind);
    for (let i = 0; i < plane; i++) for (let c = 0; c < 3; c++) guides[i * GUIDES + c] = reflectance[i * 3 + c]! * Math.sqrt(REFLECTANCE_FALL);
    // with one sample a pixel the guides are grain themselves where light may go two ways, as at glass
    if (blind) for (const along of [1, width]) blur(guides, width, height, along);
    smoother.begin(light, guides, width, height);
    // a first idea of the luminance, by the guides alone: a single pixel's own is too noisy to compare others with
    if (!blind) smoother.smooth(0, null, 2, 1, 2);
    let at: 0 | 1 = 0;
    for (let level = 0; level < LEVELS; level++) {
      const known = blind && level < BLIND_LEVELS ? null : level === 0 ? 2 : at;
      smoother.smooth(at, known, at === 0 ? 1 : 0, 1 << level, blind ? 1 : 2);
      at = at === 0 ? 1 : 0;
    }
    const smoothed = smoother.read(at);
    const out = new Float32Array(3 * plane);
    // what was divided by was each pixel's own; what it is multiplied by is what its guides have become
    for (let i = 0; i < plane; i++) for (let c = 0; c < 3; c++) out[c * plane + i] = (smoothed[i * LIGHT + c]! * guides[i * GUIDES + c]!) / Math.sqrt(REFLECTANCE_FALL);
    return out;
  }
});

/** The guides' means with their neighbours before and behind along rows (1) or columns (the width), weighted 1 2 1. */
function blur(guides: Float32Array, width: number, height: number, along: number): void {
  const from = guides.slice();
  for (let i = 0; i < width * height; i++) {
    const before = along === 1 ? (i % width === 0 ? i : i - 1) : i < width ? i : i - width;
    const behind = along === 1 ? (i % width === width - 1 ? i : i + 1) : i + width < width * height ? i + width : i;
    for (let c = 0; c < 6; c++) guides[i * GUIDES + c] = (from[before * GUIDES + c]! + 2 * from[i * GUIDES + c]! + from[behind * GUIDES + c]!) / 4;
  }
}

/** A pixel much brighter than all but one around it is dimmed to a multiple of the second brightest: one stray sample would become a blot. */
function despeckle(light: Float32Array, width: number, height: number, times: number): void {
  const lum = new Float32Array(width * height);
  for (let i = 0; i < lum.length; i++) lum[i] = luminanceAt(light, i * LIGHT);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const o = i * LIGHT;
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
      for (let c = 0; c < 3; c++) light[o + c] = light[o + c]! * k;
      if (light[o + 3]! > 0) light[o + 3] = light[o + 3]! * k * k;
    }
  }
}

/** The error of one pixel by its two halves says little; the mean over 7 x 7 does. Where there is but one half, the spread of luminance there. */
function smoothErrors(light: Float32Array, width: number, height: number, blind: boolean): void {
  const first = new Float64Array(width * height);
  const second = new Float64Array(blind ? width * height : 0);
  for (let i = 0; i < width * height; i++) {
    first[i] = blind ? luminanceAt(light, i * LIGHT) : light[i * LIGHT + 3]!;
    if (blind) second[i] = first[i]! ** 2;
  }
  const mean = boxMean(first, width, height, 3);
  const squares = blind ? boxMean(second, width, height, 3) : null;
  for (let i = 0; i < width * height; i++) light[i * LIGHT + 3] = squares ? Math.max(0, squares[i]! - mean[i]! ** 2) : mean[i]!;
}

/** Mean over a square of `radius` px around, what lies outside left out. */
function boxMean(values: Float64Array, width: number, height: number, radius: number): Float64Array {
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
    for (let v = from; v <= to; v++) for (let x = 0; x < width; x++) out[y * width + x] = out[y * width + x]! + rows[v * width + x]!;
    for (let x = 0; x < width; x++) out[y * width + x] = out[y * width + x]! / (to - from + 1);
  }
  return out;
}

/** The levels in plain TypeScript: the reference of the kernel's. The weight 1 / e^x is taken as (1 - x / 4)^4 below x = 4: within 0.07 of it. */
export function createReferenceSmoother(): Smoother {
  const slots: Float32Array[] = [];
  let guides: Float32Array = new Float32Array();
  let width = 0;
  let height = 0;
  return {
    begin(light, given, w, h) {
      slots[0] = light.slice();
      for (const slot of [1, 2]) slots[slot] = new Float32Array(light.length);
      [guides, width, height] = [given, w, h];
    },
    read: (slot) => slots[slot]!,
    smooth(from, known, to, step, radius) {
      const light = slots[from]!;
      const out = slots[to]!;
      for (let i = 0; i < width * height; i++) {
        const lum = known === null ? 0 : luminanceAt(slots[known]!, i * LIGHT);
        const perError = known === null ? 0 : 1 / (ERRORS * Math.sqrt(slots[known]![i * LIGHT + 3]!) + 1e-3 * lum + 1e-9);
        const [x, y] = [i % width, Math.floor(i / width)];
        let sums = [0, 0, 0, 0, 0];
        for (let ease = 1; ; ease = LONE_EASE) {
          sums = [0, 0, 0, 0, 0];
          for (let v = -radius; v <= radius; v++) {
            for (let u = -radius; u <= radius; u++) {
              const [xx, yy] = [x + u * step, y + v * step];
              if (xx < 0 || yy < 0 || xx >= width || yy >= height) continue;
              const j = yy * width + xx;
              let far = 0;
              for (let c = 0; c < 6; c++) far += (guides[j * GUIDES + c]! - guides[i * GUIDES + c]!) ** 2 * ease;
              if (known !== null) far += Math.abs(luminanceAt(slots[known]!, j * LIGHT) - lum) * perError;
              if (far >= 4) continue;
              const w = KERNELS[radius][v + radius]! * KERNELS[radius][u + radius]! * (1 - far / 4) ** 4;
              for (let c = 0; c < 3; c++) sums[c] = sums[c]! + w * light[j * LIGHT + c]!;
              sums[3] = sums[3]! + w * w * light[j * LIGHT + 3]!;
              sums[4] = sums[4]! + w;
            }
          }
          if (step > 1 || ease < 1 || sums[4]! > LONE) break;
        }
        for (let c = 0; c < 3; c++) out[i * LIGHT + c] = sums[c]! / sums[4]!;
        out[i * LIGHT + 3] = sums[3]! / sums[4]! ** 2;
      }
    }
  };
}

// By radius: a binomial, the B3 spline.
const KERNELS = { 1: [1 / 4, 1 / 2, 1 / 4], 2: [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16] } as const;
