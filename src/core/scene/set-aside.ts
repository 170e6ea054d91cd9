/** Heavy things left out of quick looks: a scene without the objects of some groups, and which groups weigh most. Groups go by name, as lamps do (lamp-groups.ts). */
import { lampGroup } from './lamp-groups';
import { type Scene, type SceneGeometry, type ScenePart, worldParts } from './scene';

export interface WeightOfGroup {
  group: string;
  /** As drawn: each object as often as it stands. */
  triangles: number;
  /** How many objects of that name there are. */
  count: number;
}

const keyOf = (name: string) => lampGroup(name).toLowerCase();

/** Heaviest first; those of at least `least` of all triangles. */
export function heaviestGroups(scene: Pick<Scene, 'geometry' | 'objects' | 'instances' | 'parts'>, least = 0.02): WeightOfGroup[] {
  const groups = new Map<string, WeightOfGroup>();
  const put = (name: string, triangles: number) => {
    const known = groups.get(keyOf(name));
    if (known) groups.set(keyOf(name), { ...known, triangles: known.triangles + triangles, count: known.count + 1 });
    else groups.set(keyOf(name), { group: lampGroup(name), triangles, count: 1 });
  };
  for (const { name, object } of scene.instances) put(name, scene.objects[object]!.indices.length / 3);
  for (const [part, from, to] of rangesOf(scene)) put(part.name, to - from);
  const all = [...groups.values()].reduce((sum, g) => sum + g.triangles, 0);
  return [...groups.values()].filter((g) => g.triangles >= least * all).sort((a, b) => b.triangles - a.triangles);
}

/** The scene without them; its bounds stay, so that what is reckoned from its size does not change. Throws a RangeError when nothing would be left. */
export function setAside<T extends Scene>(scene: T, groups: readonly string[]): T {
  if (groups.length === 0) return scene;
  const aside = new Set(groups.map((g) => g.toLowerCase()));
  const stays = (name: string) => !aside.has(keyOf(name));
  const { geometry, parts } = keepParts(scene, stays);
  const instances = scene.instances.filter((i) => stays(i.name));
  if (geometry.indices.length === 0 && instances.length === 0) throw new RangeError('quality.aside leaves nothing of the model; keep some of it');
  return { ...scene, geometry, parts, instances };
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
  const geometry = { ...scene.geometry, indices: new Uint32Array(count * 3), triangleMaterials: new Uint32Array(count) };
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
