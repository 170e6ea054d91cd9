// A field of stars that nobody has charted: as many of each magnitude as the true sky has, at places that a hash gives.
// Seen by the camera, in mirrors and through clear glass; too faint to light anything, and their sum is in the sky's
// own glow already. Counts: about 8,000 to magnitude 6.5, three times as many for each magnitude more (star counts of
// the naked eye's sky, from memory). A star is a spot of the eye's or the pixel's own fineness, whichever is larger, of
// the star's illuminance: magnitude 0 is 2.54e-6 lx.
import { SETTINGS, S_ENV_HEIGHT, S_ENV_WIDTH, S_STARS, S_STARS_AXES, S_STARS_CLEAR } from './layout';
import { atan2, cosOut, exp, log2, PI, sinCosTurns, sinOut } from './math';

export let starR: f32 = 0;
export let starG: f32 = 0;
export let starB: f32 = 0;

// Cells of equal solid angle, a star in each.
const ROWS: i32 = 64;
const COLUMNS: i32 = 128;
const FAINTEST_LX: f32 = 6.38e-9; // magnitude 6.5
const FINEST: f32 = 0.0002; // rad
const COARSEST: f32 = 0.0024; // a wider spot would reach beyond its cell
const INV_TWO_PI: f32 = 0.159154943091895;
const UNIT: f32 = 2.3283064365386963e-10;

// @ts-ignore: decorator
@inline
function hash(x: u32): u32 {
  // Wellons 2018, Prospecting for hash functions (lowbias32), constants from memory
  x ^= x >> 16;
  x *= 0x7feb352d;
  x ^= x >> 15;
  x *= 0x846ca68b;
  x ^= x >> 16;
  return x;
}

/**
 * What of a star is seen in a direction through a cone of `spread` radians, into starR, starG, starB, cd/m2; false for
 * nothing.
 */
export function starlight(x: f32, y: f32, z: f32, spread: f32): bool {
  const gain = load<f32>(SETTINGS + S_STARS);
  if (gain <= 0 || y <= <f32>0.005) return false;
  const axes = SETTINGS + S_STARS_AXES;
  const ex = load<f32>(axes) * x + load<f32>(axes, 4) * y + load<f32>(axes, 8) * z;
  const ey = load<f32>(axes, 12) * x + load<f32>(axes, 16) * y + load<f32>(axes, 20) * z;
  const ez = load<f32>(axes, 24) * x + load<f32>(axes, 28) * y + load<f32>(axes, 32) * z;
  const row = max<i32>(0, min<i32>(ROWS - 1, <i32>((ez * <f32>0.5 + <f32>0.5) * <f32>ROWS)));
  const column = max<i32>(0, min<i32>(COLUMNS - 1, <i32>((atan2(ey, ex) * INV_TWO_PI + <f32>0.5) * <f32>COLUMNS)));
  const first = hash(<u32>(row * COLUMNS + column) + 0x9e3779b9),
    second = hash(first ^ 0x68bc21eb),
    third = hash(second ^ 0x02e5be93),
    fourth = hash(third ^ 0x967a889b);
  // away from the cell's edges, so that no other cell has a part of it
  const height = ((<f32>row + <f32>0.15 + <f32>0.7 * (<f32>first * UNIT)) / <f32>ROWS) * <f32>2 - <f32>1,
    wide = sqrt<f32>(max<f32>(0, <f32>1 - height * height));
  sinCosTurns((<f32>column + <f32>0.15 + <f32>0.7 * (<f32>second * UNIT)) / <f32>COLUMNS - <f32>0.5);
  const dx = ex - wide * cosOut,
    dy = ey - wide * sinOut,
    dz = ez - height,
    off = dx * dx + dy * dy + dz * dz;
  const size = max<f32>(FINEST, min<f32>(COARSEST, spread)),
    over = off / (<f32>2 * size * size);
  if (over > 9) return false;
  const seen = clearShare(x, y, z);
  if (seen <= 0) return false;
  // of N stars to a magnitude the k-th brightest gives (N / k)^(0.4 / 0.51) times the faintest's light
  const rank = max<f32>(<f32>1.2e-4, <f32>third * UNIT);
  const lux = FAINTEST_LX * exp(<f32>-0.543632 * log2(rank));
  // a way through the air that takes a fifth of it overhead
  const k =
    (gain * seen * lux * exp(-over) * exp(<f32>-0.2 * (<f32>1 / max<f32>(y, <f32>0.03)))) / (<f32>2 * PI * size * size);
  // from bluish to reddish, most of them near white
  const warm = <f32>fourth * UNIT,
    tint = (warm - <f32>0.4) * (warm > <f32>0.4 ? <f32>0.9 : <f32>0.5);
  starR = k * (<f32>1 + <f32>0.5 * tint);
  starG = k;
  starB = k * (<f32>1 - <f32>0.9 * tint);
  return true;
}

/** What clouds leave of it. */
function clearShare(x: f32, y: f32, z: f32): f32 {
  const data = <usize>load<u32>(SETTINGS + S_STARS_CLEAR);
  if (!data) return 1;
  const w = load<i32>(SETTINGS + S_ENV_WIDTH),
    h = load<i32>(SETTINGS + S_ENV_HEIGHT);
  const u = atan2(z, x) * INV_TWO_PI + <f32>0.5,
    v = atan2(sqrt<f32>(x * x + z * z), y) * INV_TWO_PI * <f32>2;
  const column = max<i32>(0, min<i32>(w - 1, <i32>(u * <f32>w))),
    row = max<i32>(0, min<i32>(h - 1, <i32>(v * <f32>h)));
  return <f32>load<u8>(data + <usize>(row * w + column)) * <f32>0.00392156862745098;
}
