// Light from around the model: an even radiance or a latitude-longitude image, and the sun as a disc of its true size.
// Frame: +Y up; image column u = atan2(z, x) / 2 pi + 1/2, row v = angle from +Y over pi, turned about +Y by the
// settings. The image is seen with bilinear filtering, a large one by the halved copy that fits what is seen together,
// mixed of two (Williams 1983); it is sampled from an importance grid of its coarsest copy, whose cells hold the
// solid-angle-weighted mean of what bilinear filtering can show in them, so the pdf is positive wherever radiance is.
// Light that is scattered widely sees the mean of a cell where that is even: waiting for the image's texels, which are
// more than a core's cache holds, took 3 % of a path's time in the demo's room.
import {
  ENV_EVEN,
  ENV_IMAGE,
  GRID_CELL_BYTES,
  GRID_MEAN,
  S_ENV_COS,
  S_ENV_HEIGHT,
  S_ENV_KIND,
  S_ENV_LEVELS,
  S_ENV_PTR,
  S_ENV_SCALE,
  S_ENV_SIN,
  S_ENV_WIDTH,
  S_DISC_LIMB,
  S_EVEN,
  S_GRID_DENSITY,
  S_GRID_HEIGHT,
  S_GRID_PTR,
  S_GRID_WIDTH,
  S_MOON,
  S_MOON_COS,
  S_MOON_SIDE,
  S_SUN,
  S_SUN_COS,
  S_SUN_DIRECTION,
  S_SUN_RADIANCE,
  SETTINGS
} from './layout';
import { atan2, cosOut, log2, PI, sinCosTurns, sinOut } from './math';
import * as portals from './portals';

export let eR: f32 = 0;
export let eG: f32 = 0;
export let eB: f32 = 0;
/** Direction sampled last, and its pdf per solid angle. */
export let sx: f32 = 0;
export let sy: f32 = 0;
export let sz: f32 = 0;
export let sPdf: f32 = 0;

// Of the samples in a room, those that go through its portals; the rest covers openings that are none.
const PORTAL_SHARE: f32 = 0.75;
const OPEN_SHARE: f32 = 0.25;
const INV_TWO_PI: f32 = 0.159154943091895;
const INV_PI: f32 = 0.318309886183791;

export function hasSky(): bool {
  return load<u32>(SETTINGS + S_ENV_KIND) != 0;
}

export function hasSun(): bool {
  return load<u32>(SETTINGS + S_SUN) != 0;
}

let u: f32 = 0;
let v: f32 = 0;
let cell: usize = 0; // of the importance grid
/** Turns to a direction, as sampling one does: what is asked next is of there. */
export function face(x: f32, y: f32, z: f32): void {
  if (load<u32>(SETTINGS + S_ENV_KIND) != ENV_IMAGE) return;
  const c = load<f32>(SETTINGS + S_ENV_COS),
    s = load<f32>(SETTINGS + S_ENV_SIN);
  u = atan2(s * x + c * z, c * x - s * z) * INV_TWO_PI + <f32>0.5;
  v = downTo(x, y, z);
  const w = load<i32>(SETTINGS + S_GRID_WIDTH),
    h = load<i32>(SETTINGS + S_GRID_HEIGHT);
  const column = max<i32>(0, min<i32>(w - 1, <i32>(u * <f32>w))),
    row = max<i32>(0, min<i32>(h - 1, <i32>(v * <f32>h)));
  cell = <usize>load<u32>(SETTINGS + S_GRID_PTR) + <usize>((row * w + column) * GRID_CELL_BYTES);
}

// @ts-ignore: decorator
@inline
function downTo(x: f32, y: f32, z: f32): f32 {
  return atan2(sqrt<f32>(x * x + z * z), y) * INV_PI;
}

/**
 * The angle that light scattered with a density (per solid angle) sees together: a quarter of a lobe of that density,
 * or the pixel; a mirror has density 0. Both strategies of multiple importance sampling know it for a direction, so
 * they see the same.
 */
function seenTogether(pdf: f32, pixel: f32): f32 {
  return pdf > 0 ? max<f32>(<f32>0.25 / sqrt<f32>(pdf), pixel) : pixel;
}

/**
 * Radiance of the surroundings without the sun disc in the direction faced, into eR, eG, eB, for light that is
 * scattered into it with a density (per solid angle); a mirror or the camera has density 0 and sees a pixel of so many
 * radians. Scattered light sees one copy of the image, the fittest; else two are mixed, so that no step is seen.
 */
export function skyRadiance(pdf: f32, pixel: f32): void {
  if (load<u32>(SETTINGS + S_ENV_KIND) == ENV_EVEN) {
    eR = load<f32>(SETTINGS + S_EVEN);
    eG = load<f32>(SETTINGS + S_EVEN, 4);
    eB = load<f32>(SETTINGS + S_EVEN, 8);
    return;
  }
  if (load<u32>(SETTINGS + S_ENV_KIND) != ENV_IMAGE) {
    eR = 0;
    eG = 0;
    eB = 0;
    return;
  }
  if (pdf > 0 && pdf <= load<f32>(SETTINGS + S_GRID_DENSITY)) {
    const mean = v128.load(cell, GRID_MEAN); // and the next cell's density
    if (f32x4.extract_lane(mean, 0) >= 0) {
      const k = load<f32>(SETTINGS + S_ENV_SCALE);
      eR = f32x4.extract_lane(mean, 0) * k;
      eG = f32x4.extract_lane(mean, 1) * k;
      eB = f32x4.extract_lane(mean, 2) * k;
      return;
    }
  }
  if (v < 0) v = downTo(sx, sy, sz);
  const w = load<i32>(SETTINGS + S_ENV_WIDTH),
    h = load<i32>(SETTINGS + S_ENV_HEIGHT),
    data = <usize>load<u32>(SETTINGS + S_ENV_PTR),
    levels = load<i32>(SETTINGS + S_ENV_LEVELS);
  if (levels == 0) {
    lookUp(data, w, h);
    return;
  }
  const wanted = min<f32>(
      <f32>levels,
      max<f32>(0, log2(max<f32>(seenTogether(pdf, pixel), <f32>1e-9) * <f32>h * INV_PI))
    ),
    finer = min<i32>(<i32>(pdf > 0 ? wanted + 0.5 : wanted), levels),
    mix = wanted - <f32>finer;
  const at = levelAt(data, w, h, finer),
    across = w >> finer,
    down = h >> finer;
  lookUp(at, across, down);
  if (mix <= 0 || pdf > 0) return;
  const r = eR,
    g = eG,
    b = eB;
  lookUp(at + <usize>(across * down) * 12, across >> 1, down >> 1);
  eR = r + (eR - r) * mix;
  eG = g + (eG - g) * mix;
  eB = b + (eB - b) * mix;
}

function levelAt(data: usize, w: i32, h: i32, level: i32): usize {
  for (let i = 0; i < level; i++) {
    data += <usize>(w * h) * 12;
    w >>= 1;
    h >>= 1;
  }
  return data;
}

/** At u and v, in an image or a copy of it. */
function lookUp(data: usize, w: i32, h: i32): void {
  const fx = u * <f32>w - <f32>0.5,
    fy = v * <f32>h - <f32>0.5,
    x0f = floor<f32>(fx),
    y0f = floor<f32>(fy),
    ax = fx - x0f,
    ay = fy - y0f;
  let x0 = <i32>x0f,
    x1 = x0 + 1;
  if (x0 < 0) x0 += w;
  if (x1 >= w) x1 -= w;
  const y0 = max<i32>(0, <i32>y0f),
    y1 = min<i32>(h - 1, <i32>y0f + 1);
  const p = data + <usize>(y0 * w + x0) * 12,
    q = data + <usize>(y0 * w + x1) * 12,
    r = data + <usize>(y1 * w + x0) * 12,
    t = data + <usize>(y1 * w + x1) * 12;
  const k = load<f32>(SETTINGS + S_ENV_SCALE),
    a = (<f32>1 - ax) * (<f32>1 - ay) * k,
    b = ax * (<f32>1 - ay) * k,
    c = (<f32>1 - ax) * ay * k,
    d = ax * ay * k;
  // the fourth number is the next texel's, or what stands behind the image
  const seen = f32x4.add(
    f32x4.add(
      f32x4.add(f32x4.mul(f32x4.splat(a), v128.load(p)), f32x4.mul(f32x4.splat(b), v128.load(q))),
      f32x4.mul(f32x4.splat(c), v128.load(r))
    ),
    f32x4.mul(f32x4.splat(d), v128.load(t))
  );
  eR = f32x4.extract_lane(seen, 0);
  eG = f32x4.extract_lane(seen, 1);
  eB = f32x4.extract_lane(seen, 2);
}

/**
 * Density per solid angle of sampleSky in the direction faced, given once more, at the place that the portals were
 * weighed for.
 */
export function skyPdf(x: f32, y: f32, z: f32): f32 {
  return portals.areOpen() ? PORTAL_SHARE * portals.pdf(x, y, z) + OPEN_SHARE * openPdf() : openPdf();
}

/**
 * Samples a direction of the surroundings and faces it, for a surface of normal (nx, ny, nz); false, before it is
 * faced, when it lies behind one that light from `behind` does nothing for. In a room most samples go through its
 * portals.
 */
export function sampleSky(u0: f32, u1: f32, nx: f32, ny: f32, nz: f32, behind: bool): bool {
  const inRoom = portals.areOpen(),
    throughPane = inRoom && u0 >= OPEN_SHARE;
  if (throughPane) {
    portals.sample((u0 - OPEN_SHARE) / PORTAL_SHARE, u1);
    sx = portals.dx;
    sy = portals.dy;
    sz = portals.dz;
  } else sampleOpen(inRoom ? u0 / OPEN_SHARE : u0, u1);
  if (!behind && sx * nx + sy * ny + sz * nz <= 0) return false;
  if (throughPane) {
    face(sx, sy, sz);
    sPdf = openPdf();
  }
  if (inRoom) sPdf = OPEN_SHARE * sPdf + PORTAL_SHARE * portals.pdf(sx, sy, sz);
  return sPdf > 0;
}

function openPdf(): f32 {
  return load<u32>(SETTINGS + S_ENV_KIND) == ENV_EVEN ? INV_PI * <f32>0.25 : load<f32>(cell);
}

/** Leaves v, negative, to be found from the direction where it is wanted. */
function sampleOpen(u0: f32, u1: f32): void {
  if (load<u32>(SETTINGS + S_ENV_KIND) == ENV_EVEN) {
    const z = <f32>1 - 2 * u0,
      r = sqrt<f32>(max<f32>(0, <f32>1 - z * z));
    sinCosTurns(u1);
    sx = r * cosOut;
    sy = z;
    sz = r * sinOut;
    sPdf = INV_PI * <f32>0.25;
    return;
  }
  const w = load<i32>(SETTINGS + S_GRID_WIDTH),
    h = load<i32>(SETTINGS + S_GRID_HEIGHT),
    count = w * h,
    grid = <usize>load<u32>(SETTINGS + S_GRID_PTR);
  // u0 chooses the cell (alias method, Walker 1977) and, by what is left of it, the place across; u1 the place along
  const scaled = u0 * <f32>count;
  let i = min<i32>(<i32>scaled, count - 1),
    rest = scaled - <f32>i;
  cell = grid + <usize>(i * GRID_CELL_BYTES);
  const threshold = load<f32>(cell, 4);
  if (rest < threshold) rest /= threshold;
  else {
    rest = (rest - threshold) / max<f32>(<f32>1 - threshold, <f32>1e-9);
    i = load<i32>(cell, 8);
    cell = grid + <usize>(i * GRID_CELL_BYTES);
  }
  const row = i / w,
    column = i - row * w;
  sPdf = load<f32>(cell);
  // within the band, height must be uniform in cos for the pdf to be constant
  const above = grid + <usize>(count * GRID_CELL_BYTES) + ((<usize>row) << 2),
    top = load<f32>(above),
    y = top + (load<f32>(above, 4) - top) * u1,
    r = sqrt<f32>(max<f32>(0, <f32>1 - y * y));
  u = (<f32>column + min<f32>(rest, <f32>0.9999)) / <f32>w;
  sinCosTurns(u - <f32>0.5);
  const c = load<f32>(SETTINGS + S_ENV_COS),
    s = load<f32>(SETTINGS + S_ENV_SIN),
    ix = r * cosOut,
    iz = r * sinOut;
  sx = c * ix + s * iz;
  sy = y;
  sz = c * iz - s * ix;
  v = -1;
}

/** One over the sun disc's solid angle when the direction lies on it, else 0. */
export function sunPdf(x: f32, y: f32, z: f32): f32 {
  if (!hasSun()) return 0;
  const dx = x - load<f32>(SETTINGS + S_SUN_DIRECTION),
    dy = y - load<f32>(SETTINGS + S_SUN_DIRECTION, 4),
    dz = z - load<f32>(SETTINGS + S_SUN_DIRECTION, 8);
  const cap = load<f32>(SETTINGS + S_SUN_COS); // 1 - cos
  // |a - b|^2 = 2 (1 - cos), without the cancellation of a dot product
  return dx * dx + dy * dy + dz * dz <= <f32>2 * cap ? INV_TWO_PI / cap : 0;
}

/** Radiance of the disc of sun or moon in a direction on it, into eR, eG, eB. */
export function sunRadiance(x: f32, y: f32, z: f32): void {
  eR = load<f32>(SETTINGS + S_SUN_RADIANCE);
  eG = load<f32>(SETTINGS + S_SUN_RADIANCE, 4);
  eB = load<f32>(SETTINGS + S_SUN_RADIANCE, 8);
  const dx = x - load<f32>(SETTINGS + S_SUN_DIRECTION),
    dy = y - load<f32>(SETTINGS + S_SUN_DIRECTION, 4),
    dz = z - load<f32>(SETTINGS + S_SUN_DIRECTION, 8);
  const radius2 = <f32>2 * load<f32>(SETTINGS + S_SUN_COS);
  // of the disc's radius, squared; the sky is flat over half a degree
  const out = min<f32>(1, (dx * dx + dy * dy + dz * dz) / radius2);
  if (load<u32>(SETTINGS + S_MOON)) {
    const along =
      (dx * load<f32>(SETTINGS + S_MOON_SIDE) +
        dy * load<f32>(SETTINGS + S_MOON_SIDE, 4) +
        dz * load<f32>(SETTINGS + S_MOON_SIDE, 8)) /
      sqrt<f32>(radius2);
    if (along < -load<f32>(SETTINGS + S_MOON_COS) * sqrt<f32>(max<f32>(0, <f32>1 - out + along * along))) {
      eR = 0;
      eG = 0;
      eB = 0;
    }
    return;
  }
  const falls = <f32>1 - sqrt<f32>(<f32>1 - out);
  eR *= <f32>1 - load<f32>(SETTINGS + S_DISC_LIMB) * falls;
  eG *= <f32>1 - load<f32>(SETTINGS + S_DISC_LIMB, 4) * falls;
  eB *= <f32>1 - load<f32>(SETTINGS + S_DISC_LIMB, 8) * falls;
}

/** Whether all of the sun's disc is behind a surface of this normal. */
export function sunBehind(x: f32, y: f32, z: f32): bool {
  const d = SETTINGS + S_SUN_DIRECTION,
    cosine = x * load<f32>(d) + y * load<f32>(d, 4) + z * load<f32>(d, 8);
  return cosine < 0 && cosine * cosine > 2 * load<f32>(SETTINGS + S_SUN_COS); // sine of its radius: cap (2 - cap)
}

/** Samples a direction on the sun disc, uniformly in solid angle. */
export function sampleSun(u0: f32, u1: f32): void {
  const cap = load<f32>(SETTINGS + S_SUN_COS),
    drop = cap * u0,
    r = sqrt<f32>(max<f32>(0, drop * (<f32>2 - drop)));
  const dx = load<f32>(SETTINGS + S_SUN_DIRECTION),
    dy = load<f32>(SETTINGS + S_SUN_DIRECTION, 4),
    dz = load<f32>(SETTINGS + S_SUN_DIRECTION, 8);
  const sign = copysign<f32>(1, dz),
    p: f32 = -(<f32>1) / (sign + dz),
    q = dx * dy * p;
  sinCosTurns(u1);
  const a = r * cosOut,
    b = r * sinOut,
    c = <f32>1 - drop;
  sx = (<f32>1 + sign * dx * dx * p) * a + q * b + dx * c;
  sy = sign * q * a + (sign + dy * dy * p) * b + dy * c;
  sz = -sign * dx * a - dy * b + dz * c;
  sPdf = INV_TWO_PI / cap;
  sunRadiance(sx, sy, sz);
}
