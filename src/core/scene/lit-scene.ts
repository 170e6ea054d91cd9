/**
 * A model with what a brief sets up round it: a studio's backdrop and softboxes are surfaces of their own beside the model's, so that
 * the model need not be touched, nor its tree built anew, when they change.
 */
import type { Scene, SceneMaterial } from './scene';

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
}

/** The surfaces' materials follow the model's. */
export function addSurfaces(scene: Scene, surfaces: readonly PlainSurface[]): LitScene {
  return {
    ...scene,
    materials: [...scene.materials, ...surfaces.map((s) => s.material)],
    added: surfaces.map(({ positions, normals, indices, material }, i) => ({ positions, normals, indices, name: material.name, material: scene.materials.length + i }))
  };
}
