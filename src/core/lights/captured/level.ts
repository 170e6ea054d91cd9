/**
 * Levels a captured image that was taken with a skew camera: every texel looks up what lay there before the camera was
 * turned upright. Bilinear; pitch first, then roll, about the axes of the image (column u = atan2(z, x) / 2 pi + 1/2,
 * +Y up; the middle looks along +X).
 */
export interface Skew {
  /** How far the middle of the image looked up, degrees. */
  pitch_deg: number;
  /** How far its right side hung down, degrees. */
  roll_deg: number;
}

export function level<T extends { width: number; height: number; pixels: Float32Array }>(
  image: T,
  { pitch_deg, roll_deg }: Skew
): T {
  if (pitch_deg === 0 && roll_deg === 0) return image;
  const { width, height, pixels } = image;
  const out = new Float32Array(pixels.length);
  const [cp, sp] = [Math.cos((pitch_deg * Math.PI) / 180), Math.sin((pitch_deg * Math.PI) / 180)];
  const [cr, sr] = [Math.cos((roll_deg * Math.PI) / 180), Math.sin((roll_deg * Math.PI) / 180)];
  for (let row = 0; row < height; row++) {
    const theta = ((row + 0.5) / height) * Math.PI;
    const [y, r] = [Math.cos(theta), Math.sin(theta)];
    for (let column = 0; column < width; column++) {
      const phi = ((column + 0.5) / width - 0.5) * 2 * Math.PI;
      const [x, z] = [r * Math.cos(phi), r * Math.sin(phi)];
      // into the camera's frame: about Z by the pitch, about X by the roll
      const [x1, y1] = [cp * x + sp * y, cp * y - sp * x];
      const [y2, z2] = [cr * y1 + sr * z, cr * z - sr * y1];
      const u = (Math.atan2(z2, x1) / (2 * Math.PI) + 0.5) * width - 0.5;
      const v = (Math.acos(Math.max(-1, Math.min(1, y2))) / Math.PI) * height - 0.5;
      const [u0, v0] = [Math.floor(u), Math.floor(v)];
      const [fu, fv] = [u - u0, v - v0];
      const at = (dx: number, dy: number) =>
        (Math.min(height - 1, Math.max(0, v0 + dy)) * width + ((u0 + dx + width) % width)) * 3;
      const [a, b, c, d] = [at(0, 0), at(1, 0), at(0, 1), at(1, 1)];
      const o = (row * width + column) * 3;
      for (let k = 0; k < 3; k++)
        out[o + k] =
          (1 - fv) * ((1 - fu) * pixels[a + k]! + fu * pixels[b + k]!) +
          fv * ((1 - fu) * pixels[c + k]! + fu * pixels[d + k]!);
    }
  }
  return { ...image, pixels: out };
}
