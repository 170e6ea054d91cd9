// What a transparent surface lets pass in a straight line: 1 - alpha, and through a clear thin sheet (1 - Fresnel) times its
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

export let transmittedR: f32 = 0;
export let transmittedG: f32 = 0;
export let transmittedB: f32 = 0;

/**
 * Sets transmittedR, transmittedG, transmittedB for a ray (see traverse.ts) that meets a triangle, perhaps of a placed object, at
 * barycentrics u, v.
 */
export function passTransparent(triangle: i32, placed: usize, u: f32, v: f32, ray: usize): void {
  findTriangle(triangle, placed, u, v);
  useSharpUv();
  const open = <f32>1 - readAlpha();
  transmittedR = open;
  transmittedG = open;
  transmittedB = open;
  if (flags & FLAG_SOLID || open == 1) return;
  readSheet();
  const clear = clearShare();
  if (clear == 0) return;
  const through =
    (<f32>1 - open) *
    clear *
    (<f32>1 - fresnel(abs<f32>(cosineWith(load<f32>(ray, 16), load<f32>(ray, 20), load<f32>(ray, 24))), ior));
  transmittedR += through * baseR;
  transmittedG += through * baseG;
  transmittedB += through * baseB;
}
