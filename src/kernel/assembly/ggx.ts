// GGX in the local frame (z = normal), stretched along x and y: distribution, Smith's shadowing, sampling of visible
// normals. Sources: Walter et al. 2007; Heitz 2014, JCGT 3(2) (anisotropic, equations 84 to 86); Heitz 2018, JCGT 7(4),
// listing 1.
import { cosOut, INV_PI, sinCosTurns, sinOut } from './math';

/** Normal sampled last. */
export let hX: f32 = 0;
export let hY: f32 = 0;
export let hZ: f32 = 1;

// sin2 comes from x and y, not from 1 - z^2, which cancels near the mirror direction
// @ts-ignore: decorator
@inline
export function distribution(hx: f32, hy: f32, hz: f32, ax: f32, ay: f32): f32 {
  const a2 = ax * ay;
  let d = a2 * hz * hz;
  if (ax == ay) d += hx * hx + hy * hy;
  else {
    const k = ay / ax;
    d += k * hx * hx + (hy * hy) / k;
  }
  return (a2 * INV_PI) / (d * d);
}

// @ts-ignore: decorator
@inline
export function lambda(x: f32, y: f32, z: f32, ax: f32, ay: f32): f32 {
  const sx = ax * x,
    sy = ay * y;
  return <f32>0.5 * (sqrt<f32>(<f32>1 + (sx * sx + sy * sy) / max<f32>(z * z, <f32>1e-12)) - 1);
}

/** Samples a normal visible from o into hX, hY, hZ. */
export function sampleNormal(ox: f32, oy: f32, oz: f32, ax: f32, ay: f32, u: f32, v: f32): void {
  let vx = ax * ox,
    vy = ay * oy,
    vz = oz;
  const inverse: f32 = <f32>1 / sqrt<f32>(vx * vx + vy * vy + vz * vz);
  vx *= inverse;
  vy *= inverse;
  vz *= inverse;
  const len2 = vx * vx + vy * vy;
  let bx: f32 = 1,
    by: f32 = 0;
  if (len2 > <f32>1e-14) {
    const k: f32 = <f32>1 / sqrt<f32>(len2);
    bx = -vy * k;
    by = vx * k;
  }
  const cx = -vz * by,
    cy = vz * bx,
    cz = vx * by - vy * bx;
  const r = sqrt<f32>(u);
  sinCosTurns(v);
  const t1 = r * cosOut,
    s: f32 = <f32>0.5 * (<f32>1 + vz);
  const t2 = (<f32>1 - s) * sqrt<f32>(max<f32>(0, <f32>1 - t1 * t1)) + s * r * sinOut;
  const t3 = sqrt<f32>(max<f32>(0, <f32>1 - t1 * t1 - t2 * t2));
  const mx = ax * (t1 * bx + t2 * cx + t3 * vx),
    my = ay * (t1 * by + t2 * cy + t3 * vy),
    mz = max<f32>(t2 * cz + t3 * vz, <f32>1e-7);
  const k: f32 = <f32>1 / sqrt<f32>(mx * mx + my * my + mz * mz);
  hX = mx * k;
  hY = my * k;
  hZ = mz * k;
}
