/**
 * A latitude-longitude image made smaller by a whole factor: each texel the mean of those it covers, so no light is
 * lost but at the poles' rim.
 */
export interface ImageLike {
  width: number;
  height: number;
  /** rgb. */
  pixels: Float32Array;
}

/** Most that is kept across. A picture of 90 degrees on an A3 sheet at 200 ppi shows a quarter of it at 3,300 px. */
export const LARGEST_PX = 8192;

/** Texels of a row weigh by the sine of their angle from the pole, as the sphere has them. */
export function reduceImage({ width, height, pixels }: ImageLike, mostWidth: number): ImageLike {
  let factor = 1;
  while (width / factor > mostWidth) factor *= 2;
  if (factor === 1) return { width, height, pixels };
  const [w, h] = [Math.floor(width / factor), Math.floor(height / factor)];
  const out = new Float32Array(w * h * 3);
  for (let y = 0; y < h; y++) {
    const weights = Array.from({ length: factor }, (_, j) => Math.sin((Math.PI * (y * factor + j + 0.5)) / height));
    const all = factor * weights.reduce((sum, v) => sum + v, 0);
    for (let x = 0; x < w; x++) {
      for (let j = 0; j < factor; j++) {
        const k = weights[j]! / all;
        for (let i = 0; i < factor; i++) {
          const from = ((y * factor + j) * width + x * factor + i) * 3;
          const to = (y * w + x) * 3;
          for (let c = 0; c < 3; c++) out[to + c] = out[to + c]! + k * pixels[from + c]!;
        }
      }
    }
  }
  return { width: w, height: h, pixels: out };
}
