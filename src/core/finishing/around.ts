/**
 * What lies around each place of a picture, from a small copy of all of it: the light that a lens scatters there, and how
 * bright the neighbourhood is. Taken once a picture, so that it is the same in a tile, a small look and a large sheet.
 */
import type { Finish } from '../brief/brief';
import { luminanceAt } from '../color/spaces';
import { blurred, type Plane, shrunkPlane } from './blur';

/** Radiance, rgb, cd/m2. */
export type SmallCopy = Plane;

/** Adds to the rgb of a place, whose corners are 0, 0 and 1, 1, what is scattered to it. */
export type Scatter = (u: number, v: number, rgb: Float64Array) => void;
/** Binary logarithm of the luminance around a place that itself has this one, cd/m2. */
export type Surround = (u: number, v: number, log2: number) => number;

/** What a finish needs to know of the whole picture; null where it needs nothing. */
export interface Around {
  scatter: Scatter | null;
  surround: Surround | null;
}
export const NOTHING_AROUND: Around = { scatter: null, surround: null };

export const scatters = ({ lens }: Finish): boolean => lens.glow > 0 || lens.streaks > 0 || lens.ghosts > 0;
export const looksAround = ({ tone }: Finish): boolean => tone.highlights !== 0 || tone.shadows !== 0;
export const needsAround = (finish: Finish): boolean => scatters(finish) || looksAround(finish);

/** Keeps what was made of one small copy, so that a slider that moves does not make it again. */
export class AroundMaps {
  private glow: Plane | null = null;
  private flare: { key: string; plane: Plane } | null = null;
  private grid: Surround | null = null;

  constructor(
    private readonly copy: SmallCopy,
    /** Luminance of displayed white, cd/m2. */
    private readonly white: number
  ) {}

  of(finish: Finish): Around {
    if (looksAround(finish)) this.grid ??= surroundOf(this.copy);
    return {
      scatter: scatters(finish) ? this.scatter(finish) : null,
      surround: looksAround(finish) ? this.grid : null
    };
  }

  private scatter({ lens: { glow, streaks, ghosts }, exposure_ev }: Finish): Scatter {
    const planes: { plane: Plane; share: number }[] = [];
    if (glow > 0) {
      this.glow ??= glowOf(this.copy);
      planes.push({ plane: this.glow, share: glow });
    }
    if (streaks > 0 || ghosts > 0) {
      const key = `${streaks} ${ghosts} ${exposure_ev}`;
      if (this.flare?.key !== key)
        this.flare = { key, plane: flareOf(this.copy, this.white * 2 ** -exposure_ev, streaks, ghosts) };
      planes.push({ plane: this.flare.plane, share: 1 });
    }
    const seen = new Float64Array(3);
    return (u, v, rgb) => {
      for (let c = 0; c < 3; c++) rgb[c] = rgb[c]! * (1 - glow);
      for (const { plane, share } of planes) {
        sample(plane, u, v, seen);
        for (let c = 0; c < 3; c++) rgb[c] = rgb[c]! + share * seen[c]!;
      }
    };
  }
}

/** Between the pixels of a plane; beyond its edge it stays what it is there. */
function sample({ data, width, height }: Plane, u: number, v: number, out: Float64Array): void {
  const x = Math.min(width - 1, Math.max(0, u * width - 0.5));
  const y = Math.min(height - 1, Math.max(0, v * height - 0.5));
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [a, b] = [x - i, y - j];
  const p = (j * width + i) * 3;
  const q = i + 1 < width ? p + 3 : p;
  const down = j + 1 < height ? width * 3 : 0;
  for (let c = 0; c < 3; c++)
    out[c] =
      (data[p + c]! * (1 - a) + data[q + c]! * a) * (1 - b) +
      (data[p + down + c]! * (1 - a) + data[q + down + c]! * a) * b;
}

// Widths of the scattered light as shares of the picture's height; the first of the plane, each of the others four times
// the one before. Equal light in equal steps of the angle's logarithm is the law of veiling glare, luminance over the
// angle squared (Holladay 1926; CIE 146:2002 gives it as the middle term of its general glare equation; from memory).
const GLOW_WIDTH = 0.004;
const GLOW_STEPS = 4;
// Nothing of it is finer than pixels of this many across.
const GLOW_PX = 400;

/** Where light goes that a lens scatters: the picture spread by the law of veiling glare. All of it is kept. */
function glowOf(whole: SmallCopy): Plane {
  const copy = Math.max(whole.width, whole.height) > GLOW_PX ? shrunkPlane(whole, 2) : whole;
  let level = copy;
  const levels: Plane[] = [];
  for (let i = 0; i < GLOW_STEPS; i++) {
    const sigma = Math.max(0.6, GLOW_WIDTH * 4 ** i * level.height);
    levels.push(blurred(level, sigma));
    if (sigma > 1.2 && level.width > 16 && level.height > 16) level = shrunkPlane(level, 4);
  }
  const out = { ...copy, data: new Float32Array(copy.data.length) };
  for (const one of levels) addStretched(one, out, 1 / GLOW_STEPS);
  return out;
}

/** Adds a share of a plane, stretched to the size of another: what `sample` gives at each of its pixels. */
function addStretched({ data, width, height }: Plane, to: Plane, share: number): void {
  const left = new Int32Array(to.width);
  const right = new Int32Array(to.width);
  const weights = new Float32Array(to.width);
  for (let x = 0; x < to.width; x++) {
    const at = Math.min(width - 1, Math.max(0, ((x + 0.5) / to.width) * width - 0.5));
    left[x] = Math.floor(at) * 3;
    right[x] = Math.min(width - 1, Math.floor(at) + 1) * 3;
    weights[x] = at - Math.floor(at);
  }
  for (let y = 0, o = 0; y < to.height; y++) {
    const at = Math.min(height - 1, Math.max(0, ((y + 0.5) / to.height) * height - 0.5));
    const b = at - Math.floor(at);
    const upper = Math.floor(at) * width * 3;
    const lower = Math.min(height - 1, Math.floor(at) + 1) * width * 3;
    for (let x = 0; x < to.width; x++) {
      const a = weights[x]!;
      const [l, r] = [left[x]!, right[x]!];
      for (let c = 0; c < 3; c++, o++) {
        const above = data[upper + l + c]! * (1 - a) + data[upper + r + c]! * a;
        const below = data[lower + l + c]! * (1 - a) + data[lower + r + c]! * a;
        to.data[o] = to.data[o]! + share * (above * (1 - b) + below * b);
      }
    }
  }
}

// What is so many times brighter than white makes streaks and ghosts.
const BRIGHT = 2;
// Six blades make six rays (an even number of blades makes as many, common practice); how long they are, of the height.
const RAYS = 6;
const RAY_TURN = Math.PI / 12;
const RAY_LENGTH = 0.35;
const RAY_SHARE = 0.02;
// Images between the lenses: how far from the middle against the light itself, how wide, of the height, and what share.
const GHOSTS = [
  { place: -0.45, width: 0.03, share: 4e-4, tint: [0.7, 1, 0.8] },
  { place: -0.85, width: 0.06, share: 2e-4, tint: [1, 0.8, 0.6] },
  { place: 0.4, width: 0.018, share: 4e-4, tint: [0.7, 0.8, 1] },
  { place: -1.3, width: 0.1, share: 1e-4, tint: [0.9, 0.7, 1] }
] as const;

function flareOf(copy: SmallCopy, white: number, streaks: number, ghosts: number): Plane {
  const { width, height, data } = copy;
  const bright = new Float32Array(data.length);
  const out = new Float32Array(data.length);
  const reach = Math.ceil(RAY_LENGTH * height);
  const add = (x: number, y: number, p: number, k: number, to: Float32Array) => {
    const [i, j] = [Math.floor(x), Math.floor(y)];
    for (let n = 0; n < 4; n++) {
      const [u, v] = [i + (n & 1), j + (n >> 1)];
      if (u < 0 || v < 0 || u >= width || v >= height) continue;
      const w = k * (n & 1 ? x - i : 1 - (x - i)) * (n >> 1 ? y - j : 1 - (y - j));
      const q = (v * width + u) * 3;
      for (let c = 0; c < 3; c++) to[q + c] = to[q + c]! + w * bright[p + c]!;
    }
  };
  const places: number[] = [];
  for (let i = 0; i < width * height; i++) {
    const over = luminanceAt(data, i * 3) / white - BRIGHT;
    if (over <= 0) continue;
    const k = over / (over + BRIGHT);
    for (let c = 0; c < 3; c++) bright[i * 3 + c] = k * data[i * 3 + c]!;
    places.push(i);
  }
  if (streaks > 0)
    for (const i of places) {
      const [x, y] = [i % width, Math.floor(i / width)];
      for (let ray = 0; ray < RAYS; ray++) {
        const angle = RAY_TURN + (2 * Math.PI * ray) / RAYS;
        const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
        for (let r = 1; r < reach; r++) {
          const fall = (1 - r / reach) ** 2 / r;
          add(x + dx * r, y + dy * r, i * 3, (streaks * RAY_SHARE * fall) / RAYS, out);
        }
      }
    }
  if (ghosts > 0)
    for (const { place, width: wide, share, tint } of GHOSTS) {
      const seen = new Float32Array(data.length);
      for (const i of places) {
        const [x, y] = [(i % width) + 0.5 - width / 2, Math.floor(i / width) + 0.5 - height / 2];
        add(width / 2 + place * x, height / 2 + place * y, i * 3, 1, seen);
      }
      const spread = blurred({ ...copy, data: seen }, wide * height);
      // a disc of this width holds the light of one pixel
      const k = ghosts * share * (height * wide) ** 2;
      for (let i = 0; i < out.length; i++) out[i] = out[i]! + k * tint[i % 3]! * spread.data[i]!;
    }
  return { ...copy, data: out };
}

// The grid: cells of the picture's long side, and of luminance, in stops.
const CELLS = 28;
const LOW_LOG2 = -14;
const STOPS = 34;

/**
 * How bright the neighbourhood is, without looking across edges: a bilateral grid (Chen, Paris and Durand 2007). A place
 * in a dark niche beside a window is told from the window.
 */
function surroundOf({ data, width, height }: SmallCopy): Surround {
  const cell = Math.max(width, height) / CELLS;
  const [nx, ny] = [Math.ceil(width / cell) + 2, Math.ceil(height / cell) + 2];
  let sums = new Float32Array(nx * ny * STOPS);
  let counts = new Float32Array(nx * ny * STOPS);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const log = logOf(luminanceAt(data, (y * width + x) * 3));
      const at =
        (Math.round((y + 0.5) / cell) * nx + Math.round((x + 0.5) / cell)) * STOPS +
        Math.min(STOPS - 1, Math.max(0, Math.round(log - LOW_LOG2)));
      sums[at] = sums[at]! + log;
      counts[at] = counts[at]! + 1;
    }
  for (const [count, step] of [
    [nx, STOPS],
    [ny, nx * STOPS],
    [STOPS, 1]
  ] as const)
    [sums, counts] = [smoothed(sums, count, step), smoothed(counts, count, step)];
  // side by side: what is looked up together lies together
  const both = new Float32Array(sums.length * 2);
  for (let i = 0; i < sums.length; i++) {
    both[2 * i] = sums[i]!;
    both[2 * i + 1] = counts[i]!;
  }
  return (u, v, log2) => {
    const x = (u * width) / cell;
    const y = (v * height) / cell;
    const z = Math.min(STOPS - 1.001, Math.max(0, log2 - LOW_LOG2));
    const i = Math.floor(x);
    const j = Math.floor(y);
    const k = Math.floor(z);
    const a = x - i;
    const b = y - j;
    const c = z - k;
    const right = i + 1 < nx ? 2 * STOPS : 0;
    const below = j + 1 < ny ? 2 * nx * STOPS : 0;
    const at = 2 * ((Math.min(ny - 1, j) * nx + Math.min(nx - 1, i)) * STOPS + k);
    let sum = 0;
    let weight = 0;
    for (let n = 0; n < 4; n++) {
      const p = at + (n & 1 ? right : 0) + (n & 2 ? below : 0);
      const w = (n & 1 ? a : 1 - a) * (n & 2 ? b : 1 - b);
      sum += w * (both[p]! * (1 - c) + both[p + 2]! * c);
      weight += w * (both[p + 1]! * (1 - c) + both[p + 3]! * c);
    }
    return weight > 1e-6 ? sum / weight : log2;
  };
}

const logOf = (luminance: number) => Math.log2(Math.max(2 ** LOW_LOG2, luminance));

/** Along one axis of a grid, by 1, 2, 1 twice. */
function smoothed(from: Float32Array, count: number, step: number): Float32Array<ArrayBuffer> {
  let values = new Float32Array(from);
  for (let pass = 0; pass < 2; pass++) {
    const out = new Float32Array(values.length);
    for (let i = 0; i < values.length; i++) {
      const at = Math.floor(i / step) % count;
      out[i] =
        0.5 * values[i]! + 0.25 * (at > 0 ? values[i - step]! : 0) + 0.25 * (at < count - 1 ? values[i + step]! : 0);
    }
    values = out;
  }
  return values;
}
