/** Adds plain surfaces (a studio's backdrop, a softbox) to a scene without touching the one given. */
import { IDENTITY } from '../math/affine';
import type { Scene, SceneMaterial } from './scene';

export interface PlainSurface {
  positions: Float32Array;
  normals: Float32Array;
  indices: Uint32Array;
  material: SceneMaterial;
}

const joinFloats = (a: Float32Array, b: Float32Array) => {
  const out = new Float32Array(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
};
const joinUints = (a: Uint32Array, b: Uint32Array) => {
  const out = new Uint32Array(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
};

export function addSurfaces(scene: Scene, surfaces: readonly PlainSurface[]): Scene {
  let { geometry } = scene;
  const materials = [...scene.materials];
  const parts = [...scene.parts];
  for (const surface of surfaces) {
    const vertices = surface.positions.length / 3;
    const first = geometry.positions.length / 3;
    const colors = new Uint8Array(geometry.colors.length + vertices * 4).fill(255);
    colors.set(geometry.colors);
    geometry = {
      positions: joinFloats(geometry.positions, surface.positions),
      normals: joinFloats(geometry.normals, surface.normals),
      tangents: joinFloats(geometry.tangents, new Float32Array(vertices * 4)),
      uv0: joinFloats(geometry.uv0, new Float32Array(vertices * 2)),
      uv1: joinFloats(geometry.uv1, new Float32Array(vertices * 2)),
      colors,
      indices: joinUints(geometry.indices, surface.indices.map((i) => i + first)),
      triangleMaterials: joinUints(geometry.triangleMaterials, new Uint32Array(surface.indices.length / 3).fill(materials.length))
    };
    parts.push({ name: surface.material.name, first: (geometry.indices.length - surface.indices.length) / 3, matrix: IDENTITY });
    materials.push(surface.material);
  }
  return { ...scene, geometry, materials, parts };
}
