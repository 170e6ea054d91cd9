// The ray of a sample: perspective or parallel, with shift and a thin lens, or once around (equirectangular).
// Frame: world metres; image x right, y down.
// The pixel filter is drawn by importance (Ernst, Stamminger, Greiner 2006), so samples need no weights.
import {
  FILTER_STEPS,
  S_EYE,
  S_FILTER_TABLE,
  S_FOCUS,
  S_FORWARD,
  S_HALF_HEIGHT,
  S_HALF_WIDTH,
  S_HEIGHT,
  S_LENS_RADIUS,
  PROJECTION_PANORAMA,
  PROJECTION_PARALLEL,
  S_PROJECTION,
  S_SECTION,
  S_RIGHT,
  S_SHIFT_X,
  S_SHIFT_Y,
  S_UP,
  S_WIDTH,
  SETTINGS
} from './layout';
import { cosOut, sinCosTurns, sinOut } from './math';

/** Width of a pixel's cone at the origin (m) and its growth per metre. */
export let coneWidth: f32 = 0;
export let coneSpread: f32 = 0;

function filtered(u: f32): f32 {
  const s = u * <f32>FILTER_STEPS,
    i = min<i32>(<i32>s, FILTER_STEPS - 1),
    p: usize = SETTINGS + S_FILTER_TABLE + (i << 2);
  const a = load<f32>(p);
  return a + (load<f32>(p, 4) - a) * (s - <f32>i);
}

const TURNS: f32 = 0.15915494309189535;

/** How far a ray of the camera runs before it is through the section plane; endless where it never is. */
function sectionStart(ox: f32, oy: f32, oz: f32, dx: f32, dy: f32, dz: f32): f32 {
  const p: usize = SETTINGS + S_SECTION;
  const nx = load<f32>(p),
    ny = load<f32>(p, 4),
    nz = load<f32>(p, 8);
  if (nx == 0 && ny == 0 && nz == 0) return 0;
  const before = nx * ox + ny * oy + nz * oz - load<f32>(p, 12);
  if (before <= 0) return 0;
  const towards = nx * dx + ny * dy + nz * dz;
  return towards < 0 ? -before / towards : Infinity;
}

/**
 * Writes origin and direction of the ray through pixel (x, y) to `ray`, which keeps its t min and gets an endless t
 * max.
 */
export function cameraRay(ray: usize, x: i32, y: i32, fu: f32, fv: f32, lu: f32, lv: f32): void {
  const s: usize = SETTINGS;
  const w = <f32>load<i32>(s + S_WIDTH),
    h = <f32>load<i32>(s + S_HEIGHT);
  const hw = load<f32>(s + S_HALF_WIDTH),
    hh = load<f32>(s + S_HALF_HEIGHT);
  const ix = (((<f32>x + <f32>0.5 + filtered(fu)) / w) * 2 - <f32>1 + load<f32>(s + S_SHIFT_X)) * hw;
  const iy = (<f32>1 - ((<f32>y + <f32>0.5 + filtered(fv)) / h) * <f32>2 + load<f32>(s + S_SHIFT_Y)) * hh;
  const rx = load<f32>(s + S_RIGHT),
    ry = load<f32>(s + S_RIGHT + 4),
    rz = load<f32>(s + S_RIGHT + 8);
  const ux = load<f32>(s + S_UP),
    uy = load<f32>(s + S_UP + 4),
    uz = load<f32>(s + S_UP + 8);
  const fx = load<f32>(s + S_FORWARD),
    fy = load<f32>(s + S_FORWARD + 4),
    fz = load<f32>(s + S_FORWARD + 8);
  let ox = load<f32>(s + S_EYE),
    oy = load<f32>(s + S_EYE + 4),
    oz = load<f32>(s + S_EYE + 8);
  let dx = fx,
    dy = fy,
    dz = fz;
  const projection = load<u32>(s + S_PROJECTION);
  if (projection == PROJECTION_PARALLEL) {
    ox += ix * rx + iy * ux;
    oy += ix * ry + iy * uy;
    oz += ix * rz + iy * uz;
    coneWidth = (<f32>2 * hw) / w;
    coneSpread = 0;
  } else if (projection == PROJECTION_PANORAMA) {
    // angles in turns, right of forward and above the horizon
    sinCosTurns(iy * TURNS);
    const level = cosOut,
      above = sinOut;
    sinCosTurns(ix * TURNS);
    const ahead = cosOut * level,
      aside = sinOut * level;
    dx = ahead * fx + aside * rx + above * ux;
    dy = ahead * fy + aside * ry + above * uy;
    dz = ahead * fz + aside * rz + above * uz;
    coneWidth = 0;
    coneSpread = (<f32>2 * hw) / w;
  } else {
    dx += ix * rx + iy * ux;
    dy += ix * ry + iy * uy;
    dz += ix * rz + iy * uz;
    const lens = load<f32>(s + S_LENS_RADIUS);
    if (lens > 0) {
      const focus = load<f32>(s + S_FOCUS),
        r = lens * sqrt<f32>(lu);
      sinCosTurns(lv);
      const a = r * cosOut,
        b = r * sinOut;
      const px = a * rx + b * ux,
        py = a * ry + b * uy,
        pz = a * rz + b * uz;
      dx = dx * focus - px;
      dy = dy * focus - py;
      dz = dz * focus - pz;
      ox += px;
      oy += py;
      oz += pz;
    }
    coneWidth = 0;
    coneSpread = (<f32>2 * hw) / w;
  }
  const k: f32 = <f32>1 / sqrt<f32>(dx * dx + dy * dy + dz * dz);
  store<f32>(ray, ox);
  store<f32>(ray, oy, 4);
  store<f32>(ray, oz, 8);
  store<f32>(ray, sectionStart(ox, oy, oz, dx * k, dy * k, dz * k), 12);
  store<f32>(ray, dx * k, 16);
  store<f32>(ray, dy * k, 20);
  store<f32>(ray, dz * k, 24);
  store<f32>(ray, Infinity, 28);
}
