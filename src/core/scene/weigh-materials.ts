/** What the materials of a model weigh: triangles as drawn, and pictures in memory. */
import type { Scene, SceneMaterial, TextureUse } from './scene';

export interface MaterialWeight {
  name: string;
  /** As drawn. */
  triangles: number;
  /** Of its pictures in memory, with their smaller copies. */
  texture_mb: number;
}

/** All smaller copies of a picture together are a third of it. */
const WITH_COPIES = 4 / 3;
const BYTES_PER_PX = 4;

/** Materials of one name together, the heaviest in triangles first; those that nothing wears are left out. */
export function weighMaterials(
  scene: Pick<Scene, 'geometry' | 'objects' | 'instances' | 'materials' | 'textures'>
): MaterialWeight[] {
  const triangles = new Float64Array(scene.materials.length);
  for (const material of scene.geometry.triangleMaterials) triangles[material]!++;
  const placed = new Map<number, number>();
  for (const { object } of scene.instances) placed.set(object, (placed.get(object) ?? 0) + 1);
  for (const [object, times] of placed)
    for (const material of scene.objects[object]!.triangleMaterials) triangles[material]! += times;
  const found = new Map<string, { triangles: number; textures: Set<number> }>();
  scene.materials.forEach((material, i) => {
    if (triangles[i] === 0) return;
    const name = material.name || 'without a name';
    const weight = found.get(name) ?? { triangles: 0, textures: new Set<number>() };
    weight.triangles += triangles[i]!;
    for (const { texture } of texturesOf(material)) weight.textures.add(texture);
    found.set(name, weight);
  });
  return [...found]
    .map(([name, weight]) => ({
      name,
      triangles: weight.triangles,
      texture_mb:
        Math.round(
          [...weight.textures]
            .map((t) => scene.textures[t]!)
            .reduce((sum, { width, height }) => sum + width * height * BYTES_PER_PX * WITH_COPIES, 0) / 1e5
        ) / 10
    }))
    .sort((a, b) => b.triangles - a.triangles);
}

const texturesOf = (m: SceneMaterial): TextureUse[] =>
  [
    m.baseTexture,
    m.metalRoughTexture,
    m.normalTexture,
    m.emissiveTexture,
    m.transmissionTexture,
    ...Object.values(m.layers?.textures ?? {})
  ].filter((use) => use !== null && use !== undefined);
