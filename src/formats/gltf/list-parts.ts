/** The tree of a normalised model with what each part weighs, read from the head of its file alone. */
import { type Affine, boundsUnder, IDENTITY, multiplyAffine } from '../../core/math/affine';
import type { Vec3 } from '../../core/math/vec3';
import type { ModelPart } from '../../core/scene/model-part';
import { nameOfPath, partPaths, WHOLE } from '../../core/scene/part-paths';

export interface GlbHead {
  scene?: number;
  scenes?: { nodes?: number[] }[];
  nodes?: {
    name?: string;
    children?: number[];
    mesh?: number;
    camera?: number;
    matrix?: number[];
    translation?: Vec3;
    rotation?: [number, number, number, number];
    scale?: Vec3;
    extensions?: { KHR_lights_punctual?: object };
  }[];
  meshes?: {
    name?: string;
    primitives: { attributes: Record<string, number>; indices?: number; material?: number; mode?: number }[];
  }[];
  materials?: { name?: string }[];
  cameras?: {
    name?: string;
    perspective?: { aspectRatio?: number };
    orthographic?: { xmag: number; ymag: number };
  }[];
  accessors?: { count: number; min?: number[]; max?: number[] }[];
}

const HEADER_BYTES = 20;
// glTF 2.0, 3.7.2.1
const TRIANGLES = 4;

/** Throws a RangeError when the bytes are no GLB. */
export function readHead(glb: Uint8Array): GlbHead {
  const view = new DataView(glb.buffer, glb.byteOffset, glb.byteLength);
  if (glb.byteLength < HEADER_BYTES || view.getUint32(0, true) !== 0x46546c67)
    throw new RangeError('readHead: expected a GLB, got other bytes');
  const length = view.getUint32(12, true);
  return JSON.parse(new TextDecoder().decode(glb.subarray(HEADER_BYTES, HEADER_BYTES + length))) as GlbHead;
}

type Box = { min: Vec3; max: Vec3 };

/** From the outermost, each before what lies within it; parts without a surface or a lamp are left out. */
export function listParts(json: GlbHead): ModelPart[] {
  const nodes = json.nodes ?? [];
  const meshes = json.meshes ?? [];
  const roots = json.scenes?.[json.scene ?? 0]?.nodes ?? [];
  const outlines = nodes.map((n) => ({
    name: n.name || (n.mesh === undefined ? '' : (meshes[n.mesh]?.name ?? '')),
    children: n.children ?? []
  }));
  const paths = partPaths(outlines, roots);
  const own = meshes.map((mesh) => weigh(mesh, json));
  const out: ModelPart[] = [];
  /** Returns what it holds; null when that is nothing. */
  const walk = (index: number, above: Affine, depth: number): Weight | null => {
    const node = nodes[index];
    const path = paths.get(index);
    if (!node || path === undefined) return null;
    const matrix = multiplyAffine(above, matrixOf(node));
    const at = out.length;
    const isWhole = path === WHOLE;
    const part: ModelPart = {
      path,
      name: nameOfPath(path),
      depth,
      triangles: 0,
      objects: 0,
      materials: [],
      min_m: [0, 0, 0],
      max_m: [0, 0, 0]
    };
    if (!isWhole) out.push(part);
    const mesh = node.mesh === undefined ? null : (own[node.mesh] ?? null);
    const weights = [
      mesh && { ...mesh, box: mesh.box && boundsUnder(matrix, mesh.box) },
      ...(node.children ?? []).map((child) => walk(child, matrix, isWhole ? depth : depth + 1))
    ].filter((w) => w !== null);
    const lit = node.extensions?.KHR_lights_punctual !== undefined;
    if (weights.length === 0 && !lit) {
      if (!isWhole) out.splice(at, 1);
      return null;
    }
    const sum = weights.length === 0 ? lampAt(matrix) : weights.reduce(join);
    part.triangles = sum.triangles;
    part.objects = sum.objects;
    part.materials = [...sum.materials];
    if (sum.box) {
      part.min_m = [...sum.box.min];
      part.max_m = [...sum.box.max];
    }
    return sum;
  };
  for (const root of roots) walk(root, IDENTITY, 0);
  return out;
}

interface Weight {
  triangles: number;
  objects: number;
  materials: Set<string>;
  box: Box | null;
}

function weigh(mesh: NonNullable<GlbHead['meshes']>[number], { accessors = [], materials = [] }: GlbHead): Weight {
  const out: Weight = { triangles: 0, objects: 1, materials: new Set(), box: null };
  for (const { attributes, indices, material, mode = TRIANGLES } of mesh.primitives) {
    const position = accessors[attributes.POSITION ?? -1];
    const count = indices === undefined ? (position?.count ?? 0) : (accessors[indices]?.count ?? 0);
    if (mode === TRIANGLES) out.triangles += Math.floor(count / 3);
    if (material !== undefined) out.materials.add(materials[material]?.name ?? '');
    if (position?.min && position.max)
      out.box = joinBoxes(out.box, { min: position.min as unknown as Vec3, max: position.max as unknown as Vec3 });
  }
  return out;
}

function lampAt(matrix: Affine): Weight {
  const at: Vec3 = [matrix[9], matrix[10], matrix[11]];
  return { triangles: 0, objects: 1, materials: new Set(), box: { min: at, max: at } };
}

const join = (a: Weight, b: Weight): Weight => ({
  triangles: a.triangles + b.triangles,
  objects: a.objects + b.objects,
  materials: new Set([...a.materials, ...b.materials]),
  box: joinBoxes(a.box, b.box)
});

function joinBoxes(a: Box | null, b: Box | null): Box | null {
  if (!a || !b) return a ?? b;
  const each = (pick: (x: number, y: number) => number, p: Vec3, q: Vec3): Vec3 => [
    pick(p[0], q[0]),
    pick(p[1], q[1]),
    pick(p[2], q[2])
  ];
  return { min: each(Math.min, a.min, b.min), max: each(Math.max, a.max, b.max) };
}

type NodeOfFile = NonNullable<GlbHead['nodes']>[number];

function matrixOf({ matrix, translation = [0, 0, 0], rotation = [0, 0, 0, 1], scale = [1, 1, 1] }: NodeOfFile): Affine {
  if (matrix) {
    const at = (i: number) => matrix[i] ?? 0;
    return [at(0), at(1), at(2), at(4), at(5), at(6), at(8), at(9), at(10), at(12), at(13), at(14)];
  }
  const [x, y, z, w] = rotation;
  const [sx, sy, sz] = scale;
  return [
    (1 - 2 * (y * y + z * z)) * sx,
    2 * (x * y + z * w) * sx,
    2 * (x * z - y * w) * sx,
    2 * (x * y - z * w) * sy,
    (1 - 2 * (x * x + z * z)) * sy,
    2 * (y * z + x * w) * sy,
    2 * (x * z + y * w) * sz,
    2 * (y * z - x * w) * sz,
    (1 - 2 * (x * x + y * y)) * sz,
    ...translation
  ];
}

/** Width over height of the frames of a model's cameras, by their names; null where the file does not say. */
export function cameraAspects({ nodes = [], cameras = [] }: GlbHead): Map<string, number | null> {
  const out = new Map<string, number | null>();
  for (const { name, camera } of nodes) {
    const lens = camera === undefined ? undefined : cameras[camera];
    if (!lens) continue;
    const { orthographic, perspective } = lens;
    const aspect = orthographic ? orthographic.xmag / orthographic.ymag : perspective?.aspectRatio;
    out.set(name || lens.name || '', aspect || null);
  }
  return out;
}
