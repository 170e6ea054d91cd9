/**
 * A model in clay: one matte material, or one of its own, over everything. Cut-outs keep their shape, lamps and glowing
 * things their light.
 */
import type { ClayLook } from '../brief/brief';
import { MATERIAL_DEFAULTS, type Scene, type SceneMaterial } from './scene';

// From here on a material counts as glass, by how much passes through it.
const GLASS = 0.5;

export const isGlass = (material: Pick<SceneMaterial, 'transmission'>): boolean => material.transmission >= GLASS;

/** Throws a RangeError when the look's material is not in the model. */
export function inClay<T extends Pick<Scene, 'materials'>>(scene: T, look: ClayLook): T {
  const chosen = look.material === null ? null : scene.materials.find((m) => m.name === look.material);
  if (chosen === undefined)
    throw new RangeError(`look.material "${look.material}" is not in the model; choose another or grey`);
  return {
    ...scene,
    materials: scene.materials.map((m) => (look.glass && isGlass(m) ? m : over(m, chosen ?? grey(look.grey))))
  };
}

const grey = (share: number): SceneMaterial => ({
  ...MATERIAL_DEFAULTS,
  name: 'clay',
  baseColor: [share, share, share, 1],
  roughness: 1,
  specular: 0
});

/** What a surface is, seen in another material: its name, its holes and its glow stay. */
function over(own: SceneMaterial, cover: SceneMaterial): SceneMaterial {
  const { name, lamp, emissive, emissiveTexture, twoSided, unseen } = own;
  const shown = {
    ...cover,
    name,
    lamp,
    emissive,
    emissiveTexture,
    twoSided,
    plain: true,
    ...(unseen ? { unseen } : {})
  };
  if (own.alphaMode === 'opaque') return shown;
  const { alphaMode, alphaCutoff, baseTexture, baseColor } = own;
  return {
    ...shown,
    alphaMode,
    alphaCutoff,
    baseTexture,
    baseColor: [cover.baseColor[0], cover.baseColor[1], cover.baseColor[2], baseColor[3]]
  };
}
