// Luminous intensity of a lamp with a photometric web: a table over planes C and angles gamma (CIE 121), linear in
// both. gamma runs from the lamp's axis, 0 to 180 degrees; C counterclockwise as seen against the axis, from the lamp's
// plane C0.
import { L_AXIS, L_PLANE, L_WEB, WEB_ANGLES, WEB_CANDELA, WEB_PLANES } from './layout';
import { atan2, INV_PI } from './math';

/** Intensity of web light `l` towards (dx, dy, dz), whose squared length is d2; cd. */
export function candela(l: usize, dx: f32, dy: f32, dz: f32, d2: f32): f32 {
  const ax = load<f32>(l, L_AXIS),
    ay = load<f32>(l, L_AXIS + 4),
    az = load<f32>(l, L_AXIS + 8);
  const along = dx * ax + dy * ay + dz * az,
    web = <usize>load<u32>(l, L_WEB);
  const angles = load<i32>(web, WEB_ANGLES),
    planes = load<i32>(web, WEB_PLANES);
  const gamma = atan2(sqrt<f32>(max<f32>(d2 - along * along, 0)), along) * INV_PI * <f32>(angles - 1);
  const g = min<i32>(<i32>gamma, angles - 2),
    r = gamma - <f32>g;
  if (planes == 1) return row(web, 0, g, r, angles);
  const px = load<f32>(l, L_PLANE),
    py = load<f32>(l, L_PLANE + 4),
    pz = load<f32>(l, L_PLANE + 8);
  const x = dx * px + dy * py + dz * pz,
    y = dx * (py * az - pz * ay) + dy * (pz * ax - px * az) + dz * (px * ay - py * ax);
  let turn = atan2(y, x) * INV_PI * <f32>0.5;
  if (turn < 0) turn += 1;
  const c = turn * <f32>planes,
    p = min<i32>(<i32>c, planes - 1),
    s = c - <f32>p;
  return row(web, p, g, r, angles) * (<f32>1 - s) + row(web, p + 1 == planes ? 0 : p + 1, g, r, angles) * s;
}

function row(web: usize, plane: i32, angle: i32, rest: f32, angles: i32): f32 {
  const at = web + WEB_CANDELA + ((<usize>(plane * angles + angle)) << 2),
    low = load<f32>(at);
  return low + (load<f32>(at, 4) - low) * rest;
}
