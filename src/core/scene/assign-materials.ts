/**
 * What materials of the file become by the rules of a brief: ones of the library, or their own, changed and with pictures
 * on them. Holes, glow and sides stay those of the file where a rule says nothing of them.
 */
import { changedMaterial, type MaterialChange } from './change-material';
import { libraryMaterial } from './material-library';
import { type MaterialRule, ruleFor } from './material-rule';
import { MATERIAL_DEFAULTS, type Scene, type SceneMaterial } from './scene';
import { type SurfaceTexture, withPictures } from './surface-pictures';

export interface AssignedMaterial extends MaterialRule {
  /** Key in the library; null: it stays that of the file. */
  becomes: string | null;
  change: MaterialChange | null;
  texture: SurfaceTexture | null;
}

type Assigned = Pick<Scene, 'materials' | 'textures' | 'pictures'>;

/** The first rule that speaks of a material decides. Throws a RangeError when a material is not in the library. */
export function assignMaterials<T extends Assigned>(scene: T, rules: readonly AssignedMaterial[]): T {
  if (rules.length === 0) return scene;
  for (const { becomes } of rules)
    if (becomes !== null && !libraryMaterial(becomes))
      throw new RangeError(`materials.becomes "${becomes}" is not in the library; choose another material`);
  return {
    ...scene,
    materials: scene.materials.map((own) => {
      const rule = ruleFor(rules, own);
      return rule ? byRule(own, rule, scene) : own;
    })
  };
}

/** Without pictures where they are not there. */
export function byRule(
  own: SceneMaterial,
  { becomes, change, texture }: Pick<AssignedMaterial, 'becomes' | 'change' | 'texture'>,
  { pictures, textures }: Pick<Scene, 'textures' | 'pictures'>
): SceneMaterial {
  const worn = becomes === null ? own : wearing(own, libraryMaterial(becomes)!.material);
  const covered = texture && pictures ? withPictures(worn, texture, pictures, textures) : worn;
  return change ? changedMaterial(covered, change) : covered;
}

function wearing(own: SceneMaterial, cover: Partial<SceneMaterial>): SceneMaterial {
  const { name, part, lamp, emissive, emissiveTexture, unseen } = own;
  // a pane is thin in the file, and stays it in another glass
  const isPane = own.transmission > 0 && !own.solid && (cover.transmission ?? 0) > 0;
  const worn: SceneMaterial = {
    ...MATERIAL_DEFAULTS,
    ...cover,
    name,
    ...(part === undefined ? {} : { part }),
    lamp,
    emissive,
    emissiveTexture,
    // a body of glass is left through the backs of its surface
    twoSided: cover.solid && !isPane ? false : own.twoSided,
    // what tints vertices or is in the file's picture was the old material
    plain: true,
    ...(isPane
      ? { solid: false, baseColor: [...(cover.attenuationColor ?? [1, 1, 1]), 1] as SceneMaterial['baseColor'] }
      : {}),
    ...(unseen ? { unseen } : {})
  };
  if (own.alphaMode === 'opaque') return worn;
  const { alphaMode, alphaCutoff, baseTexture } = own;
  return {
    ...worn,
    alphaMode,
    alphaCutoff,
    baseTexture,
    baseColor: [worn.baseColor[0], worn.baseColor[1], worn.baseColor[2], own.baseColor[3]]
  };
}
