/**
 * Solids (STEP, ISO 10303, and IGES), meshed: chords stay within a share of the model's extent, and neighbouring facets
 * within an angle. Names, assemblies and the colours of faces are kept.
 */
import type { Node } from '@gltf-transform/core';
import type { Fineness } from '../../core/units/read-as';
import { refuseCutOff, schemaOf } from './clear-text';
import { ModelRefused } from './model-refused';
import type { ModelFile, ModelReader, ReadModel, ReadOptions } from './reader';

/** Chord tolerance as a share of the model's extent, and the angle between facets. */
export const FINENESS: Record<Fineness, { chord: number; angle_deg: number }> = {
  coarse: { chord: 1 / 400, angle_deg: 30 },
  medium: { chord: 1 / 2000, angle_deg: 15 },
  fine: { chord: 1 / 10_000, angle_deg: 6 }
};

const startOf = (bytes: Uint8Array, length: number) => Buffer.from(bytes.subarray(0, length)).toString('latin1');
const isStep = (bytes: Uint8Array) => /ISO-10303-21\s*;/.test(startOf(bytes, 256)) && !/\bIFC\d/i.test(schemaOf(bytes));
// the first line of a start section has an S in column 73 (IGES 5.3, 2.2.4)
const isIges = (bytes: Uint8Array) => /^.{72}S\s*0*1\s*$/m.test(startOf(bytes, 200));

export const step: ModelReader = {
  key: 'step',
  label: 'STEP',
  extensions: ['step', 'stp'],
  recognises: ({ name, bytes }) => isStep(bytes) || (/\.(step|stp)$/i.test(name) && schemaOf(bytes) === ''),
  states: { unit: 'm', up: 'z' },
  meshed: true,
  read: (main, _files, options) => readSolids(main, 'STEP', isStep(main.bytes), options)
};

export const iges: ModelReader = {
  key: 'iges',
  label: 'IGES',
  extensions: ['iges', 'igs'],
  recognises: ({ name, bytes }) => isIges(bytes) || /\.(iges|igs)$/i.test(name),
  states: { unit: 'm', up: 'z' },
  meshed: true,
  read: (main, _files, options) => readSolids(main, 'IGES', isIges(main.bytes), options)
};

interface MeshedSolid {
  name: string;
  color?: [number, number, number];
  brep_faces: { first: number; last: number; color: [number, number, number] | null }[];
  attributes: { position: { array: number[] }; normal?: { array: number[] } };
  index: { array: number[] };
}
interface SolidNode {
  name: string;
  meshes: number[];
  children: SolidNode[];
}

async function readSolids(
  { name, bytes }: ModelFile,
  format: 'STEP' | 'IGES',
  wellFormed: boolean,
  { fineness }: ReadOptions
): Promise<ReadModel> {
  if (!wellFormed)
    throw new ModelRefused('not_a_model', `this file is named as ${format} and does not begin as one; export it again`);
  if (format === 'STEP') refuseCutOff(bytes, format);
  const [{ default: open }, { ModelBuilder }, { encodeSrgb }] = await Promise.all([
    import('occt-import-js'),
    import('./model-builder'),
    import('../../core/color/srgb')
  ]);
  const reader = await open();
  const { chord, angle_deg } = FINENESS[fineness];
  const read = format === 'STEP' ? reader.ReadStepFile : reader.ReadIgesFile;
  const result = read(bytes, {
    linearUnit: 'meter',
    linearDeflectionType: 'bounding_box_ratio',
    linearDeflection: chord,
    angularDeflection: (angle_deg * Math.PI) / 180
  }) as { success: boolean; root: SolidNode; meshes: MeshedSolid[] };
  if (!result.success)
    throw new ModelRefused('truncated', `this ${format} file is damaged or cut off inside its data; export it again`);
  if (result.meshes.length === 0)
    throw new ModelRefused(
      'no_surface',
      `this ${format} file holds no solid and no face; export the bodies themselves`
    );
  const builder = new ModelBuilder();
  const materials = new Map<string, import('@gltf-transform/core').Material>();
  const materialOf = (color: readonly number[] | null) => {
    const rgb = color ?? [0.6, 0.6, 0.6];
    const key = rgb
      .map((c) =>
        Math.round(255 * encodeSrgb(c))
          .toString(16)
          .padStart(2, '0')
      )
      .join('');
    const known = materials.get(key);
    if (known) return known;
    const [r, g, b] = rgb as [number, number, number];
    const made = builder.document
      .createMaterial(color ? `Colour ${key}` : 'Surface')
      .setBaseColorFactor([r, g, b, 1])
      .setRoughnessFactor(0.5)
      .setMetallicFactor(0)
      .setDoubleSided(true);
    materials.set(key, made);
    return made;
  };
  const meshes = result.meshes.map((solid) => builder.mesh(solid.name, partsOf(solid, materialOf)));
  const walk = ({ name: called, meshes: own, children }: SolidNode, parent: Node | null) => {
    const node = builder.node(called, parent);
    for (const at of own) {
      const mesh = meshes[at];
      if (mesh) builder.node(mesh.getName() || called, node).setMesh(mesh);
    }
    for (const child of children) walk(child, node);
  };
  walk(result.root, null);
  const changed = [
    `Solids were meshed at ${fineness} fineness: chords stay within ` +
      `1/${Math.round(1 / chord)} of each body's extent, facets within ${angle_deg} degrees`
  ];
  return { document: builder.document, format, source: name, changed, missing: [] };
}

/** The triangles of a solid by the colours of its faces. */
function partsOf(
  { attributes, index, brep_faces, color }: MeshedSolid,
  materialOf: (color: readonly number[] | null) => import('@gltf-transform/core').Material
): import('./model-builder').MeshPart[] {
  const positions = Float32Array.from(attributes.position.array);
  const normals = attributes.normal ? Float32Array.from(attributes.normal.array) : null;
  const byMaterial = new Map<import('@gltf-transform/core').Material, number[]>();
  const take = (first: number, last: number, of: readonly number[] | null) => {
    const material = materialOf(of);
    const list = byMaterial.get(material) ?? [];
    byMaterial.set(material, list);
    for (let i = first * 3; i < last * 3; i++) list.push(index.array[i]!);
  };
  const triangles = Math.floor(index.array.length / 3);
  let done = 0;
  for (const face of brep_faces) {
    if (face.first > done) take(done, face.first, color ?? null);
    take(face.first, face.last + 1, face.color ?? color ?? null);
    done = face.last + 1;
  }
  if (done < triangles) take(done, triangles, color ?? null);
  return [...byMaterial].map(([material, indices]) => ({
    positions,
    normals,
    indices: Uint32Array.from(indices),
    material
  }));
}
