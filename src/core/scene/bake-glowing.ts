/**
 * What a brief makes glow becomes part of the world's own triangles: light is sampled from where a lamp is in the world,
 * and an object that is kept once stands in many places.
 */
import type { Scene, SceneGeometry, ScenePart } from './scene';
import { moveGeometry } from './move-geometry';
import { joinGeometries } from './triangles';
import { worldParts } from './scene';

/** `glows`: of each material, whether it is made to glow. Objects that have none of it stay placed. */
export function bakeGlowing<T extends Scene>(scene: T, glows: readonly boolean[]): T {
  if (!glows.some(Boolean)) return scene;
  const shines = scene.objects.map((o) => o.triangleMaterials.some((m) => glows[m]));
  if (!shines.some(Boolean)) return scene;
  const world: SceneGeometry[] = [scene.geometry];
  const parts: ScenePart[] = scene.geometry.indices.length > 0 ? [...worldParts(scene)] : [];
  let first = scene.geometry.triangleMaterials.length;
  const instances = scene.instances.filter(({ object, matrix, name, path }) => {
    if (!shines[object]) return true;
    const piece = moveGeometry(scene.objects[object]!, matrix);
    world.push(piece);
    parts.push({ name, matrix, first, ...(path === undefined ? {} : { path }) });
    first += piece.triangleMaterials.length;
    return false;
  });
  return { ...scene, geometry: joinGeometries(world), parts, instances };
}
