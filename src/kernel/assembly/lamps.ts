// Lights inside the model: glowing triangles, points and spots, one chosen by its power (alias method, Walker 1977), and
// directional lights, which are few and all taken.
// Units: triangles radiate their material's emission (cd/m2), points and spots cd, directional lights lx (KHR_lights_punctual).
import { DIRECTIONAL_BYTES, L_AREA, L_AXIS, L_CONE_SCALE, L_COS_OUTER, L_EDGE1, L_EDGE2, L_INTENSITY, L_KIND, L_POSITION, L_PROBABILITY, L_TRIANGLE, LIGHT_BYTES, LIGHT_SPOT, LIGHT_TRIANGLE, P_DIRECTIONAL_COUNT, P_DIRECTIONAL_PTR, P_LIGHT_ALIAS_PTR, P_LIGHT_COUNT, P_LIGHTS_PTR, P_TRI_LIGHT_PTR, PACK } from './layout';

/** The light point sampled last: place, its normal (0 for points), unweighted radiance or intensity over distance squared. */
export let lx: f32 = 0; export let ly: f32 = 0; export let lz: f32 = 0;
export let lnx: f32 = 0; export let lny: f32 = 0; export let lnz: f32 = 0;
export let lTriangle: i32 = -1; export let lU: f32 = 0; export let lV: f32 = 0;
export let lR: f32 = 0; export let lG: f32 = 0; export let lB: f32 = 0;
/** Chance of the light chosen; for triangles divided by its area. */
export let lChance: f32 = 0;

export function lampCount(): i32 {
  return load<i32>(PACK + P_LIGHT_COUNT);
}

export function directionalCount(): i32 {
  return load<i32>(PACK + P_DIRECTIONAL_COUNT);
}

export function directional(i: i32): usize {
  return <usize>load<u32>(PACK + P_DIRECTIONAL_PTR) + <usize>(i * DIRECTIONAL_BYTES);
}

/** Chance per area with which sampleLamp would have chosen a point on this triangle; 0 when it is no light. */
export function chanceOfTriangle(triangle: i32): f32 {
  const light = load<i32>(<usize>load<u32>(PACK + P_TRI_LIGHT_PTR) + (<usize>triangle << 2));
  if (light < 0) return 0;
  const l = <usize>load<u32>(PACK + P_LIGHTS_PTR) + <usize>(light * LIGHT_BYTES);
  return load<f32>(l, L_PROBABILITY) / load<f32>(l, L_AREA);
}

/** Chooses a lamp by `choice` and a point on it by (u, v), as seen from (x, y, z). */
export function sampleLamp(choice: f32, u: f32, v: f32, x: f32, y: f32, z: f32): void {
  const count = lampCount(), scaled = choice * <f32>count;
  let index = min<i32>(<i32>scaled, count - 1);
  const alias = <usize>load<u32>(PACK + P_LIGHT_ALIAS_PTR) + (<usize>index << 3);
  if (scaled - <f32>index >= load<f32>(alias)) index = load<i32>(alias, 4);
  const l = <usize>load<u32>(PACK + P_LIGHTS_PTR) + <usize>(index * LIGHT_BYTES);
  lChance = load<f32>(l, L_PROBABILITY);
  if (load<u32>(l, L_KIND) == LIGHT_TRIANGLE) {
    lTriangle = load<i32>(l, L_TRIANGLE);
    const root = sqrt<f32>(u);
    lU = (<f32>1 - v) * root; lV = v * root;
    const e1x = load<f32>(l, L_EDGE1), e1y = load<f32>(l, L_EDGE1 + 4), e1z = load<f32>(l, L_EDGE1 + 8);
    const e2x = load<f32>(l, L_EDGE2), e2y = load<f32>(l, L_EDGE2 + 4), e2z = load<f32>(l, L_EDGE2 + 8);
    lx = load<f32>(l, L_POSITION) + lU * e1x + lV * e2x;
    ly = load<f32>(l, L_POSITION + 4) + lU * e1y + lV * e2y;
    lz = load<f32>(l, L_POSITION + 8) + lU * e1z + lV * e2z;
    lnx = e1y * e2z - e1z * e2y; lny = e1z * e2x - e1x * e2z; lnz = e1x * e2y - e1y * e2x;
    const k: f32 = <f32>1 / max<f32>(sqrt<f32>(lnx * lnx + lny * lny + lnz * lnz), <f32>1e-30);
    lnx *= k; lny *= k; lnz *= k;
    lChance /= load<f32>(l, L_AREA);
    return;
  }
  lTriangle = -1;
  lx = load<f32>(l, L_POSITION); ly = load<f32>(l, L_POSITION + 4); lz = load<f32>(l, L_POSITION + 8);
  const dx = x - lx, dy = y - ly, dz = z - lz, d2 = dx * dx + dy * dy + dz * dz;
  let k: f32 = <f32>1 / max<f32>(d2, <f32>1e-12);
  if (load<u32>(l, L_KIND) == LIGHT_SPOT) {
    const c = (dx * load<f32>(l, L_AXIS) + dy * load<f32>(l, L_AXIS + 4) + dz * load<f32>(l, L_AXIS + 8)) / sqrt<f32>(d2);
    const t = min<f32>(max<f32>((c - load<f32>(l, L_COS_OUTER)) * load<f32>(l, L_CONE_SCALE), 0), 1);
    k *= t * t; // the falloff KHR_lights_punctual recommends
  }
  lR = k * load<f32>(l, L_INTENSITY); lG = k * load<f32>(l, L_INTENSITY + 4); lB = k * load<f32>(l, L_INTENSITY + 8);
}
