// Cloth's sheen, as core/materials/sheen.ts has it in double precision, where the source stands.
import { exp, log2 } from './math';

const LN2: f32 = 0.693147180559945;
const INV_TWO_PI: f32 = 0.159154943091895;

// @ts-ignore: decorator
@inline
function power(x: f32, y: f32): f32 {
  return x > <f32>1e-30 ? exp(LN2 * y * log2(x)) : 0;
}

let a: f32 = 0;
let b: f32 = 0;
let c: f32 = 0;
let d: f32 = 0;
let e: f32 = 0;
let exponent: f32 = 1;
let lambdaO: f32 = 0;
let cosO: f32 = 1;

// @ts-ignore: decorator
@inline
function fit(x: f32): f32 {
  return a / (<f32>1 + b * power(x, c)) + d * x + e;
}

function lambda(cosine: f32): f32 {
  return exp(cosine < <f32>0.5 ? fit(cosine) : 2 * fit(<f32>0.5) - fit(<f32>1 - cosine));
}

/** For a surface of this roughness squared, seen at this cosine. */
export function beginSheen(alpha: f32, oz: f32): void {
  const s: f32 = <f32>1 - alpha,
    t = s * s;
  a = <f32>21.5473 + <f32>3.7772 * t;
  b = <f32>3.82987 - <f32>0.50552 * t;
  c = <f32>0.19823 - <f32>0.03022 * t;
  d = <f32>-1.9776 + <f32>0.70367 * t;
  e = <f32>-4.32054 - <f32>0.53913 * t;
  exponent = <f32>1 / alpha;
  cosO = oz;
  lambdaO = lambda(oz);
}

/** f times cos of white sheen for a half vector's squared sine and the light's cosine. */
export function evaluateSheen(sin2: f32, iz: f32): f32 {
  return (
    ((<f32>2 + exponent) * power(sin2, <f32>0.5 * exponent) * INV_TWO_PI) / ((<f32>1 + lambdaO + lambda(iz)) * 4 * cosO)
  );
}
