/** Reads a normalised GLB (metres, +Y up) into a scene with everything in world space, images decoded to rgba8. */
import type { Node, Primitive } from '@gltf-transform/core';
import type { Light } from '@gltf-transform/extensions';
import type { Vec3 } from '../../core/math/vec3';
import { lampGroup, lampName, type LampPlace } from '../../core/scene/lamp-groups';
import { WRAP_NAME } from '../../core/scene/part-paths';
import {
  MATERIAL_DEFAULTS,
  type Scene,
  type SceneCamera,
  type SceneCurves,
  type SceneLight,
  type SceneMaterial,
  sceneBounds
} from '../../core/scene/scene';
import type { OpenFrame } from '../../core/scene/opening';
import { isHidden } from './hidden-nodes';
import { createIo } from './io';
import { pathsOf } from './node-paths';
import { type Piece, placePieces } from './place-pieces';
import { readMaterials } from './read-materials';
import { isOpening, readOpenings } from './read-openings';

type Matrix = readonly number[];
const REFERENCE_SENSOR_MM = 24;
// glTF 2.0, 3.7.2.1
const LINES = 1;
const TRIANGLES = 4;

export async function readScene(glb: Uint8Array): Promise<Scene> {
  const document = await (await createIo()).readBinary(glb);
  const root = document.getRoot();
  const { materials, textures } = await readMaterials(document);
  materials.push({ ...MATERIAL_DEFAULTS, name: 'no material' });
  const fallback = materials.length - 1;

  const pieces: NodePiece[] = [];
  const lights: SceneLight[] = [];
  const lampPlaces: LampPlace[] = [];
  const cameras: SceneCamera[] = [];
  const openings: OpenFrame[] = [];
  const curves: SceneCurves[] = [];
  const paths = pathsOf(document);
  for (const scene of root.listScenes().slice(0, 1)) {
    scene.traverse((node) => {
      const matrix = node.getWorldMatrix();
      const path = paths.get(node) ?? '';
      collectLight(node, matrix, path, lights, lampPlaces);
      collectCamera(node, matrix, cameras);
      if (isOpening(node)) {
        openings.push(...readOpenings(node));
        return;
      }
      for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
        const material = primitive.getMaterial();
        const name = node.getName() || node.getMesh()!.getName();
        const index = material ? root.listMaterials().indexOf(material) : fallback;
        if (primitive.getMode() === LINES)
          curves.push({ name, path, segments: segmentsOf(primitive, matrix), material: index });
        if (primitive.getMode() !== TRIANGLES) continue;
        pieces.push({
          name,
          path,
          node,
          primitive,
          matrix,
          material: index
        });
      }
    });
  }
  nameGlow(pieces, materials, lampPlaces);
  const places = placePieces(pieces, materials);
  return {
    ...places,
    materials,
    textures,
    lights,
    cameras,
    lampPlaces,
    ...(openings.length > 0 ? { openings } : {}),
    ...(curves.length > 0 ? { curves } : {}),
    bounds: sceneBounds(places)
  };
}

/** Corners of lines in the world, six numbers a segment, as formats/model/curves.ts writes them. */
function segmentsOf(primitive: Primitive, m: Matrix): Float32Array {
  const given = primitive.getAttribute('POSITION')!.getArray()!;
  const out = new Float32Array(given.length - (given.length % 6));
  for (let i = 0; i < out.length; i += 3)
    for (let k = 0; k < 3; k++)
      out[i + k] = m[k]! * given[i]! + m[4 + k]! * given[i + 1]! + m[8 + k]! * given[i + 2]! + m[12 + k]!;
  return out;
}

// A model with more glowing parts than this has them told apart by their groups alone: each takes a material.
const MAX_GLOWING = 256;

type NodePiece = Piece & { node: Node };

/** Each glowing part becomes a lamp by its own name, with a material of its own. */
function nameGlow(pieces: NodePiece[], materials: SceneMaterial[], lampPlaces: LampPlace[]): void {
  const glowing = pieces.filter((piece) => materials[piece.material]!.emissive.some((c) => c > 0));
  const ofNode = new Map<Node, string>();
  const taken = new Set<string>();
  for (const { node, name, material } of glowing)
    if (!ofNode.has(node)) ofNode.set(node, unique(lampName(name, materials[material]!.name), taken));
  const plain = glowing.map(({ node }) => ofNode.get(node)!);
  const names = taken.size > MAX_GLOWING ? plain.map(lampGroup) : plain;
  const known = new Map<string, number>();
  for (const [i, piece] of glowing.entries()) {
    const material = materials[piece.material]!;
    const lamp = names[i]!;
    const key = `${piece.material}:${lamp}`;
    if (material.lamp === null) {
      materials[piece.material] = { ...material, lamp };
      known.set(key, piece.material);
    } else if (!known.has(key)) known.set(key, materials.push({ ...material, lamp }) - 1);
    piece.material = known.get(key)!;
    if (!lampPlaces.some((p) => p.name === lamp && p.kind === 'glowing'))
      lampPlaces.push({ name: lamp, kind: 'glowing', at_m: middleOf(piece), within: withinOf(piece.node) });
  }
}

/** A name that no other lamp has; a number at its end leaves its group as it is. */
function unique(name: string, taken: Set<string>): string {
  let own = name;
  for (let n = 2; taken.has(own); n++) own = `${name}.${n}`;
  taken.add(own);
  return own;
}

/** The middle of a part's box, in the world. */
function middleOf({ primitive, matrix }: Piece): [number, number, number] {
  const position = primitive.getAttribute('POSITION')!;
  const [low, high] = [position.getMin([]), position.getMax([])];
  const [x, y, z] = [0, 1, 2].map((k) => (low[k]! + high[k]!) / 2) as [number, number, number];
  return [0, 1, 2].map((k) => matrix[k]! * x + matrix[4 + k]! * y + matrix[8 + k]! * z + matrix[12 + k]!) as [
    number,
    number,
    number
  ];
}

/** What a node is part of, from the outermost, but for what the import puts round all. */
function withinOf(node: Node): string[] {
  const out: string[] = [];
  for (let parent = node.getParentNode(); parent; parent = parent.getParentNode())
    if (parent.getName() && parent.getName() !== WRAP_NAME) out.unshift(parent.getName());
  return out;
}

const axis = (m: Matrix, column: number): Vec3 => {
  const v = [m[column * 4]!, m[column * 4 + 1]!, m[column * 4 + 2]!];
  const size = Math.hypot(...v) || 1;
  return [v[0]! / size, v[1]! / size, v[2]! / size];
};
const place = (m: Matrix): [number, number, number] => [m[12]!, m[13]!, m[14]!];

function collectLight(node: Node, matrix: Matrix, path: string, lights: SceneLight[], lampPlaces: LampPlace[]): void {
  const light = node.getExtension<Light>('KHR_lights_punctual');
  if (!light) return;
  const intensity = light.getColor().map((c) => c * light.getIntensity()) as unknown as Vec3;
  const back = axis(matrix, 2);
  const direction: Vec3 = [-back[0], -back[1], -back[2]];
  // some exporters turn a lamp by a node of its own below it
  const name = unique(
    lampName(node.getName().replace(/_Orientation$/, ''), light.getName()),
    new Set(lampPlaces.map((l) => l.name))
  );
  const hidden = isHidden(node) ? { hidden: true as const } : {};
  lampPlaces.push({ name, kind: 'lamps', at_m: place(matrix), within: withinOf(node), ...hidden });
  const own = { name, path, ...hidden };
  if (light.getType() === 'directional')
    lights.push({ kind: 'directional', direction, illuminance: intensity, ...own });
  else if (light.getType() === 'spot')
    lights.push({
      kind: 'spot',
      position: place(matrix),
      direction,
      intensity,
      innerAngle: light.getInnerConeAngle(),
      outerAngle: light.getOuterConeAngle(),
      ...own
    });
  else lights.push({ kind: 'point', position: place(matrix), intensity, ...own });
}

function collectCamera(node: Node, matrix: Matrix, cameras: SceneCamera[]): void {
  const camera = node.getCamera();
  if (!camera) return;
  const position_m = place(matrix);
  const back = axis(matrix, 2);
  const up = axis(matrix, 1);
  const target_m: [number, number, number] = [
    position_m[0] - back[0],
    position_m[1] - back[1],
    position_m[2] - back[2]
  ];
  const parallel = camera.getType() === 'orthographic';
  cameras.push({
    name: node.getName() || camera.getName() || `Camera ${cameras.length + 1}`,
    position_m,
    target_m,
    up: [up[0], up[1], up[2]],
    projection: parallel ? 'parallel' : 'perspective',
    focal_length_mm: REFERENCE_SENSOR_MM / (2 * Math.tan((camera.getYFov() || 0.7) / 2)),
    height_m: parallel ? 2 * camera.getYMag() : null,
    aspect: (parallel ? camera.getXMag() / camera.getYMag() : camera.getAspectRatio()) || null
  });
}
