/**
 * The curve between radiance and what the learned filter was trained on: a perceptual one that covers the range of half
 * floats. Constants: Open Image Denoise's PU curve, as its documentation and weights want it.
 */
const A = 1.41283765e3;
const B = 1.64593172;
const C = 4.31384981e-1;
const D = -2.94139609e-3;
const E = 1.92653254e-1;
const F = 6.26026094e-3;
const G = 9.98620152e-1;
const LINEAR_TO = 1.5794576e-6;
const POWER_TO = 3.22087631e-2;
const CURVED_LINEAR_TO = 2.23151711e-3;
const CURVED_POWER_TO = 3.70974749e-1;

const curve = (y: number) => (y <= LINEAR_TO ? A * y : y <= POWER_TO ? B * y ** C + D : E * Math.log(y + F) + G);
const uncurve = (x: number) =>
  x <= CURVED_LINEAR_TO ? x / A : x <= CURVED_POWER_TO ? ((x - D) / B) ** (1 / C) : Math.exp((x - G) / E) - F;

const LARGEST = 65504; // of half floats
const TOP = curve(LARGEST);

/** Radiance, scaled by inputScale, to 0..1. */
export const toCurve = (value: number): number => (value > 0 ? curve(Math.min(value, LARGEST)) / TOP : 0);
export const fromCurve = (value: number): number => (value > 0 ? uncurve(value * TOP) : 0);

const BLOCK_PX = 16;

/**
 * Gathers the log average over blocks that decides the input scale; per block, not per pixel, because noise would shift
 * the latter.
 */
export class InputScale {
  private sum = 0;
  private count = 0;

  /** Adds the luminances of a piece of the image whose corner lies on a multiple of 16 px. */
  add(width: number, height: number, luminances: Float32Array): void {
    for (let y = 0; y < height; y += BLOCK_PX) {
      for (let x = 0; x < width; x += BLOCK_PX) {
        const bottom = Math.min(height, y + BLOCK_PX);
        const right = Math.min(width, x + BLOCK_PX);
        let sum = 0;
        for (let v = y; v < bottom; v++) for (let u = x; u < right; u++) sum += Math.max(0, luminances[v * width + u]!);
        const mean = sum / ((bottom - y) * (right - x));
        if (mean > 1e-8) {
          this.sum += Math.log2(mean);
          this.count++;
        }
      }
    }
  }

  /** What radiances are multiplied by, so that their log average becomes middle grey. */
  get value(): number {
    return this.count > 0 ? 0.18 / 2 ** (this.sum / this.count) : 1;
  }
}
