/**
 * Parts that have a material of their own in a picture: the material is copied for them, so that a rule can speak of the
 * copy alone (assign-materials.ts). An object that stands in several places is copied where one of them differs.
 */
import { isMeant } from './material-rule';
import { isWithin } from './part-paths';
import { type Scene, type SceneGeometry, worldParts } from './scene';

export interface Override {
  /** Rule by names. */
  material: string;
  part: string;
}

export function overrideMaterials<T extends Scene>(scene: T, overrides: readonly Override[]): T {
  if (overrides.length === 0) return scene;
  const materials = [...scene.materials];
  const copies = new Map<string, number>();
  /** What the materials of a part become: their own numbers where nothing is said. */
  const materialsIn = (path: string): ((material: number) => number) => {
    const here = overrides.filter((o) => isWithin(path, o.part));
    if (here.length === 0) return (material) => material;
    const known = new Map<number, number>();
    return (material) => {
      const there = known.get(material);
      if (there !== undefined) return there;
      const own = scene.materials[material]!;
      const found = here.find((o) => isMeant(o.material, own.name));
      let becomes = material;
      if (found) {
        const key = `${material} ${found.part}`;
        becomes = copies.get(key) ?? materials.push({ ...own, part: found.part }) - 1;
        copies.set(key, becomes);
      }
      known.set(material, becomes);
      return becomes;
    };
  };
  const geometry = { ...scene.geometry, triangleMaterials: Uint32Array.from(scene.geometry.triangleMaterials) };
  const parts = worldParts(scene);
  parts.forEach(({ name, path = name, first }, i) => {
    const becomes = materialsIn(path);
    const end = parts[i + 1]?.first ?? geometry.triangleMaterials.length;
    for (let t = first; t < end; t++) geometry.triangleMaterials[t] = becomes(geometry.triangleMaterials[t]!);
  });
  const objects = [...scene.objects];
  const changed = new Map<string, number>();
  const instances = scene.instances.map((instance) => {
    const before = scene.objects[instance.object]!;
    const triangleMaterials = before.triangleMaterials.map(materialsIn(instance.path ?? instance.name));
    if (triangleMaterials.every((m, t) => m === before.triangleMaterials[t])) return instance;
    const key = `${instance.object} ${[...new Set(triangleMaterials)].join(' ')}`;
    const copy: SceneGeometry = { ...before, triangleMaterials };
    const object = changed.get(key) ?? objects.push(copy) - 1;
    changed.set(key, object);
    return { ...instance, object };
  });
  return { ...scene, materials, geometry, objects, instances };
}
