/**
 * A model with what a brief sets up round it: a studio's backdrop and softboxes are surfaces of their own beside the
 * model's, so that the model need not be touched, nor its tree built anew, when they change.
 */
import type { Scene, SceneLight, SceneMaterial } from './scene';

export interface PlainSurface {
  positions: Float32Array;
  normals: Float32Array;
  indices: Uint32Array;
  material: SceneMaterial;
}

/** A surface whose material is one of the scene's. */
export interface AddedSurface extends Omit<PlainSurface, 'material'> {
  name: string;
  material: number;
}

export interface LitScene extends Scene {
  added: readonly AddedSurface[];
  /**
   * How many of the lights, the last ones, belong to the set and not to the model: a ground is seen as they light it
   * without the model.
   */
  setLights: number;
}

/** The surfaces' materials follow the model's, the set's lights its own. */
export function addSet(scene: Scene, surfaces: readonly PlainSurface[], lights: readonly SceneLight[] = []): LitScene {
  return {
    ...scene,
    lights: [...scene.lights, ...lights],
    setLights: lights.length,
    materials: [...scene.materials, ...surfaces.map((s) => s.material)],
    added: surfaces.map(({ positions, normals, indices, material }, i) => ({
      positions,
      normals,
      indices,
      name: material.name,
      material: scene.materials.length + i
    }))
  };
}
