/** What of a brief's materials lies in a pack: copies for parts, pictures and where they are projected from, new lamps. */
import type { Brief } from '../brief/brief';
import { bakeGlowing } from '../scene/bake-glowing';
import { type MaterialRule, ruleFor } from '../scene/material-rule';
import { overrideMaterials } from '../scene/override-materials';
import { type Projection, projectTextures } from '../scene/project-texture';
import type { Scene, SceneTexture } from '../scene/scene';
import { hasRelief, type PictureFiles, type PictureRequest, pictureRequests } from '../scene/surface-pictures';

export interface PackedRule extends MaterialRule {
  texture: (PictureFiles & Projection) | null;
  glows: boolean;
}

export type ReadPicture = (request: PictureRequest) => Promise<SceneTexture>;

/** Nothing where no rule needs more than the rig. All are kept where one does: the first that speaks decides. */
export function packedRules({ materials }: Pick<Brief, 'materials'>): { surfaces?: PackedRule[] } {
  const surfaces = materials.map(({ material, part, change, texture }): PackedRule => {
    const glows = (change?.glow_nits ?? 0) > 0;
    if (!texture) return { material, part, glows, texture: null };
    const { color, roughness, normal, height, opacity, projection, axis, turn_deg } = texture;
    const files = { color, roughness, normal, height, opacity };
    const tangents = hasRelief(files);
    return {
      material,
      part,
      glows,
      texture: {
        ...files,
        projection,
        axis: projection === 'planar' || projection === 'cylinder' ? axis : 'y',
        // elsewhere the picture is turned without a new pack
        turn_deg: tangents && projection !== 'file' ? turn_deg : 0,
        tangents
      }
    };
  });
  return surfaces.some((s) => s.part !== null || s.glows || s.texture) ? { surfaces } : {};
}

export async function packSurfaces(
  scene: Scene,
  rules: readonly PackedRule[],
  readPicture: ReadPicture
): Promise<Scene> {
  const copied = overrideMaterials(
    scene,
    rules.flatMap(({ material, part }) => (part === null ? [] : [{ material, part }]))
  );
  const own = copied.materials.map((m) => ruleFor(rules, m));
  const baked = bakeGlowing(
    copied,
    own.map((rule, m) => rule?.glows === true && copied.materials[m]!.emissive.every((c) => c === 0))
  );
  const projected = projectTextures(baked, (m) => own[m]?.texture ?? null);
  const textures = [...projected.textures];
  const pictures = new Map<string, number>();
  for (const rule of new Set(own)) {
    if (!rule?.texture) continue;
    for (const [name, request] of pictureRequests(rule.texture))
      if (!pictures.has(name)) pictures.set(name, textures.push(await readPicture(request)) - 1);
  }
  // shadow rays ask the pack which triangles have holes
  const materials = projected.materials.map((m, i) =>
    own[i]?.texture?.opacity && m.alphaMode === 'opaque' ? { ...m, alphaMode: 'mask' as const } : m
  );
  return { ...projected, materials, textures, pictures };
}
