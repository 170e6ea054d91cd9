/**
 * Our own denoising filter: fast, for looks while the picture comes and where the learned one cannot be had. Radiance is divided by
 * reflectance, smoothed by an edge-avoiding a-trous wavelet transform, and multiplied back. What a tap counts falls with its difference in
 * normal and reflectance, and in luminance measured against the standard error that the two halves of the film give.
 * Sources: Dammertz et al. 2010, Edge-Avoiding A-Trous Wavelet Transform for fast Global Illumination Filtering; Schied et al. 2017,
 * Spatiotemporal Variance-Guided Filtering (the luminance weight and how variance is carried on; ours is of one frame).
 * Cost: 25 taps a level and pixel, about 1.3 s a megapixel. Reach: 62 px and the 3 of its error estimate, below HALO_PX.
 * Limits: shadows softer than the grain lose their edge, light behind glass that follows no feature is smeared; the learned filter keeps both.
 */
import type { Filter } from './filter';

const LEVELS = 5;
// B3 spline.
const SPLINE = [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16];
// A difference of so many standard errors weighs 1/e.
const ERRORS = 5;
// Squared differences of reflectance and of normals (0 to 4) that weigh 1/e are one over these.
const REFLECTANCE_FALL = 12;
const NORMAL_FALL = 4;
// A pixel is alone when all taps together weigh less than this (itself 0.14, all alike 1); its guides then count so much.
const LONE = 0.4;
const LONE_EASE = 0.1;
// Darker than this is not divided by: what a black surface mirrors is no light upon it.
const LEAST_REFLECTANCE = 0.04;
// With one sample a pixel luminance says nothing before so many levels have joined some.
const BLIND_LEVELS = 3;
// Interleaved: light r, g, b, its luminance, squared standard error of that; guides reflectance 3, normal 3.
const LIGHT = 5;
const GUIDES = 6;

export const guidedFilter: Filter = {
  channels: 10,
  linear: true,
  async run(planes, height, width) {
    const plane = width * height;
    const guides = new Float32Array(plane * GUIDES);
    let light = new Float32Array(plane * LIGHT);
    for (let i = 0; i < plane; i++) {
      const g = i * GUIDES;
      const o = i * LIGHT;
      for (let c = 0; c < 3; c++) {
        const reflectance = Math.max(planes[(3 + c) * plane + i]!, LEAST_REFLECTANCE);
        guides[g + c] = reflectance;
        guides[g + 3 + c] = planes[(6 + c) * plane + i]! * 2 - 1;
        light[o + c] = planes[c * plane + i]! / reflectance;
      }
      const reflected = 0.2126 * guides[g]! + 0.7152 * guides[g + 1]! + 0.0722 * guides[g + 2]!;
      light[o + 3] = 0.2126 * light[o]! + 0.7152 * light[o + 1]! + 0.0722 * light[o + 2]!;
      const error = planes[9 * plane + i]!;
      light[o + 4] = error < 0 ? -1 : error / (reflected * reflected);
    }
    const blind = !(light[4]! >= 0);
    // with one sample a pixel the guides are grain themselves where light may go two ways, as at glass
    if (blind) blur(guides, width, height);
    despeckle(light, width, height, blind ? 6 : 2);
    smoothErrors(light, width, height);
    // a first idea of the luminance, by the guides alone: a single pixel's own is too noisy to compare others with
    let idea = light;
    for (let level = 0; level < (blind ? BLIND_LEVELS : 1); level++) {
      const wider = new Float32Array(plane * LIGHT);
      smooth(idea, null, guides, wider, width, height, 1 << level);
      idea = wider;
    }
    let next = new Float32Array(plane * LIGHT);
    for (let level = 0; level < LEVELS; level++) {
      smooth(light, level === 0 ? idea : light, guides, next, width, height, 1 << level);
      [light, next] = [next, light];
    }
    const out = new Float32Array(3 * plane);
    for (let i = 0; i < plane; i++) for (let c = 0; c < 3; c++) out[c * plane + i] = light[i * LIGHT + c]! * guides[i * GUIDES + c]!;
    return out;
  }
};

/** The guides' mean over 3 x 3, weighted 1 2 1. */
function blur(guides: Float32Array, width: number, height: number): void {
  const from = guides.slice();
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      for (let c = 0; c < GUIDES; c++) {
        let sum = 0;
        let weights = 0;
        for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
          for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
            const w = (u === x ? 2 : 1) * (v === y ? 2 : 1);
            sum += w * from[(v * width + u) * GUIDES + c]!;
            weights += w;
          }
        }
        guides[(y * width + x) * GUIDES + c] = sum / weights;
      }
    }
  }
}

/** A pixel brighter than all but one around it is dimmed to the second brightest: one stray sample would become a blot. */
function despeckle(light: Float32Array, width: number, height: number, times: number): void {
  const limits = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let most = 0;
      let second = 0;
      for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
        for (let u = Math.max(0, x - 1); u <= Math.min(width - 1, x + 1); u++) {
          if (u === x && v === y) continue;
          const l = light[(v * width + u) * LIGHT + 3]!;
          if (l > most) {
            second = most;
            most = l;
          } else if (l > second) second = l;
        }
      }
      limits[y * width + x] = second;
    }
  }
  for (let i = 0; i < limits.length; i++) {
    const o = i * LIGHT;
    const l = light[o + 3]!;
    if (!(l > times * limits[i]!)) continue;
    const k = (times * limits[i]!) / l;
    for (let c = 0; c < 4; c++) light[o + c] = light[o + c]! * k;
    if (light[o + 4]! > 0) light[o + 4] = light[o + 4]! * k * k;
  }
}

/** The error of one pixel by its two halves says little; the mean over 7 x 7 does. Where there is but one half, the spread of luminance there. */
function smoothErrors(light: Float32Array, width: number, height: number): void {
  const known = light[4]! >= 0;
  const moments = [0, 1].map(() => new Float64Array(width * height));
  for (let i = 0; i < width * height; i++) {
    moments[0]![i] = known ? light[i * LIGHT + 4]! : light[i * LIGHT + 3]!;
    moments[1]![i] = known ? 0 : light[i * LIGHT + 3]! ** 2;
  }
  const [first, second] = moments.map((m) => boxMean(m, width, height, 3));
  for (let i = 0; i < width * height; i++) light[i * LIGHT + 4] = known ? first![i]! : Math.max(0, second![i]! - first![i]! ** 2);
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

/** One level: taps `step` px apart. The weight 1 / e^x is taken as (1 - x / 4)^4 below x = 4: within 0.07 of it, and without its cost. */
function smooth(light: Float32Array, known: Float32Array | null, guides: Float32Array, out: Float32Array, width: number, height: number, step: number): void {
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const o = i * LIGHT;
      const g = i * GUIDES;
      const l = known ? known[o + 3]! : 0;
      const perError = known ? 1 / (ERRORS * Math.sqrt(known[o + 4]!) + 1e-3 * l + 1e-9) : 0;
      const a0 = guides[g]!;
      const a1 = guides[g + 1]!;
      const a2 = guides[g + 2]!;
      const n0 = guides[g + 3]!;
      const n1 = guides[g + 4]!;
      const n2 = guides[g + 5]!;
      let weights = 0;
      let r = 0;
      let gr = 0;
      let b = 0;
      let lum = 0;
      let error = 0;
      // a pixel that stands alone among other guides is one whose guides are grain: it is joined to its surroundings more freely
      for (let ease = 1; ; ease = LONE_EASE) {
        weights = r = gr = b = lum = error = 0;
        for (let v = -2; v <= 2; v++) {
          const yy = y + v * step;
          if (yy < 0 || yy >= height) continue;
          for (let u = -2; u <= 2; u++) {
            const xx = x + u * step;
            if (xx < 0 || xx >= width) continue;
            const j = yy * width + xx;
            const p = j * GUIDES;
            const q = j * LIGHT;
            const d0 = guides[p]! - a0;
            const d1 = guides[p + 1]! - a1;
            const d2 = guides[p + 2]! - a2;
            const e0 = guides[p + 3]! - n0;
            const e1 = guides[p + 4]! - n1;
            const e2 = guides[p + 5]! - n2;
            const dl = known ? known[q + 3]! - l : 0;
            const far = ((d0 * d0 + d1 * d1 + d2 * d2) * REFLECTANCE_FALL + (e0 * e0 + e1 * e1 + e2 * e2) * NORMAL_FALL) * ease + (dl < 0 ? -dl : dl) * perError;
            if (far >= 4) continue;
            const near = 1 - far / 4;
            const w = SPLINE[v + 2]! * SPLINE[u + 2]! * near * near * near * near;
            weights += w;
            r += w * light[q]!;
            gr += w * light[q + 1]!;
            b += w * light[q + 2]!;
            lum += w * light[q + 3]!;
            error += w * w * light[q + 4]!;
          }
        }
        if (step > 1 || ease < 1 || weights > LONE) break;
      }
      const k = 1 / weights;
      out[o] = r * k;
      out[o + 1] = gr * k;
      out[o + 2] = b * k;
      out[o + 3] = lum * k;
      out[o + 4] = error * k * k;
    }
  }
}
