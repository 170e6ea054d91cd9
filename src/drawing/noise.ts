/** Value noise that repeats after whole periods, for tiling textures, and its fractal sum. All results 0 to 1. */
const hash = (x: number, y: number, seed: number): number => {
  let n = (Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(seed, 83492791)) >>> 0;
  n = Math.imul(n ^ (n >>> 13), 0x5bd1e995);
  n = Math.imul(n ^ (n >>> 15), 0x27d4eb2d);
  return ((n ^ (n >>> 13)) >>> 0) / 4294967296;
};

export const cell = (x: number, y: number, seed: number): number => hash(Math.floor(x), Math.floor(y), seed);

const wrap = (i: number, period: number) => ((i % period) + period) % period;
const ease = (t: number) => t * t * (3 - 2 * t);

export function noise(x: number, y: number, periodX: number, periodY: number, seed: number): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const u = ease(x - x0);
  const v = ease(y - y0);
  const at = (i: number, j: number) => hash(wrap(x0 + i, periodX), wrap(y0 + j, periodY), seed);
  return (at(0, 0) * (1 - u) + at(1, 0) * u) * (1 - v) + (at(0, 1) * (1 - u) + at(1, 1) * u) * v;
}

/** `x`, `y` in 0 to 1 over the tile; `fx`, `fy` whole numbers of cells across it. */
export function fractal(x: number, y: number, fx: number, fy: number, octaves: number, seed: number): number {
  let sum = 0;
  let weight = 0.5;
  let total = 0;
  for (let o = 0; o < octaves; o++) {
    sum += weight * noise(x * fx, y * fy, fx, fy, seed + o);
    total += weight;
    weight *= 0.5;
    fx *= 2;
    fy *= 2;
  }
  return sum / total;
}

/** Plain noise in world metres, for terrain and placement. */
export const field = (x: number, y: number, seed: number): number =>
  0.6 * noise(x, y, 65536, 65536, seed) +
  0.3 * noise(x * 2.03, y * 2.03, 65536, 65536, seed + 1) +
  0.1 * noise(x * 4.1, y * 4.1, 65536, 65536, seed + 2);
