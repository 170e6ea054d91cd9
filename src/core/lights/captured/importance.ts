/**
 * The importance grid of a latitude-longitude image: cells weighted by luminance and solid angle, widened by one texel
 * because the image is seen with bilinear filtering. At most `mostColumns` across, so a very large image costs no more
 * to sample. Where a cell is even its mean stands for it in all that is scattered widely: cells lie in a core's cache,
 * the image does not.
 */
import { luminanceAt } from '../../color/spaces';
import { buildAliasTable } from '../../sampling/alias-table';

/** A cell is even when nothing in it or at its border is so many times brighter than something else there. */
const EVEN = 1.5;

export interface ImportanceGrid {
  width: number;
  height: number;
  probability: Float32Array;
  threshold: Float32Array;
  alias: Uint32Array;
  /** Rgb, the mean of a cell's texels over solid angle where it is even; elsewhere negative. */
  mean: Float32Array;
}

export function buildImportanceGrid(
  pixels: Float32Array,
  width: number,
  height: number,
  mostColumns = 1024
): ImportanceGrid {
  const columns = Math.min(width, mostColumns);
  const rows = Math.min(height, mostColumns / 2);
  const weights = new Float64Array(columns * rows);
  const seen = (x: number, y: number) => {
    const p = (Math.min(height - 1, Math.max(0, y)) * width + ((x + width) % width)) * 3;
    return luminanceAt(pixels, p);
  };
  const perX = width / columns;
  const perY = height / rows;
  const mean = new Float32Array(columns * rows * 3).fill(-1);
  /** Rgb over a cell's own texels, a row weighing as much as it covers of the sphere; needs whole texels to a cell. */
  const meanOf = (c: number, r: number): number[] => {
    const sum = [0, 0, 0];
    let covered = 0;
    for (let y = r * perY; y < (r + 1) * perY; y++) {
      const band = Math.cos((Math.PI * y) / height) - Math.cos((Math.PI * (y + 1)) / height);
      for (let x = c * perX; x < (c + 1) * perX; x++)
        for (const k of [0, 1, 2]) sum[k]! += band * pixels[(y * width + x) * 3 + k]!;
      covered += perX * band;
    }
    return sum.map((s) => s / covered);
  };
  const whole = Number.isInteger(perX) && Number.isInteger(perY);
  for (let r = 0; r < rows; r++) {
    const band = Math.cos((Math.PI * r) / rows) - Math.cos((Math.PI * (r + 1)) / rows);
    for (let c = 0; c < columns; c++) {
      let sum = 0;
      let count = 0;
      let least = Number.POSITIVE_INFINITY;
      let most = 0;
      for (let y = Math.floor(r * perY) - 1; y <= Math.ceil((r + 1) * perY); y++) {
        for (let x = Math.floor(c * perX) - 1; x <= Math.ceil((c + 1) * perX); x++) {
          const light = seen(x, y);
          sum += light;
          count++;
          least = Math.min(least, light);
          most = Math.max(most, light);
        }
      }
      if (whole && most <= EVEN * least) mean.set(meanOf(c, r), (r * columns + c) * 3);
      weights[r * columns + c] = (Math.max(0, sum) / count) * band;
    }
  }
  const { probability, threshold, alias } = buildAliasTable(weights);
  return { width: columns, height: rows, probability, threshold, alias, mean };
}
