/**
 * The reference integrator: brute force over triangles, no light sampling, no tree, double precision. Slow and
 * obviously right; the kernel's pictures must agree with it within their standard errors. Opaque materials, glowing
 * triangles, even surroundings.
 */
import type { CameraFrame } from '../camera/lens';
import { add, cross, dot, frameAround, normalize, scale, subtract, type Vec3 } from '../math/vec3';
import { FILTER_RADIUS_PX, invertPixelFilter } from '../sampling/pixel-filter';
import type { Random } from '../sampling/random';
import type { Scene } from '../scene/scene';
import { type Albedos, sampleOpaque } from './scattering';

const FILTER = invertPixelFilter(FILTER_RADIUS_PX, 256);

interface Hit {
  t: number;
  normal: Vec3;
  front: boolean;
  material: number;
}

export interface ReferenceOptions {
  scene: Scene;
  camera: CameraFrame;
  width: number;
  height: number;
  bounces: number;
  even: Vec3;
  albedos: Albedos;
  random: Random;
}

/** Radiance of one sample of pixel (x, y), through the same pixel filter as the kernel's. */
export function traceReference(o: ReferenceOptions, x: number, y: number): Vec3 {
  const { camera, scene } = o;
  const filtered = () => {
    const at = o.random() * (FILTER.length - 1);
    const i = Math.floor(at);
    return FILTER[i]! + (FILTER[Math.min(i + 1, FILTER.length - 1)]! - FILTER[i]!) * (at - i);
  };
  const ix = (((x + 0.5 + filtered()) / o.width) * 2 - 1) * camera.halfWidth;
  const iy = (1 - ((y + 0.5 + filtered()) / o.height) * 2) * camera.halfHeight;
  const shift = add(scale(camera.right, ix), scale(camera.up, iy));
  let origin: Vec3 = camera.parallel ? add(camera.eye, shift) : camera.eye;
  let way: Vec3 = camera.parallel ? camera.forward : normalize(add(camera.forward, shift));
  let beta: Vec3 = [1, 1, 1];
  let sum: Vec3 = [0, 0, 0];
  for (let bounce = 0; ; bounce++) {
    const hit = intersect(scene, origin, way);
    if (!hit) return add(sum, [beta[0] * o.even[0], beta[1] * o.even[1], beta[2] * o.even[2]]);
    const m = scene.materials[hit.material]!;
    if (hit.front || m.twoSided)
      sum = add(sum, [beta[0] * m.emissive[0], beta[1] * m.emissive[1], beta[2] * m.emissive[2]]);
    if (bounce >= o.bounces) return sum;
    const { tangent, bitangent } = frameAround(hit.normal);
    const wo: Vec3 = [-dot(way, tangent), -dot(way, bitangent), -dot(way, hit.normal)];
    const [r, g, b] = m.baseColor;
    const next = sampleOpaque(
      {
        base: [r, g, b],
        metallic: m.metallic,
        roughness: m.roughness,
        transmission: 0,
        ior: m.ior,
        specular: m.specular,
        solid: false,
        entering: true
      },
      o.albedos,
      wo,
      o.random
    );
    if (!next) return sum;
    beta = [beta[0] * next.weight[0], beta[1] * next.weight[1], beta[2] * next.weight[2]];
    origin = add(add(origin, scale(way, hit.t)), scale(hit.normal, 1e-9));
    way = normalize(add(add(scale(tangent, next.wi[0]), scale(bitangent, next.wi[1])), scale(hit.normal, next.wi[2])));
  }
}

/** Nearest triangle by Moeller and Trumbore 1997; flat normals, turned to the viewer. */
export function intersect(scene: Scene, origin: Vec3, way: Vec3): Hit | null {
  const { positions, indices, triangleMaterials } = scene.geometry;
  const point = (i: number): Vec3 => [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
  let best: Hit | null = null;
  for (let i = 0; i < triangleMaterials.length; i++) {
    const a = point(indices[i * 3]!);
    const e1 = subtract(point(indices[i * 3 + 1]!), a);
    const e2 = subtract(point(indices[i * 3 + 2]!), a);
    const p = cross(way, e2);
    const det = dot(e1, p);
    if (Math.abs(det) < 1e-14) continue;
    const s = subtract(origin, a);
    const u = dot(s, p) / det;
    if (u < 0 || u > 1) continue;
    const q = cross(s, e1);
    const v = dot(way, q) / det;
    if (v < 0 || u + v > 1) continue;
    const t = dot(e2, q) / det;
    if (t < 1e-7 || (best && t >= best.t)) continue;
    const n = normalize(cross(e1, e2));
    const front = dot(n, way) < 0;
    best = { t, normal: front ? n : scale(n, -1), front, material: triangleMaterials[i]! };
  }
  return best;
}
