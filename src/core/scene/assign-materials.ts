/** Materials of the file that become ones of the library, by their names. Holes, glow and sides stay those of the file. */
import { libraryMaterial } from './material-library';
import { MATERIAL_DEFAULTS, type Scene, type SceneMaterial } from './scene';

export interface AssignedMaterial {
  /** Its name in the file, in whatever letters; a * stands for any letters. */
  material: string;
  /** Key in the library. */
  becomes: string;
}

/** Whether a rule speaks of a material of that name. */
export function isMeant(rule: string, name: string): boolean {
  const pattern = rule
    .split('*')
    .map((text) => text.replaceAll(/[.*+?^${}()|[\]\\]/g, '\\$&'))
    .join('.*');
  return new RegExp(`^${pattern}$`, 'i').test(name);
}

/** The first rule that speaks of a material decides. Throws a RangeError when a material is not in the library. */
export function assignMaterials<T extends Pick<Scene, 'materials'>>(scene: T, rules: readonly AssignedMaterial[]): T {
  if (rules.length === 0) return scene;
  for (const { becomes } of rules)
    if (!libraryMaterial(becomes))
      throw new RangeError(`materials.becomes "${becomes}" is not in the library; choose another material`);
  return {
    ...scene,
    materials: scene.materials.map((own) => {
      const rule = rules.find(({ material }) => isMeant(material, own.name));
      return rule ? wearing(own, libraryMaterial(rule.becomes)!.material) : own;
    })
  };
}

function wearing(own: SceneMaterial, cover: Partial<SceneMaterial>): SceneMaterial {
  const { name, lamp, emissive, emissiveTexture, unseen } = own;
  // a pane is thin in the file, and stays it in another glass
  const isPane = own.transmission > 0 && !own.solid && (cover.transmission ?? 0) > 0;
  const worn: SceneMaterial = {
    ...MATERIAL_DEFAULTS,
    ...cover,
    name,
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
