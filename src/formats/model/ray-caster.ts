/** Rays into a scene as it is drawn, over three-mesh-bvh. */
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import type { Cast } from '../../core/camera/first-view';
import { applyAffine } from '../../core/math/affine';
import type { Vec3 } from '../../core/math/vec3';
import { countTriangles, type Scene, type SceneGeometry } from '../../core/scene/scene';

// More take too long for what is asked of them.
const MOST_TRIANGLES = 3e6;

/** Null for a scene that is too heavy. */
export function rayCaster(scene: Pick<Scene, 'geometry' | 'objects' | 'instances' | 'materials'>): Cast | null {
  const triangles = countTriangles(scene);
  if (triangles === 0 || triangles > MOST_TRIANGLES) return null;
  const positions = new Float32Array(triangles * 9);
  const clear = new Uint8Array(triangles);
  let at = 0;
  const isClear = scene.materials.map(
    ({ transmission, baseColor, alphaMode }) => transmission > 0.5 || (alphaMode === 'blend' && baseColor[3] < 0.5)
  );
  const take = (geometry: SceneGeometry, place: (p: Vec3) => Vec3) => {
    for (let i = 0; i < geometry.indices.length; i++) {
      const v = geometry.indices[i]! * 3;
      const p = [geometry.positions[v]!, geometry.positions[v + 1]!, geometry.positions[v + 2]!] as Vec3;
      positions.set(place(p), at * 9 + (i % 3) * 3);
      if (i % 3 === 2) clear[at++] = isClear[geometry.triangleMaterials[Math.floor(i / 3)]!] ? 1 : 0;
    }
  };
  take(scene.geometry, (p) => p);
  for (const { object, matrix } of scene.instances) take(scene.objects[object]!, (p) => applyAffine(matrix, p));
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(positions, 3));
  const tree = new MeshBVH(geometry, { indirect: true, verbose: false });
  const ray = new Ray(new Vector3(), new Vector3());
  return (from, way) => {
    ray.origin.set(...from);
    ray.direction.set(...way);
    const hit = tree.raycastFirst(ray, DoubleSide);
    return hit ? { distance_m: hit.distance, clear: clear[hit.faceIndex!] === 1 } : null;
  };
}
