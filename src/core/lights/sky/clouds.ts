/**
 * Heaped clouds: a layer of water droplets whose density is noise, seen from the ground and lit by the sun and by the
 * sky round it. Droplets absorb nothing. Light is marched through the layer; higher orders of scattering by octaves
 * that are weaker, straighter on and less dimmed each (Wrenninge, Kulla and Lundqvist 2013, Oz: the great and
 * volumetric). Phase function: two lobes of Henyey and Greenstein 1941. The noise is our own (cloud-noise.ts). Earth
 * curves away under the layer.
 */
import { createRandom } from '../../sampling/random';
import type { Vec3 } from '../../math/vec3';
import { lookUp, noise, TABLE, WRAP } from './cloud-noise';
import type { Cumulus } from './cumulus';

const EARTH_M = 6.36e6;
/** Of dense cloud, 1/m. Source: about 100 droplets a cm3 of 10 um, from memory of cloud physics. */
const EXTINCTION = 0.035;
const THICKNESS = 0.55; // of the base's height
const MAX_THICK_M = 1100;
const MIN_THICK_M = 350;
const SHAPE_PERIOD = 5200; // m, of the table at a base of 1,000 m
const DETAIL_PERIOD = 930;
const OCTAVES = 4;

/** The layer's density between 0 and 1 at any place; metres, +Y up, from the ground under the camera. */
class Layer {
  readonly base: number;
  readonly thickness: number;
  private readonly table = noise();
  /** Cells of the table to a metre. */
  readonly perShape: number;
  private readonly perDetail: number;
  private readonly threshold: number;

  constructor(
    { cover, base_m }: Cumulus,
    readonly shiftX: number,
    readonly shiftZ: number
  ) {
    this.base = base_m;
    this.thickness = Math.min(MAX_THICK_M, Math.max(MIN_THICK_M, THICKNESS * base_m));
    // higher clouds are larger
    const size = Math.max(0.6, Math.sqrt(base_m / 1000));
    this.perShape = TABLE / (SHAPE_PERIOD * size);
    this.perDetail = TABLE / (DETAIL_PERIOD * size);
    this.threshold = thresholdFor(cover);
  }

  /** The shape without its fine detail, at a fraction of the layer's thickness; below 0 there is none. */
  shape(x: number, f: number, z: number): number {
    const s = lookUp(
      this.table,
      (x + this.shiftX) * this.perShape,
      f * this.thickness * this.perShape,
      (z + this.shiftZ) * this.perShape
    );
    // rounded above, level below
    return (s - this.threshold - RISE * f * f) / SOFT;
  }

  density(x: number, f: number, z: number, shape: number): number {
    const eaten =
      1 -
      lookUp(
        this.table,
        (x + this.shiftX) * this.perDetail,
        f * this.thickness * this.perDetail,
        (z + this.shiftZ) * this.perDetail
      );
    const d = Math.min(1, shape) - DETAIL * eaten * (1 - Math.min(1, shape) * 0.6);
    return d <= 0 ? 0 : Math.min(1, d / (1 - DETAIL)) * Math.min(1, f / 0.12);
  }
}

const SOFT = 0.16;
const RISE = 0.16;
const DETAIL = 0.55;
// Detail eats into the edge: the shape has to reach this far beyond it to be seen as cloud.
const SEEN = 0.3;

let sorted: Float32Array | null = null;
function thresholdFor(cover: number): number {
  sorted ??= Float32Array.from(noise().subarray(0, TABLE * TABLE * 8)).sort();
  const at = sorted[Math.min(sorted.length - 1, Math.round((1 - cover) * (sorted.length - 1)))]!;
  return at - SOFT * SEEN;
}

export interface CloudImage {
  width: number;
  height: number;
  /**
   * Upper half, row 0 looks up, three values a texel: light of the sun's illuminance that it sends on (1/sr), of the
   * mean luminance round it, and share of what lies behind that is seen.
   */
  texels: Float32Array;
  /** Share of the sun's light that comes through to the camera. */
  sunThrough: number;
}

const known = new Map<string, CloudImage>();
const MAX_KNOWN = 4;

/**
 * Clouds round a camera on the ground, lit by a source in a direction. The last few are kept: they take a second or two
 * each.
 */
export function cloudImage(cumulus: Cumulus, source: Vec3, width: number): CloudImage {
  const key = JSON.stringify([cumulus, source, width]);
  const found = known.get(key);
  if (found) return found;
  const image = march(cumulus, source, width);
  if (known.size >= MAX_KNOWN) known.delete(known.keys().next().value!);
  known.set(key, image);
  return image;
}

/** The layer shifted so that the sun is where the cumulus say. */
function placed(cumulus: Cumulus, source: Vec3): { layer: Layer; sunThrough: number } {
  const random = createRandom(cumulus.seed);
  const fresh = () => new Layer(cumulus, random() * 1e5, random() * 1e5);
  let best: { layer: Layer; sunThrough: number } | null = null;
  for (let i = 0; i < MAX_SHIFTS; i++) {
    const layer = fresh();
    const sunThrough = source[1] > 0.01 ? Math.exp(-depthAlong(layer, source)) : 1;
    if (cumulus.sun === 'as it comes') return { layer, sunThrough };
    const better =
      best === null || (cumulus.sun === 'free' ? sunThrough > best.sunThrough : sunThrough < best.sunThrough);
    if (better) best = { layer, sunThrough };
    if (cumulus.sun === 'free' ? sunThrough > 0.98 : sunThrough < 0.02) break;
  }
  return best!;
}
const MAX_SHIFTS = 60;

/** Where a direction of the sine `up` meets the sphere `height` m above the ground, m along it. */
const reach = (up: number, height: number): number =>
  -EARTH_M * up + Math.sqrt(EARTH_M * EARTH_M * up * up + height * (2 * EARTH_M + height));

function depthAlong(layer: Layer, [dx, dy, dz]: Vec3): number {
  const from = reach(dy, layer.base);
  const step = (reach(dy, layer.base + layer.thickness) - from) / 48;
  let depth = 0;
  for (let i = 0; i < 48; i++) {
    const f = (i + 0.5) / 48;
    const d = from + (i + 0.5) * step;
    const shape = layer.shape(dx * d, f, dz * d);
    if (shape > 0) depth += EXTINCTION * layer.density(dx * d, f, dz * d, shape) * step;
  }
  return depth;
}

const hg = (c: number, g: number): number => (1 - g * g) / (4 * Math.PI * (1 + g * g - 2 * g * c) ** 1.5);
const phase = (c: number, spread: number): number => 0.75 * hg(c, 0.8 * spread) + 0.25 * hg(c, -0.25 * spread);
const FADE = 0.55;
const PHASE_STEPS = 4096;
/** Of the cosine, each octave's, weighted. */
const PHASES = Array.from({ length: OCTAVES }, (_, o) =>
  Float64Array.from({ length: PHASE_STEPS + 1 }, (_v, i) => FADE ** o * phase((2 * i) / PHASE_STEPS - 1, FADE ** o))
);
// Beyond this nothing of a cloud is seen for the air before it.
const FARTHEST_M = 70_000;

const LIGHT_LEVELS = 16;
const LIGHT_STEPS = 10;
// The sun is not reckoned lower than this: its way through the layer would be endless.
const LOWEST_LIGHT = 0.12;
/** Optical depth in the table is kept in these steps, and what it leaves in each octave is looked up. */
const DEPTH_STEP = 0.05;
const DEEPEST = 40;

/**
 * Optical depth from a place of the layer towards the source. The shape repeats, so one period is reckoned: TABLE x
 * LIGHT_LEVELS x TABLE.
 */
function lightDepths(layer: Layer, [sx, sy, sz]: Vec3): Float32Array {
  const out = new Float32Array(TABLE * LIGHT_LEVELS * TABLE);
  const up = Math.max(LOWEST_LIGHT, sy);
  const cell = 1 / layer.perShape;
  const farthest = Math.min(2500, layer.thickness / up);
  const ways = Array.from(
    { length: LIGHT_STEPS },
    (_, i) => farthest * (((i + 1) / LIGHT_STEPS) ** 1.5 - (i / LIGHT_STEPS) ** 1.5)
  );
  for (let zi = 0; zi < TABLE; zi++) {
    for (let level = 0; level < LIGHT_LEVELS; level++) {
      for (let xi = 0; xi < TABLE; xi++) {
        let depth = 0;
        let gone = 0;
        for (const way of ways) {
          const at = gone + way / 2;
          gone += way;
          const f = level / (LIGHT_LEVELS - 1) + (at * up) / layer.thickness;
          if (f >= 1 || depth > DEEPEST) break;
          const shape = layer.shape(xi * cell - layer.shiftX + sx * at, f, zi * cell - layer.shiftZ + sz * at);
          if (shape > SEEN) depth += EXTINCTION * Math.min(1, (shape - SEEN) / (1 - SEEN)) * way;
        }
        out[(level * TABLE + zi) * TABLE + xi] = Math.min(DEEPEST, depth);
      }
    }
  }
  return out;
}

/** Of the depths at a place: bilinear in the level plane, between the two levels. */
function depthAt(depths: Float32Array, layer: Layer, x: number, f: number, z: number): number {
  const u = (x + layer.shiftX) * layer.perShape;
  const v = (z + layer.shiftZ) * layer.perShape;
  const uf = Math.floor(u);
  const vf = Math.floor(v);
  const fu = u - uf;
  const fv = v - vf;
  const u0 = uf & WRAP;
  const v0 = vf & WRAP;
  const u1 = (u0 + 1) & WRAP;
  const v1 = (v0 + 1) & WRAP;
  const level = f * (LIGHT_LEVELS - 1);
  const l0 = Math.min(LIGHT_LEVELS - 2, Math.floor(level));
  const fl = level - l0;
  const a = (l0 * TABLE + v0) * TABLE;
  const b = (l0 * TABLE + v1) * TABLE;
  const next = TABLE * TABLE;
  const low =
    (depths[a + u0]! * (1 - fu) + depths[a + u1]! * fu) * (1 - fv) +
    (depths[b + u0]! * (1 - fu) + depths[b + u1]! * fu) * fv;
  const high =
    (depths[a + next + u0]! * (1 - fu) + depths[a + next + u1]! * fu) * (1 - fv) +
    (depths[b + next + u0]! * (1 - fu) + depths[b + next + u1]! * fu) * fv;
  return low * (1 - fl) + high * fl;
}

/** For each column of one period, how many columns it is at least to the nearest with cloud; 0 in it and beside it. */
function clearance(layer: Layer): Uint8Array {
  const cell = 1 / layer.perShape;
  const out = new Uint8Array(TABLE * TABLE).fill(255);
  for (let z = 0; z < TABLE; z++) {
    for (let x = 0; x < TABLE; x++) {
      for (let level = 0; level < LIGHT_LEVELS; level++) {
        if (layer.shape(x * cell - layer.shiftX, level / (LIGHT_LEVELS - 1), z * cell - layer.shiftZ) > 0)
          out[z * TABLE + x] = 0;
      }
    }
  }
  for (let round = 0; round < MAX_CLEARANCE; round++) {
    const before = out.slice();
    for (let z = 0; z < TABLE; z++) {
      for (let x = 0; x < TABLE; x++) {
        if (before[z * TABLE + x] !== 255) continue;
        for (let n = 0; n < 9; n++)
          if (before[((z + Math.floor(n / 3) - 1) & WRAP) * TABLE + ((x + (n % 3) - 1) & WRAP)] === round)
            out[z * TABLE + x] = round + 1;
      }
    }
  }
  for (let i = 0; i < out.length; i++) out[i] = Math.max(0, Math.min(MAX_CLEARANCE, out[i]!) - 1);
  return out;
}
const MAX_CLEARANCE = 8;

/** What each octave leaves of the light after a depth. */
const LEFT = Array.from({ length: OCTAVES }, (_, o) =>
  Float64Array.from({ length: DEEPEST / DEPTH_STEP + 1 }, (_v, i) => Math.exp(-i * DEPTH_STEP * FADE ** o))
);

function march(cumulus: Cumulus, source: Vec3, width: number): CloudImage {
  const height = width / 2;
  const texels = new Float32Array((width * height * 3) / 2);
  for (let i = 2; i < texels.length; i += 3) texels[i] = 1;
  const { layer, sunThrough } = placed(cumulus, source);
  const [sx, sy, sz] = source;
  const depths = lightDepths(layer, source);
  const clear = clearance(layer);
  const phases = new Float64Array(OCTAVES);
  for (let j = 0; j < height / 2; j++) {
    const h = Math.PI / 2 - ((j + 0.5) / height) * Math.PI;
    const sin = Math.sin(h);
    const cos = Math.cos(h);
    const from = reach(sin, layer.base);
    if (from > FARTHEST_M) continue;
    const way = Math.min(reach(sin, layer.base + layer.thickness), FARTHEST_M * 1.2) - from;
    const steps = Math.max(20, Math.min(64, Math.round(way / 45)));
    const step = way / steps;
    // steps to a column
    const stride = 1 / (layer.perShape * step * cos);
    for (let i = 0; i < width; i++) {
      const azimuth = ((i + 0.5) / width - 0.5) * 2 * Math.PI;
      const dx = cos * Math.cos(azimuth);
      const dz = cos * Math.sin(azimuth);
      const toSun = dx * sx + sin * sy + dz * sz;
      const angle = Math.round(((toSun + 1) / 2) * PHASE_STEPS);
      for (let o = 0; o < OCTAVES; o++) phases[o] = PHASES[o]![angle]!;
      let through = 1;
      let lit = 0;
      let around = 0;
      for (let s = 0; s < steps && through > 0.004; s++) {
        const f = (s + 0.5) / steps;
        const d = from + (s + 0.5) * step;
        const x = dx * d;
        const z = dz * d;
        const free =
          clear[
            (Math.floor((z + layer.shiftZ) * layer.perShape) & WRAP) * TABLE +
              (Math.floor((x + layer.shiftX) * layer.perShape) & WRAP)
          ]!;
        if (free > 0) {
          s += Math.floor((free - 1) * stride);
          continue;
        }
        const shape = layer.shape(x, f, z);
        if (shape <= 0) continue;
        const density = layer.density(x, f, z, shape);
        if (density <= 0) continue;
        const depth = Math.round(depthAt(depths, layer, x, f, z) / DEPTH_STEP);
        let bright = 0;
        for (let o = 0; o < OCTAVES; o++) bright += phases[o]! * LEFT[o]![depth]!;
        const kept = Math.exp(-EXTINCTION * density * step);
        // nothing is absorbed: what a step does not let through it sends on
        const sent = through * (1 - kept);
        lit += sent * bright;
        around += sent * (0.4 + 0.6 * f);
        through *= kept;
      }
      const o = (j * width + i) * 3;
      texels[o] = lit;
      texels[o + 1] = around;
      texels[o + 2] = through;
    }
  }
  return { width, height, texels, sunThrough };
}
