/** A picture as rows of linear light, and the adjustments that are made to it on its way to a file or a screen. */

import { toDisplayP3 } from '../color/spaces';

/** A picture that is never held whole: its rows are asked for, mostly from the top down. */
export interface FloatRows {
  width: number;
  height: number;
  /** `count` rows of rgba f32 from row `y` on: displayed light, linear, 0 to 1, not premultiplied. */
  read(y: number, count: number): Promise<Float32Array>;
}

/** Something that is done to a picture, which may look at neighbouring pixels. */
export interface Adjustment {
  /** How far from a pixel its result looks, px; 0 for what is done to each pixel by itself. */
  halo: number;
  /**
   * Makes `count` rows of `out` of `source`, which holds whole rows of `width` pixels: those `count` and, above and below
   * them, as many of the halo's as the picture has. The first of `out` is row `first` of `source`, and row `y` of the
   * picture.
   */
  apply(
    source: Float32Array,
    out: Float32Array,
    place: { width: number; first: number; count: number; y: number }
  ): void;
}

/** Its colours by the primaries of Display P3. */
export const inDisplayP3 = (rows: FloatRows): FloatRows => ({
  ...rows,
  async read(y, count) {
    const out = (await rows.read(y, count)).slice();
    for (let i = 0; i < out.length; i += 4) toDisplayP3(out, i);
    return out;
  }
});

/** A picture with adjustments made in their order. */
export function adjusted(rows: FloatRows, adjustments: readonly Adjustment[]): FloatRows {
  return adjustments.reduce(withAdjustment, rows);
}

function withAdjustment(rows: FloatRows, { halo, apply }: Adjustment): FloatRows {
  const { width, height } = rows;
  return {
    width,
    height,
    async read(y, count) {
      const top = Math.max(0, y - halo);
      const end = Math.min(height, y + count + halo);
      const source = await rows.read(top, end - top);
      const out = new Float32Array(width * count * 4);
      apply(source, out, { width, first: y - top, count, y });
      return out;
    }
  };
}

/**
 * A smaller copy, each of whose pixels is the mean of what it covers, in linear light; whole numbers of pixels need not
 * fit. Throws a RangeError for one that is larger: nothing is made up.
 */
export function smaller(rows: FloatRows, width: number, height: number): FloatRows {
  if (width > rows.width || height > rows.height)
    throw new RangeError(`smaller: expected at most ${rows.width} x ${rows.height} px, got ${width} x ${height}`);
  if (width === rows.width && height === rows.height) return rows;
  const across = rows.width / width;
  const down = rows.height / height;
  return {
    width,
    height,
    async read(y, count) {
      const out = new Float32Array(width * count * 4);
      for (let row = 0; row < count; row++) {
        const [top, bottom] = [(y + row) * down, (y + row + 1) * down];
        const first = Math.floor(top);
        const last = Math.min(rows.height, Math.ceil(bottom - 1e-9));
        const source = await rows.read(first, last - first);
        for (let x = 0; x < width; x++) {
          const [left, right] = [x * across, (x + 1) * across];
          const o = (row * width + x) * 4;
          let [r, g, b, a, whole] = [0, 0, 0, 0, 0];
          for (let v = first; v < last; v++) {
            const high = Math.min(v + 1, bottom) - Math.max(v, top);
            for (let u = Math.floor(left); u < Math.min(rows.width, Math.ceil(right - 1e-9)); u++) {
              const p = ((v - first) * rows.width + u) * 4;
              const share = high * (Math.min(u + 1, right) - Math.max(u, left));
              const seen = share * source[p + 3]!;
              r += seen * source[p]!;
              g += seen * source[p + 1]!;
              b += seen * source[p + 2]!;
              a += seen;
              whole += share;
            }
          }
          // colours are not premultiplied
          if (a > 0) [out[o], out[o + 1], out[o + 2]] = [r / a, g / a, b / a];
          out[o + 3] = a / whole;
        }
      }
      return out;
    }
  };
}
