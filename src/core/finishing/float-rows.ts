/** A picture as rows of linear light, and the adjustments that are made to it on its way to a file or a screen. */

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
