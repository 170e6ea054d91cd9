// Transcendental functions from WebAssembly arithmetic alone, so that every machine gets the same bits.
// Single precision; errors stated per function were measured against the host's double precision over the stated range.

export const PI: f32 = 3.14159265358979;
export const INV_PI: f32 = 0.318309886183791;
export let sinOut: f32 = 0;
export let cosOut: f32 = 0;

/** Sine and cosine of `turns` full turns into sinOut, cosOut. Taylor on an octant to each side, error below 3e-7. */
export function sinCosTurns(turns: f32): void {
  const quarters = (turns - floor<f32>(turns)) * 4;
  const nearest = floor<f32>(quarters + 0.5);
  const r = (quarters - nearest) * <f32>1.5707963267949;
  const r2 = r * r;
  const s =
    r *
    (<f32>1 +
      r2 * (<f32>-0.166666666667 + r2 * (<f32>0.00833333333 + r2 * (<f32>-0.000198412698 + r2 * <f32>2.75573192e-6))));
  const c =
    <f32>1 +
    r2 *
      (<f32>-0.5 +
        r2 * (<f32>0.0416666667 + r2 * (<f32>-0.00138888889 + r2 * (<f32>2.48015873e-5 - r2 * <f32>2.75573192e-7))));
  // without branches: the quarter of a random number cannot be guessed
  const q = <i32>nearest,
    odd = (q & 1) != 0,
    a = select<f32>(c, s, odd),
    b = select<f32>(s, c, odd);
  sinOut = select<f32>(-a, a, (q & 2) != 0);
  cosOut = select<f32>(-b, b, ((q + 1) & 2) != 0);
}

/**
 * e^x; relative error below 3e-7 near 0 and 1e-5 for -87 < x < 88, whose product with log2 e is rounded; clamped
 * outside.
 */
export function exp(x: f32): f32 {
  const y = max<f32>(min<f32>(x, 88), -87) * <f32>1.44269504088896;
  const n = floor<f32>(y + 0.5);
  const f = (y - n) * <f32>0.693147180559945;
  const p =
    <f32>1 +
    f *
      (<f32>1 +
        f *
          (<f32>0.5 +
            f * (<f32>0.166666667 + f * (<f32>0.0416666667 + f * (<f32>0.00833333333 + f * <f32>0.00138888889)))));
  return p * reinterpret<f32>((<i32>n + 127) << 23);
}

/**
 * Base-two logarithm of a positive normal number; absolute error below 1e-6 and what rounding takes of a large result.
 */
export function log2(x: f32): f32 {
  const bits = reinterpret<i32>(x),
    over = <i32>((bits & 0x7fffff) > 0x3504f3); // of the square root of 2
  const exponent = ((bits >> 23) & 255) - 127 + over;
  const m = reinterpret<f32>((bits & 0x7fffff) | (0x3f800000 - (over << 23)));
  const s = (m - 1) / (m + 1);
  const s2 = s * s;
  const ln =
    <f32>2 * s * (<f32>1 + s2 * (<f32>0.333333333 + s2 * (<f32>0.2 + s2 * (<f32>0.142857143 + s2 * <f32>0.111111111))));
  return <f32>exponent + ln * <f32>1.44269504088896;
}

/** Angle of (x, y) in radians, -pi to pi; error below 3e-7. Polynomial of Cephes' atanf (Moshier 1989). */
export function atan2(y: f32, x: f32): f32 {
  const ax = abs<f32>(x),
    ay = abs<f32>(y);
  const hi = max<f32>(ax, ay),
    lo = min<f32>(ax, ay);
  if (hi == 0) return 0;
  // without branches: where a direction of chance lies cannot be guessed
  const beyond = lo > <f32>0.41421356237 * hi,
    t = select<f32>(lo - hi, lo, beyond) / select<f32>(lo + hi, hi, beyond),
    z = t * t;
  let a =
    select<f32>(<f32>0.785398163397448, 0, beyond) +
    t +
    t *
      z *
      (((<f32>8.05374449538e-2 * z - <f32>1.38776856032e-1) * z + <f32>1.99777106478e-1) * z - <f32>3.33329491539e-1);
  a = select<f32>(<f32>1.5707963267949 - a, a, ay > ax);
  return copysign<f32>(select<f32>(PI - a, a, x < 0), y);
}

// @ts-ignore: decorator
@inline
export function luminance(r: f32, g: f32, b: f32): f32 {
  return <f32>0.2126 * r + <f32>0.7152 * g + <f32>0.0722 * b;
}

// @ts-ignore: decorator
@inline
export function max3(r: f32, g: f32, b: f32): f32 {
  return max<f32>(r, max<f32>(g, b));
}

// @ts-ignore: decorator
@inline
export function clamp01(x: f32): f32 {
  return min<f32>(max<f32>(x, 0), 1);
}
