/**
 * Heavy things left out of quick looks, or replaced by their slim copies: a scene without the objects of some groups,
 * and which groups weigh most. Groups go by name, as lamps do (lamp-groups.ts).
 */
import { lampGroup } from './lamp-groups';
import { type Scene, type SceneGeometry, type ScenePart, worldParts } from './scene';
import { type MeshReducer, slimCopy } from './slim-copy';
import { joinGeometries, takeTriangles } from './triangles';

export interface WeightOfGroup {
  group: string;
  /** As drawn: each object as often as it stands. */
  triangles: number;
  /** How many objects of that name there are. */
  count: number;
  /** Triangles of their slim copies. Not stated for models brought in earlier. */
  slim?: number;
}

const keyOf = (name: string) => lampGroup(name).toLowerCase();
/** As it is written, but for the number at its end. */
const groupName = (name: string) => name.replace(/[\s_.-]*\d+$/, '').trim() || lampGroup(name);

/** Heaviest first; those of at least `least` of all triangles. */
export function heaviestGroups(
  scene: Pick<Scene, 'geometry' | 'objects' | 'instances' | 'parts'>,
  least = 0.02
): WeightOfGroup[] {
  const groups = new Map<string, WeightOfGroup>();
  const put = (name: string, triangles: number) => {
    const known = groups.get(keyOf(name));
    if (known) groups.set(keyOf(name), { ...known, triangles: known.triangles + triangles, count: known.count + 1 });
    else groups.set(keyOf(name), { group: groupName(name), triangles, count: 1 });
  };
  for (const { name, object } of scene.instances) put(name, scene.objects[object]!.indices.length / 3);
  for (const [part, from, to] of rangesOf(scene)) put(part.name, to - from);
  const all = [...groups.values()].reduce((sum, g) => sum + g.triangles, 0);
  return [...groups.values()].filter((g) => g.triangles >= least * all).sort((a, b) => b.triangles - a.triangles);
}

/**
 * The scene without them; its bounds stay, so that what is reckoned from its size does not change. Throws a RangeError
 * when nothing would be left.
 */
export function setAside<T extends Scene>(scene: T, groups: readonly string[]): T {
  if (groups.length === 0) return scene;
  const aside = new Set(groups.map(keyOf));
  const stays = (name: string) => !aside.has(keyOf(name));
  const { geometry, parts } = keepParts(scene, stays);
  const instances = scene.instances.filter((i) => stays(i.name));
  if (geometry.indices.length === 0 && instances.length === 0)
    throw new RangeError('quality.aside leaves nothing of the model; keep some of it');
  return { ...scene, geometry, parts, instances };
}

/**
 * The scene with slim copies of what belongs to them. Objects that stand in other groups too keep their own shape
 * there.
 */
export function slimDown<T extends Scene>(scene: T, groups: readonly string[], reducer: MeshReducer): T {
  if (groups.length === 0) return scene;
  const slim = new Set(groups.map(keyOf));
  const slims = (name: string) => slim.has(keyOf(name));
  const objects = [...scene.objects];
  const copies = new Map<number, number>();
  const instances = scene.instances.map((instance) => {
    const { object, name } = instance;
    if (!slims(name)) return instance;
    const copy = copies.get(object) ?? objects.push(slimCopy(scene.objects[object]!, scene.materials, reducer)) - 1;
    copies.set(object, copy);
    return { ...instance, object: copy };
  });
  const { geometry, parts } = slimParts(scene, slims, reducer);
  return { ...scene, geometry, parts, ...dropUnused(objects, instances) };
}

/** That are told of a model. */
const MAX_HEAVY = 8;

/** The heaviest groups of a model with what their slim copies weigh. */
export const weighHeaviest = (scene: Scene, reducer: MeshReducer): WeightOfGroup[] =>
  weighSlim(scene, heaviestGroups(scene).slice(0, MAX_HEAVY), reducer);

/** How many triangles each would have as slim copies, as drawn. */
export function weighSlim(scene: Scene, weights: readonly WeightOfGroup[], reducer: MeshReducer): WeightOfGroup[] {
  const trianglesOf = (geometry: SceneGeometry) =>
    slimCopy(geometry, scene.materials, reducer).triangleMaterials.length;
  const ofObjects = new Map<number, number>();
  const slimObject = (object: number) => {
    if (!ofObjects.has(object)) ofObjects.set(object, trianglesOf(scene.objects[object]!));
    return ofObjects.get(object)!;
  };
  return weights.map((weight) => {
    const is = (name: string) => keyOf(name) === keyOf(weight.group);
    const placed = scene.instances.filter((i) => is(i.name)).reduce((sum, i) => sum + slimObject(i.object), 0);
    const own = rangesOf(scene)
      .filter(([part]) => is(part.name))
      .reduce((sum, [, from, to]) => sum + trianglesOf(takeTriangles(scene.geometry, range(from, to))), 0);
    return { ...weight, slim: placed + own };
  });
}

function slimParts(
  scene: Scene,
  slims: (name: string) => boolean,
  reducer: MeshReducer
): { geometry: SceneGeometry; parts: ScenePart[] } {
  const ranges = rangesOf(scene);
  if (!ranges.some(([part]) => slims(part.name))) return { geometry: scene.geometry, parts: scene.parts };
  const parts: ScenePart[] = [];
  let at = 0;
  const pieces = ranges.map(([part, from, to]) => {
    const own = takeTriangles(scene.geometry, range(from, to));
    const piece = slims(part.name) ? slimCopy(own, scene.materials, reducer) : own;
    parts.push({ ...part, first: at });
    at += piece.triangleMaterials.length;
    return piece;
  });
  return { geometry: joinGeometries(pieces), parts };
}

const range = (from: number, to: number) => Uint32Array.from({ length: to - from }, (_, i) => from + i);

function dropUnused(
  objects: readonly SceneGeometry[],
  instances: Scene['instances']
): Pick<Scene, 'objects' | 'instances'> {
  const used = [...new Set(instances.map((i) => i.object))].sort((a, b) => a - b);
  const names = new Map(used.map((object, i) => [object, i]));
  return {
    objects: used.map((object) => objects[object]!),
    instances: instances.map((i) => ({ ...i, object: names.get(i.object)! }))
  };
}

/** Each part of the world's own geometry with the triangles that are its. */
function rangesOf(scene: Pick<Scene, 'geometry' | 'parts'>): [part: ScenePart, from: number, to: number][] {
  const parts = worldParts(scene);
  const end = scene.geometry.indices.length / 3;
  return parts.map((part, i) => [part, part.first, parts[i + 1]?.first ?? end]);
}

function keepParts(scene: Scene, stays: (name: string) => boolean): { geometry: SceneGeometry; parts: ScenePart[] } {
  const { indices, triangleMaterials } = scene.geometry;
  const kept = rangesOf(scene).filter(([part]) => stays(part.name));
  const count = kept.reduce((sum, [, from, to]) => sum + to - from, 0);
  if (count === triangleMaterials.length) return { geometry: scene.geometry, parts: scene.parts };
  const geometry = {
    ...scene.geometry,
    indices: new Uint32Array(count * 3),
    triangleMaterials: new Uint32Array(count)
  };
  const parts: ScenePart[] = [];
  let at = 0;
  for (const [part, from, to] of kept) {
    parts.push({ ...part, first: at });
    geometry.indices.set(indices.subarray(from * 3, to * 3), at * 3);
    geometry.triangleMaterials.set(triangleMaterials.subarray(from, to), at);
    at += to - from;
  }
  return { geometry, parts };
}
