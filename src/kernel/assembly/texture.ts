// Texture lookup: 8-bit rgba, sRGB or linear, mip levels made by the host, bilinear, one level chosen at random between
// the two nearest so that the mean over samples is the trilinear value at the cost of one; what scattered light sees is
// the texel nearest.
// The level comes from the ray's footprint. Source: Akenine-Moeller et al. 2019, Texture Level of Detail Strategies for
// Real-Time Ray Tracing (ray cones), equation 34.
import {
  M_SLOTS,
  P_SRGB_LUT_PTR,
  P_TEXTURES_PTR,
  PACK,
  SLOT_BYTES,
  SLOT_LOG_SCALE,
  SLOT_TRANSFORM,
  T_LEVELS,
  T_LOG_TEXELS,
  TEXTURE_BYTES,
  WRAP_BROKEN,
  WRAP_CLAMP,
  WRAP_MIRROR
} from './layout';

/** The value looked up last; colour channels linear. */
export let texR: f32 = 0;
export let texG: f32 = 0;
export let texB: f32 = 0;
export let texA: f32 = 0;

/** uv of both sets at the hit, and log2 of the footprint in uv units; set by surface.ts before any lookup. */
export let uv0x: f32 = 0;
export let uv0y: f32 = 0;
export let uv1x: f32 = 0;
export let uv1y: f32 = 0;
export let footprint: f32 = -30;
export let levelDither: f32 = 0.5;
let nearest = false;

export function setUv(ax: f32, ay: f32, bx: f32, by: f32, log2Footprint: f32, dither: f32, blurred: bool): void {
  uv0x = ax;
  uv0y = ay;
  uv1x = bx;
  uv1y = by;
  footprint = log2Footprint;
  levelDither = dither;
  nearest = blurred;
}

/**
 * The texel that one of -1 to 2 size stands for, where its texture goes on; no division, which took a quarter of a
 * lookup.
 */
function wrapped(i: i32, size: i32, mode: u32): i32 {
  if (mode != WRAP_CLAMP) {
    let odd = false;
    if (i < 0) {
      i += size;
      odd = true;
    } else if (i >= size) {
      i -= size;
      odd = true;
      if (i >= size) {
        i -= size;
        odd = false;
      }
    }
    if (odd && mode == WRAP_MIRROR) i = size - 1 - i;
  }
  return max<i32>(0, min<i32>(size - 1, i));
}

// @ts-ignore: decorator
@inline
function addTexel(address: usize, weight: f32, lut: usize): void {
  const texel = load<u32>(address);
  if (lut) {
    texR += weight * load<f32>(lut + ((texel & 255) << 2));
    texG += weight * load<f32>(lut + (((texel >> 8) & 255) << 2));
    texB += weight * load<f32>(lut + (((texel >> 16) & 255) << 2));
  } else {
    const scaled: f32 = weight * <f32>0.00392156862745098;
    texR += scaled * <f32>(texel & 255);
    texG += scaled * <f32>((texel >> 8) & 255);
    texB += scaled * <f32>((texel >> 16) & 255);
  }
  texA += weight * <f32>0.00392156862745098 * <f32>(texel >> 24);
}

export function hasTexture(material: usize, slot: i32): bool {
  return load<i32>(material + M_SLOTS + <usize>(slot * SLOT_BYTES)) >= 0;
}

// Corners of the grid of triangles along a side of the texture.
const CORNERS: f32 = 1.6;
let shiftU: f32 = 0;
let shiftV: f32 = 0;

/**
 * By how much the lookup at a place is moved so that repeats are broken up. The plane is covered by triangles whose
 * corners have each a random shift of their own; near a corner its shift is taken, between them one of the three at
 * random, so that the mean over samples is their blend. Sources: Heitz and Neyret 2018, High-performance by-example noise
 * (the grid); Mikkelsen 2022, Practical real-time hex-tiling (weights to the seventh power keep the contrast); both from
 * memory.
 */
function breakUp(u: f32, v: f32): void {
  const y = v * CORNERS;
  const sx = u * CORNERS - y * <f32>0.57735027,
    sy = y * <f32>1.15470054;
  const bx = floor<f32>(sx),
    by = floor<f32>(sy),
    fx = sx - bx,
    fy = sy - by;
  const upper = fx + fy > 1;
  const w0 = seventh(upper ? fx + fy - 1 : 1 - fx - fy),
    w1 = seventh(upper ? 1 - fy : fx),
    w2 = seventh(upper ? 1 - fx : fy);
  // the lower bits of what chose the level are as good as another number
  const bits = levelDither * 4096;
  const chosen = (bits - floor<f32>(bits)) * (w0 + w1 + w2);
  let i = <i32>bx,
    j = <i32>by;
  if (chosen < w0) {
    if (upper) {
      i++;
      j++;
    }
  } else if (chosen < w0 + w1) i++;
  else j++;
  let h: u32 = (<u32>i * 0x8da6b343) ^ (<u32>j * 0xd8163841);
  h = (h ^ (h >> 16)) * 0x7feb352d;
  h = (h ^ (h >> 15)) * 0x846ca68b;
  h ^= h >> 16;
  shiftU = <f32>(h & 0xffff) * <f32>(1.0 / 65536.0);
  shiftV = <f32>(h >> 16) * <f32>(1.0 / 65536.0);
}

// @ts-ignore: decorator
@inline
function seventh(w: f32): f32 {
  const w2 = w * w;
  return w * w2 * w2 * w2;
}

/** Looks up a slot of a material that has a texture. */
export function lookUp(material: usize, slot: i32): void {
  const s = material + M_SLOTS + <usize>(slot * SLOT_BYTES);
  const texture = <usize>load<u32>(PACK + P_TEXTURES_PTR) + <usize>(load<i32>(s) * TEXTURE_BYTES);
  const x = load<u32>(s, 4) ? uv1x : uv0x,
    y = load<u32>(s, 4) ? uv1y : uv0y;
  const m = s + SLOT_TRANSFORM;
  let u = load<f32>(m) * x + load<f32>(m, 4) * y + load<f32>(m, 8);
  let v = load<f32>(m, 12) * x + load<f32>(m, 16) * y + load<f32>(m, 20);
  const wrapS = load<u32>(s, 8) & 255,
    wrapT = load<u32>(s, 8) >> 8;
  if (wrapS == WRAP_BROKEN) {
    breakUp(u, v);
    u += shiftU;
    v += shiftV;
  }
  const levels = load<i32>(texture, 8);
  const wanted = footprint + load<f32>(texture, T_LOG_TEXELS) + load<f32>(s, SLOT_LOG_SCALE) + levelDither;
  const level = max<i32>(0, min<i32>(levels - 1, <i32>floor<f32>(max<f32>(wanted, -1))));
  const w = max<i32>(1, load<i32>(texture) >> level),
    h = max<i32>(1, load<i32>(texture, 4) >> level);
  const data = <usize>load<u32>(texture + ((<usize>level) << 2), T_LEVELS);
  const lut: usize = load<u32>(texture, 12) ? <usize>load<u32>(PACK + P_SRGB_LUT_PTR) : 0;
  const across = (u - (wrapS == WRAP_CLAMP ? 0 : floor<f32>(u * <f32>0.5) * 2)) * <f32>w,
    down = (v - (wrapT == WRAP_CLAMP ? 0 : floor<f32>(v * <f32>0.5) * 2)) * <f32>h;
  texR = 0;
  texG = 0;
  texB = 0;
  texA = 0;
  if (nearest) {
    addTexel(
      data +
        ((<usize>(wrapped(<i32>floor<f32>(down), h, wrapT) * w + wrapped(<i32>floor<f32>(across), w, wrapS))) << 2),
      1,
      lut
    );
    return;
  }
  const px = across - <f32>0.5,
    py = down - <f32>0.5;
  const bx = floor<f32>(px),
    by = floor<f32>(py),
    fx = px - bx,
    fy = py - by;
  const x0 = wrapped(<i32>bx, w, wrapS),
    x1 = wrapped(<i32>bx + 1, w, wrapS),
    y0 = wrapped(<i32>by, h, wrapT),
    y1 = wrapped(<i32>by + 1, h, wrapT);
  addTexel(data + ((<usize>(y0 * w + x0)) << 2), (<f32>1 - fx) * (<f32>1 - fy), lut);
  addTexel(data + ((<usize>(y0 * w + x1)) << 2), fx * (<f32>1 - fy), lut);
  addTexel(data + ((<usize>(y1 * w + x0)) << 2), (<f32>1 - fx) * fy, lut);
  addTexel(data + ((<usize>(y1 * w + x1)) << 2), fx * fy, lut);
}
