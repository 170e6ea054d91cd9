/** The panes of a scene through which a room may get its light, as the kernel wants them. */
import { cross, length, scale, subtract, type Vec3 } from '../../core/math/vec3';
import { sidesOf } from '../../core/scene/opening';
import type { Scene } from '../../core/scene/scene';
import * as L from '../assembly/layout';

export interface Portal {
  corner: Vec3;
  a: Vec3;
  b: Vec3;
  /** m2 */
  area: number;
  normal: Vec3;
  /** Vectors whose dot product with a point, taken from the corner, gives its share of the edge. */
  alongA: Vec3;
  alongB: Vec3;
  /** 1 a triangle, 2 a parallelogram. */
  shape: 1 | 2;
}

type Corners = readonly [Vec3, Vec3, Vec3];

/**
 * The openings that are stated, and the clear sheets of a scene when all are few enough to be windows. Two triangles
 * that make one pane are one.
 */
export function collectPortals(scene: Scene): Portal[] {
  const stated = (scene.openings ?? []).slice(0, L.MAX_PORTALS).flatMap((opening) => {
    const { corner, a, b } = sidesOf(opening);
    return makePortal(corner, a, b, 2) ?? [];
  });
  const panes = collectPanes(scene);
  return stated.length + panes.length > L.MAX_PORTALS ? stated : [...stated, ...panes];
}

function collectPanes(scene: Scene): Portal[] {
  const pane = scene.materials.map(
    (m) => m.transmission > 0.5 && !m.solid && m.roughness < L.CLEAR_ROUGHNESS && m.metallic < 0.5
  );
  const { positions, indices, triangleMaterials } = scene.geometry;
  const at = (i: number): Vec3 => [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
  const out: Portal[] = [];
  let last: Corners | null = null; // not yet joined with its other half
  for (let t = 0; t < triangleMaterials.length; t++) {
    if (!pane[triangleMaterials[t]!]) continue;
    const corners: Corners = [at(indices[t * 3]!), at(indices[t * 3 + 1]!), at(indices[t * 3 + 2]!)];
    const joined: Portal | null = last && parallelogram(last, corners);
    const portal = joined ?? triangle(corners);
    if (!portal) continue;
    if (joined) out.pop();
    last = joined ? null : corners;
    out.push(portal);
    if (out.length > L.MAX_PORTALS) return [];
  }
  return out;
}

function triangle([p, q, r]: Corners): Portal | null {
  return makePortal(p, subtract(q, p), subtract(r, p), 1);
}

/** Two triangles that share an edge and whose other corners lie opposite each other, else null. */
function parallelogram(one: Corners, other: Corners): Portal | null {
  const near = (p: Vec3, q: Vec3, scaleOf: number) => length(subtract(p, q)) < 1e-4 * scaleOf;
  for (let k = 0; k < 3; k++) {
    const corner = one[k]!;
    const a = subtract(one[(k + 1) % 3]!, corner);
    const b = subtract(one[(k + 2) % 3]!, corner);
    const size = length(a) + length(b);
    const far: Vec3 = [corner[0] + a[0] + b[0], corner[1] + a[1] + b[1], corner[2] + a[2] + b[2]];
    const wanted = [far, one[(k + 1) % 3]!, one[(k + 2) % 3]!];
    if (wanted.every((w) => other.some((c) => near(w, c, size)))) return makePortal(corner, a, b, 2);
  }
  return null;
}

function makePortal(corner: Vec3, a: Vec3, b: Vec3, shape: 1 | 2): Portal | null {
  const n = cross(a, b);
  const doubled = length(n);
  if (!(doubled > 1e-12)) return null;
  const normal = scale(n, 1 / doubled);
  return {
    corner,
    a,
    b,
    area: (doubled * shape) / 2,
    normal,
    alongA: scale(cross(b, normal), 1 / doubled),
    alongB: scale(cross(normal, a), 1 / doubled),
    shape
  };
}
