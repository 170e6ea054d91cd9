/**
 * What a loader of three.js made, as a glTF document: its meshes with their groups, names and places, its materials in the
 * terms of glTF. Loaders are used without a page: they read bytes and draw nothing.
 */
import type { Material, Node } from '@gltf-transform/core';
import {
  type BufferAttribute,
  type BufferGeometry,
  type Camera,
  Color,
  type InterleavedBufferAttribute,
  type Line,
  type Material as ThreeMaterial,
  type Mesh,
  type Object3D,
  type OrthographicCamera,
  type PerspectiveCamera
} from 'three';
import { ModelBuilder, type MeshPart } from './model-builder';

type Attribute = BufferAttribute | InterleavedBufferAttribute;

export interface ThreeOptions {
  /** Makes the material of a name; each object is asked for once. */
  material(from: ThreeMaterial, builder: ModelBuilder): Material | null;
}

/** `skipped`: parts made of points, which have no surface; `lights`: lamps, which are not taken over. */
export function threeDocument(
  root: Object3D,
  options: ThreeOptions
): {
  builder: ModelBuilder;
  skipped: number;
  lights: number;
} {
  const builder = new ModelBuilder();
  const materials = new Map<ThreeMaterial, Material | null>();
  const materialOf = (from: ThreeMaterial | undefined): Material | null => {
    if (!from) return null;
    const known = materials.get(from);
    if (known !== undefined) return known;
    const made = options.material(from, builder);
    materials.set(from, made);
    return made;
  };
  let [skipped, lights] = [0, 0];
  const walk = (object: Object3D, parent: Node | null) => {
    object.updateMatrix();
    const node = builder.node(object.name, parent, object.matrix.elements);
    if ((object as Mesh).isMesh) {
      const mesh = object as Mesh;
      const parts = partsOf(mesh.geometry, ([] as ThreeMaterial[]).concat(mesh.material), materialOf);
      const made = builder.mesh(object.name || mesh.geometry.name, parts);
      if (made) node.setMesh(made);
    } else if ('isLine' in object) {
      const { geometry, material } = object as Line;
      const mode = 'isLineSegments' in object ? 1 : 'isLineLoop' in object ? 2 : 3;
      const made = builder.curves(
        object.name,
        cornersOf(geometry),
        mode,
        materialOf(([] as ThreeMaterial[]).concat(material)[0])
      );
      if (made) node.setMesh(made);
    } else if ('isPoints' in object) skipped++;
    else if ('isLight' in object) lights += 'isAmbientLight' in object ? 0 : 1;
    else if ('isCamera' in object) node.setCamera(cameraOf(object as Camera, builder));
    for (const child of object.children) walk(child, node);
  };
  walk(root, null);
  return { builder, skipped, lights };
}

function cameraOf(from: Camera, { document }: ModelBuilder) {
  const made = document.createCamera(from.name);
  if ('isOrthographicCamera' in from) {
    const { left, right, top, bottom, near, far, zoom } = from as OrthographicCamera;
    made
      .setType('orthographic')
      .setXMag((right - left) / 2 / zoom)
      .setYMag((top - bottom) / 2 / zoom);
    return made.setZNear(Math.max(0, near)).setZFar(far);
  }
  const { fov, aspect, near } = from as PerspectiveCamera;
  made
    .setType('perspective')
    .setYFov((fov * Math.PI) / 180)
    .setZNear(Math.max(1e-4, near));
  // 1 is what a loader writes when the file says nothing
  return aspect === 1 ? made : made.setAspectRatio(aspect);
}

/** xyz of each corner, in the order in which it is drawn. */
function cornersOf({ index, attributes: { position } }: BufferGeometry): Float32Array {
  const count = index?.count ?? position?.count ?? 0;
  const out = new Float32Array(count * 3);
  for (let i = 0; i < count; i++) {
    const at = index?.getX(i) ?? i;
    out.set([position!.getX(at), position!.getY(at), position!.getZ(at)], i * 3);
  }
  return out;
}

/** One part a group, or the whole where there are none. */
function partsOf(
  geometry: BufferGeometry,
  materials: readonly ThreeMaterial[],
  materialOf: (from: ThreeMaterial | undefined) => Material | null
): MeshPart[] {
  const position = geometry.getAttribute('position') as Attribute | undefined;
  if (!position) return [];
  const [normal, uv, color] = (['normal', 'uv', 'color'] as const).map(
    (name) => geometry.getAttribute(name) as Attribute | undefined
  );
  const index = geometry.index;
  const corners = index?.count ?? position.count;
  const groups =
    materials.length > 1 && geometry.groups.length > 0
      ? geometry.groups
      : [{ start: 0, count: corners, materialIndex: 0 }];
  return groups.flatMap(({ start, count, materialIndex = 0 }): MeshPart[] => {
    const end = Math.min(corners, start + count);
    const taken = end - start - ((end - start) % 3);
    if (taken < 3) return [];
    const material = materialOf(materials[materialIndex] ?? materials[0]);
    // a group of an indexed mesh keeps the vertices of all of it; what is not used is pruned later
    if (index) {
      const indices = Uint32Array.from({ length: taken }, (_, i) => index.getX(start + i));
      return [{ ...attributes(position, normal, uv, color, 0, position.count), indices, material }];
    }
    return [{ ...attributes(position, normal, uv, color, start, taken), indices: null, material }];
  });
}

function attributes(
  position: Attribute,
  normal: Attribute | undefined,
  uv: Attribute | undefined,
  color: Attribute | undefined,
  start: number,
  count: number
): Omit<MeshPart, 'material'> {
  return {
    positions: copy(position, 3, start, count),
    normals: normal ? copy(normal, 3, start, count) : null,
    uv: uv ? copy(uv, 2, start, count) : null,
    colors: color ? copy(color, Math.min(4, color.itemSize), start, count) : null
  };
}

function copy(from: Attribute, size: number, start: number, count: number): Float32Array {
  const out = new Float32Array(count * size);
  for (let i = 0; i < count; i++) for (let k = 0; k < size; k++) out[i * size + k] = from.getComponent(start + i, k);
  return out;
}

/** What materials of three.js have in common: numbers that a reader turns into glTF's. */
export interface PlainMaterial {
  name: string;
  /** Linear, 0 to 1. */
  color: readonly [number, number, number];
  emissive?: readonly [number, number, number];
  opacity?: number;
  roughness?: number;
  metalness?: number;
  /** Blinn's exponent, of older materials. */
  shininess?: number;
  twoSided: boolean;
  alphaTest?: number;
}

export function plainMaterial(from: ThreeMaterial): PlainMaterial {
  const m = from as ThreeMaterial & {
    color?: Color;
    emissive?: Color;
    roughness?: number;
    metalness?: number;
    shininess?: number;
  };
  const rgb = (color: Color | undefined): [number, number, number] | undefined => color && [color.r, color.g, color.b];
  return {
    name: from.name,
    color: rgb(m.color) ?? [0.8, 0.8, 0.8],
    emissive: rgb(m.emissive),
    opacity: from.transparent ? from.opacity : 1,
    roughness: m.roughness,
    metalness: m.metalness,
    shininess: m.shininess,
    twoSided: from.side === 2,
    alphaTest: from.alphaTest
  };
}

/**
 * The roughness of a Blinn highlight's exponent: alpha = sqrt(2 / (n + 2)), and roughness its root. Source: Walter et al.
 * 2007, section 5.1 (the Beckmann width of a Phong exponent).
 */
export const roughnessOfExponent = (exponent: number): number => (2 / (Math.max(0, exponent) + 2)) ** 0.25;
