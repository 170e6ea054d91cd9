// What a sheer surface lets pass in a straight line: 1 - alpha, and through a clear thin sheet (1 - Fresnel) times its
// colour. The path tracer treats both as no scattering at all (the ray goes on, keeping its last pdf), so shadow rays
// that pass them and paths that pass them weigh each other correctly by multiple importance sampling.
import { FLAG_SOLID } from './layout';
import { fresnel } from './fresnel';
import {
  baseB,
  baseG,
  baseR,
  clearShare,
  cosineWith,
  findTriangle,
  flags,
  ior,
  readAlpha,
  readSheet,
  useSharpUv
} from './surface';

export let sheerR: f32 = 0;
export let sheerG: f32 = 0;
export let sheerB: f32 = 0;

/**
 * Sets sheerR, sheerG, sheerB for a ray (see traverse.ts) that meets a triangle, perhaps of a placed object, at
 * barycentrics u, v.
 */
export function passSheer(triangle: i32, placed: usize, u: f32, v: f32, ray: usize): void {
  findTriangle(triangle, placed, u, v);
  useSharpUv();
  const open = <f32>1 - readAlpha();
  sheerR = open;
  sheerG = open;
  sheerB = open;
  if (flags & FLAG_SOLID || open == 1) return;
  readSheet();
  const clear = clearShare();
  if (clear == 0) return;
  const through =
    (<f32>1 - open) *
    clear *
    (<f32>1 - fresnel(abs<f32>(cosineWith(load<f32>(ray, 16), load<f32>(ray, 20), load<f32>(ray, 24))), ior));
  sheerR += through * baseR;
  sheerG += through * baseG;
  sheerB += through * baseB;
}
