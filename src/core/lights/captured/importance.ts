/**
 * The importance grid of a latitude-longitude image: cells weighted by luminance and solid angle, widened by one texel because
 * the image is seen with bilinear filtering. At most `mostColumns` across, so a very large image costs no more to sample.
 */
import { luminanceAt } from '../../color/spaces';
import { buildAliasTable } from '../../sampling/alias-table';

export interface ImportanceGrid {
  width: number;
  height: number;
  probability: Float32Array;
  threshold: Float32Array;
  alias: Uint32Array;
}

export function buildImportanceGrid(pixels: Float32Array, width: number, height: number, mostColumns = 1024): ImportanceGrid {
  const columns = Math.min(width, mostColumns);
  const rows = Math.min(height, mostColumns / 2);
  const weights = new Float64Array(columns * rows);
  const seen = (x: number, y: number) => {
    const p = (Math.min(height - 1, Math.max(0, y)) * width + ((x + width) % width)) * 3;
    return luminanceAt(pixels, p);
  };
  const perX = width / columns;
  const perY = height / rows;
  for (let r = 0; r < rows; r++) {
    const band = Math.cos((Math.PI * r) / rows) - Math.cos((Math.PI * (r + 1)) / rows);
    for (let c = 0; c < columns; c++) {
      let sum = 0;
      let count = 0;
      for (let y = Math.floor(r * perY) - 1; y <= Math.ceil((r + 1) * perY); y++) {
        for (let x = Math.floor(c * perX) - 1; x <= Math.ceil((c + 1) * perX); x++) {
          sum += seen(x, y);
          count++;
        }
      }
      weights[r * columns + c] = (Math.max(0, sum) / count) * band;
    }
  }
  const { probability, threshold, alias } = buildAliasTable(weights);
  return { width: columns, height: rows, probability, threshold, alias };
}
