/** A glTF document made piece by piece, for readers whose format is another. */
import { Document, type Accessor, type Material, type Node, type Scene } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength, KHRMaterialsTransmission } from '@gltf-transform/extensions';
import { weldPrimitive } from '@gltf-transform/functions';
import { creasedNormals } from './creased-normals';

const LEAST_CLEAR = 0.02;

export interface MeshPart {
  /** xyz a vertex. */
  positions: Float32Array;
  /** xyz a vertex; made by the crease angle where there are none. */
  normals?: Float32Array | null;
  /** uv a vertex, v upwards from the bottom as most formats have it. */
  uv?: Float32Array | null;
  /** Linear rgb or rgba a vertex, 0 to 1. */
  colors?: Float32Array | null;
  /** Three a triangle; null when every three vertices are one. */
  indices?: Uint32Array | null;
  material: Material | null;
}

export class ModelBuilder {
  readonly document = new Document();
  readonly scene: Scene;
  private readonly buffer = this.document.createBuffer();
  /** Parts that had no normals. */
  creased = 0;

  constructor() {
    this.scene = this.document.createScene();
    this.document.getRoot().setDefaultScene(this.scene);
  }

  /** `matrix`: sixteen numbers, column by column. */
  node(name: string, parent: Node | null = null, matrix: readonly number[] | null = null): Node {
    const node = this.document.createNode(name);
    if (matrix) node.setMatrix([...matrix] as unknown as Parameters<Node['setMatrix']>[0]);
    (parent ?? this.scene).addChild(node);
    return node;
  }

  /** Parts without a triangle are left out; null when none is left. */
  mesh(name: string, parts: readonly MeshPart[]) {
    const mesh = this.document.createMesh(name);
    for (const part of parts) {
      const whole = part.normals ? part : this.withNormals(part);
      const corners = whole.indices?.length ?? whole.positions.length / 3;
      if (corners < 3) continue;
      const primitive = this.document.createPrimitive().setMaterial(whole.material);
      primitive.setAttribute('POSITION', this.accessor('VEC3', whole.positions));
      primitive.setAttribute('NORMAL', this.accessor('VEC3', unitVectors(whole.normals!)));
      if (whole.uv) primitive.setAttribute('TEXCOORD_0', this.accessor('VEC2', downwards(whole.uv)));
      if (whole.colors) {
        const rgba = whole.colors.length === (whole.positions.length / 3) * 4;
        primitive.setAttribute('COLOR_0', this.accessor(rgba ? 'VEC4' : 'VEC3', whole.colors));
      }
      if (whole.indices) primitive.setIndices(this.accessor('SCALAR', whole.indices));
      // formats that state every corner apart take many times the memory otherwise
      else weldPrimitive(primitive);
      mesh.addPrimitive(primitive);
    }
    if (mesh.listPrimitives().length > 0) return mesh;
    mesh.dispose();
    return null;
  }

  /** Lines between corners, xyz each: `mode` is glTF's. Null when there are none. */
  curves(name: string, positions: Float32Array, mode: 1 | 2 | 3, material: Material | null) {
    if (positions.length < 6) return null;
    const primitive = this.document.createPrimitive().setMode(mode).setMaterial(material);
    primitive.setAttribute('POSITION', this.accessor('VEC3', positions));
    return this.document.createMesh(name).addPrimitive(primitive);
  }

  /** Makes a thin sheet of glass of what lets a share of light through; next to nothing leaves it as it is. */
  letThrough(material: Material, share: number): void {
    const clear = Math.min(1, Math.max(0, share));
    if (clear < LEAST_CLEAR) return;
    const sheet = this.document.createExtension(KHRMaterialsTransmission).createTransmission();
    material.setRoughnessFactor(0).setExtension('KHR_materials_transmission', sheet.setTransmissionFactor(clear));
  }

  /** Linear light, which may be above 1. */
  glow(material: Material, light: readonly [number, number, number]): void {
    const strength = Math.max(1, ...light);
    material.setEmissiveFactor(light.map((c) => c / strength) as [number, number, number]);
    if (strength === 1) return;
    const extension = this.document.createExtension(KHRMaterialsEmissiveStrength).createEmissiveStrength();
    material.setExtension('KHR_materials_emissive_strength', extension.setEmissiveStrength(strength));
  }

  private withNormals(part: MeshPart): MeshPart {
    this.creased++;
    const corners = cornersOf(part);
    return { ...corners, normals: creasedNormals(corners.positions) };
  }

  private accessor(type: 'SCALAR' | 'VEC2' | 'VEC3' | 'VEC4', array: Float32Array | Uint32Array): Accessor {
    return this.document.createAccessor().setType(type).setArray(array).setBuffer(this.buffer);
  }
}

/** Each corner of a triangle with a vertex of its own. */
function cornersOf(part: MeshPart): MeshPart {
  const { indices } = part;
  if (!indices) return part;
  const spread = (from: Float32Array | null | undefined) => {
    if (!from) return null;
    const size = from.length / (part.positions.length / 3);
    const to = new Float32Array(indices.length * size);
    for (let i = 0; i < indices.length; i++)
      for (let k = 0; k < size; k++) to[i * size + k] = from[indices[i]! * size + k]!;
    return to;
  };
  return {
    positions: spread(part.positions)!,
    uv: spread(part.uv),
    colors: spread(part.colors),
    indices: null,
    material: part.material
  };
}

/** Of length 1, as glTF wants them; those of faces without an area look up. */
function unitVectors(normals: Float32Array): Float32Array {
  const out = new Float32Array(normals.length);
  for (let i = 0; i < normals.length; i += 3) {
    const size = Math.hypot(normals[i]!, normals[i + 1]!, normals[i + 2]!);
    if (size > 1e-12 && Number.isFinite(size)) for (let k = 0; k < 3; k++) out[i + k] = normals[i + k]! / size;
    else out[i + 1] = 1;
  }
  return out;
}

/** glTF counts v from the top. */
function downwards(uv: Float32Array): Float32Array {
  const out = new Float32Array(uv.length);
  for (let i = 0; i < uv.length; i += 2) {
    out[i] = uv[i]!;
    out[i + 1] = 1 - uv[i + 1]!;
  }
  return out;
}
