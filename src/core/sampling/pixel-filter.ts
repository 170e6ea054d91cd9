/**
 * The pixel filter as an inverse distribution, for drawing sample positions by importance (Ernst, Stamminger and
 * Greiner 2006). The shape is the four-term Blackman-Harris window (Harris 1978, table 1), cut at `radius` pixels.
 * Returns `steps` + 1 offsets in pixels, for the equidistant probabilities 0 to 1.
 */
export function invertPixelFilter(radius: number, steps: number): Float32Array {
  const fine = 4096;
  const cumulative = new Float64Array(fine + 1);
  for (let i = 0; i < fine; i++) {
    const t = (2 * Math.PI * (i + 0.5)) / fine;
    const w = 0.35875 - 0.48829 * Math.cos(t) + 0.14128 * Math.cos(2 * t) - 0.01168 * Math.cos(3 * t);
    cumulative[i + 1] = cumulative[i]! + w;
  }
  const total = cumulative[fine]!;
  const out = new Float32Array(steps + 1);
  let at = 0;
  for (let i = 0; i <= steps; i++) {
    const wanted = (total * i) / steps;
    while (at < fine - 1 && cumulative[at + 1]! < wanted) at++;
    const span = cumulative[at + 1]! - cumulative[at]!;
    const within = span > 0 ? (wanted - cumulative[at]!) / span : 0;
    out[i] = (((at + Math.min(1, within)) / fine) * 2 - 1) * radius;
  }
  return out;
}

/** Default width: sharp without ringing, soft enough to hide stairs. */
export const FILTER_RADIUS_PX = 1.5;
