/**
 * How much of what glows can be aimed at: shadow rays end at solid glass, so a lamp within a globe of it is mostly
 * chosen in vain. Only how often a lamp is chosen hangs on this, never what it brings. Solid glass alone is looked at,
 * not what may stand before it.
 */
import { cross, normalize, type Vec3 } from '../../core/math/vec3';
import type { Scene } from '../../core/scene/scene';

/** Of one material's glow. */
const RAYS = 96;
/** What is left for places on the lamp's own side of the glass. */
const LEAST = 0.1;
/** More glass than this is a building's panes rather than a lamp's globe, and would take longer than it spares. */
const MAX_GLASS = 200_000;
const GOLDEN_TURN = Math.PI * (1 + Math.sqrt(5));

/** A triangle that glows: its corner and two edges, nine floats. */
interface Glowing {
  material: number;
  corners: Float32Array;
}

/** Share of the rays from each glowing material that meet no glass, at least LEAST. By spirals, no random numbers. */
export function sharesBeforeGlass(
  scene: Pick<Scene, 'materials' | 'geometry'>,
  emitters: readonly Glowing[]
): Map<number, number> {
  const shares = new Map<number, number>();
  const glass = glassTriangles(scene);
  if (glass.length === 0 || glass.length / 9 > MAX_GLASS) return shares;
  const byMaterial = new Map<number, Glowing[]>();
  for (const emitter of emitters)
    byMaterial.set(emitter.material, [...(byMaterial.get(emitter.material) ?? []), emitter]);
  for (const [material, own] of byMaterial) {
    let free = 0;
    for (let i = 0; i < RAYS; i++)
      if (!meets(glass, ...rayFrom(own[Math.floor(((i + 0.5) / RAYS) * own.length)]!, i))) free++;
    shares.set(material, Math.max(LEAST, free / RAYS));
  }
  return shares;
}

/** Corner and two edges of each, nine floats. */
function glassTriangles({ materials, geometry }: Pick<Scene, 'materials' | 'geometry'>): Float64Array {
  const { positions, indices, triangleMaterials } = geometry;
  const glass = materials.map((m) => m.solid && m.transmission > 0.5);
  const out: number[] = [];
  for (let t = 0; t < triangleMaterials.length; t++) {
    if (!glass[triangleMaterials[t]!]) continue;
    const at = (k: number, c: number) => positions[indices[t * 3 + k]! * 3 + c]!;
    for (let c = 0; c < 3; c++) out.push(at(0, c));
    for (let k = 1; k < 3; k++) for (let c = 0; c < 3; c++) out.push(at(k, c) - at(0, c));
  }
  return Float64Array.from(out);
}

/** Ray `i` from the middle of a triangle, of a cosine hemisphere about its normal. */
function rayFrom({ corners: c }: Glowing, i: number): [Vec3, Vec3] {
  const [a, b]: [Vec3, Vec3] = [
    [c[3]!, c[4]!, c[5]!],
    [c[6]!, c[7]!, c[8]!]
  ];
  const z = normalize(cross(a, b));
  const x = normalize(a);
  const y = cross(z, x);
  const r2 = (i * 0.618034) % 1;
  const [r, up, turn] = [Math.sqrt(r2), Math.sqrt(1 - r2), i * GOLDEN_TURN];
  const [u, v] = [r * Math.cos(turn), r * Math.sin(turn)];
  return [
    [0, 1, 2].map((k) => c[k]! + (a[k]! + b[k]!) / 3) as unknown as Vec3,
    [0, 1, 2].map((k) => u * x[k]! + v * y[k]! + up * z[k]!) as unknown as Vec3
  ];
}

/** Whether a ray meets any of the triangles. Source: Moeller and Trumbore 1997. */
function meets(triangles: Float64Array, origin: Vec3, d: Vec3): boolean {
  for (let o = 0; o < triangles.length; o += 9) {
    const [e1x, e1y, e1z, e2x, e2y, e2z] = [
      triangles[o + 3]!,
      triangles[o + 4]!,
      triangles[o + 5]!,
      triangles[o + 6]!,
      triangles[o + 7]!,
      triangles[o + 8]!
    ];
    const px = d[1] * e2z - d[2] * e2y;
    const py = d[2] * e2x - d[0] * e2z;
    const pz = d[0] * e2y - d[1] * e2x;
    const det = e1x * px + e1y * py + e1z * pz;
    if (det === 0) continue;
    const sx = origin[0] - triangles[o]!;
    const sy = origin[1] - triangles[o + 1]!;
    const sz = origin[2] - triangles[o + 2]!;
    const u = (sx * px + sy * py + sz * pz) / det;
    if (!(u >= 0 && u <= 1)) continue;
    const qx = sy * e1z - sz * e1y;
    const qy = sz * e1x - sx * e1z;
    const qz = sx * e1y - sy * e1x;
    const v = (d[0] * qx + d[1] * qy + d[2] * qz) / det;
    if (v >= 0 && u + v <= 1 && (e2x * qx + e2y * qy + e2z * qz) / det > 0) return true;
  }
  return false;
}
