/** One material of a model, with how large its pictures lie, for a swatch. */
import { readFile } from 'node:fs/promises';
import type { Document, Primitive } from '@gltf-transform/core';
import type { SceneMaterial, SceneTexture } from '../../core/scene/scene';
import { createIo } from './io';
import { readMaterials } from './read-materials';

export interface FileMaterial {
  material: SceneMaterial;
  textures: SceneTexture[];
  /** How often the pictures repeat in a metre, by the first of its parts that has texture coordinates; null: unknown. */
  repeatsPerMetre: number | null;
}

/** Null when the model has none of that name. */
export async function readFileMaterial(path: string, name: string): Promise<FileMaterial | null> {
  const document = await (await createIo()).readBinary(new Uint8Array(await readFile(path)));
  const { materials, textures } = await readMaterials(document, name);
  const [material] = materials;
  return material ? { material, textures, repeatsPerMetre: repeatsOf(document, name) } : null;
}

// Triangles that the scale is taken from.
const SEEN = 200;

function repeatsOf(document: Document, name: string): number | null {
  for (const node of document.getRoot().listNodes())
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      if (primitive.getMaterial()?.getName() !== name) continue;
      const [x, y, z] = node.getWorldScale();
      const found = repeatsIn(primitive, Math.cbrt(Math.abs(x! * y! * z!)));
      if (found !== null) return found;
    }
  return null;
}

/** Square root of what triangles cover of the picture over what they cover in the world. */
function repeatsIn(primitive: Primitive, scale: number): number | null {
  const position = primitive.getAttribute('POSITION');
  const uv = primitive.getAttribute('TEXCOORD_0');
  if (!position || !uv) return null;
  const indices = primitive.getIndices();
  const corners = Math.min(indices?.getCount() ?? position.getCount(), SEEN * 3);
  let [world, picture] = [0, 0];
  for (let i = 0; i + 2 < corners; i += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => indices?.getScalar(i + k) ?? i + k) as [number, number, number];
    const at = (v: number): number[] => position.getElement(v, []);
    const [p, q, r] = [at(a), at(b), at(c)];
    const [e, f] = [q.map((v, k) => v - p[k]!), r.map((v, k) => v - p[k]!)] as [number[], number[]];
    world += Math.hypot(e[1]! * f[2]! - e[2]! * f[1]!, e[2]! * f[0]! - e[0]! * f[2]!, e[0]! * f[1]! - e[1]! * f[0]!);
    const on = (v: number): number[] => uv.getElement(v, []);
    const [s, t, u] = [on(a), on(b), on(c)];
    picture += Math.abs((t[0]! - s[0]!) * (u[1]! - s[1]!) - (t[1]! - s[1]!) * (u[0]! - s[0]!));
  }
  const repeats = Math.sqrt(picture / world) / scale;
  return Number.isFinite(repeats) && repeats > 0 ? repeats : null;
}
