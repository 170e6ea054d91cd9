/** A geometry moved, turned and scaled; one that is mirrored keeps its outside. */
import { type Affine, applyAffine, determinant } from '../math/affine';
import { normalize, type Vec3 } from '../math/vec3';
import type { SceneGeometry } from './scene';

export function moveGeometry(geometry: SceneGeometry, m: Affine): SceneGeometry {
  const moved = (from: Float32Array, stride: number, move: (v: Vec3) => Vec3) => {
    const to = Float32Array.from(from);
    for (let i = 0; i < to.length; i += stride) to.set(move([from[i]!, from[i + 1]!, from[i + 2]!]), i);
    return to;
  };
  const mirrored = determinant(m) < 0;
  const out = {
    ...geometry,
    positions: moved(geometry.positions, 3, (v) => applyAffine(m, v)),
    normals: moved(geometry.normals, 3, normalUnder(m)),
    tangents: moved(geometry.tangents, 4, ([x, y, z]) =>
      normalize([m[0] * x + m[3] * y + m[6] * z, m[1] * x + m[4] * y + m[7] * z, m[2] * x + m[5] * y + m[8] * z])
    )
  };
  if (!mirrored) return out;
  out.indices = Uint32Array.from(geometry.indices);
  for (let i = 0; i < out.indices.length; i += 3) {
    out.indices[i + 1] = geometry.indices[i + 2]!;
    out.indices[i + 2] = geometry.indices[i + 1]!;
  }
  for (let i = 3; i < out.tangents.length; i += 4) out.tangents[i]! *= -1;
  return out;
}

/** Normals go by the inverse transpose: the cofactors, turned over where the map mirrors. */
export function normalUnder(m: Affine): (normal: Vec3) => Vec3 {
  const sign = determinant(m) < 0 ? -1 : 1;
  const cofactor = (a: number, b: number, c: number, d: number) => sign * (m[a]! * m[d]! - m[b]! * m[c]!);
  return ([x, y, z]) =>
    normalize([
      cofactor(4, 5, 7, 8) * x + cofactor(7, 8, 1, 2) * y + cofactor(1, 2, 4, 5) * z,
      cofactor(5, 3, 8, 6) * x + cofactor(8, 6, 2, 0) * y + cofactor(2, 0, 5, 3) * z,
      cofactor(3, 4, 6, 7) * x + cofactor(6, 7, 0, 1) * y + cofactor(0, 1, 3, 4) * z
    ]);
}
