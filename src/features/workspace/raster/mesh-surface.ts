/** Surfaces of three.js's meshes where they stand in the world. */
import { type Intersection, Matrix3, type Mesh, type Object3D, Triangle, Vector3 } from 'three';
import type { Vec3 } from '../../../core/math/vec3';

/** Corners of all triangles, three numbers each; null where there are none. */
export function trianglesInWorld(mesh: Mesh): { positions: Float32Array; indices: ArrayLike<number> } | null {
  const { position } = mesh.geometry.attributes;
  if (!position) return null;
  mesh.updateWorldMatrix(true, false);
  const positions = new Float32Array(position.count * 3);
  const corner = new Vector3();
  for (let i = 0; i < position.count; i++)
    corner
      .fromBufferAttribute(position, i)
      .applyMatrix4(mesh.matrixWorld)
      .toArray(positions, i * 3);
  const { index } = mesh.geometry;
  return { positions, indices: index ? index.array : Uint32Array.from({ length: position.count }, (_, i) => i) };
}

/**
 * A normal of an object in the world, turned against the look along which it is seen: from a point, or everywhere the
 * same.
 */
export function towardsViewer(normal: Vector3, object: Object3D, along: Vector3): Vec3 {
  normal.applyNormalMatrix(new Matrix3().getNormalMatrix(object.matrixWorld));
  if (normal.dot(along) > 0) normal.negate();
  return [normal.x, normal.y, normal.z];
}

export function smoothNormal(mesh: Mesh, { face, point }: Intersection): Vector3 {
  const { position, normal } = mesh.geometry.attributes;
  if (!position || !normal) return face!.normal.clone();
  const corners = [face!.a, face!.b, face!.c].map((i) => new Vector3().fromBufferAttribute(position, i));
  const normals = [face!.a, face!.b, face!.c].map((i) => new Vector3().fromBufferAttribute(normal, i));
  const mixed = Triangle.getInterpolation(
    mesh.worldToLocal(point.clone()),
    corners[0]!,
    corners[1]!,
    corners[2]!,
    normals[0]!,
    normals[1]!,
    normals[2]!,
    new Vector3()
  );
  return mixed ?? face!.normal.clone();
}
