/**
 * Any glTF or GLB to one normalised GLB (metres, +Y up, plain geometry, PNG or JPEG or WebP textures) and a report of
 * what came in. Nothing is fetched: a file that points outside itself is refused with the name of what is missing.
 */
import { type Document, type JSONDocument, type Material, PropertyType } from '@gltf-transform/core';
import type { Anisotropy, Clearcoat, Volume } from '@gltf-transform/extensions';
import {
  dequantize,
  metalRough,
  normals,
  prune,
  tangents,
  uninstance,
  unpartition,
  weldPrimitive
} from '@gltf-transform/functions';
import { generateTangents } from 'mikktspace';
import sharp from 'sharp';
import { countTriangles, type Scene } from '../../core/scene/scene';
import { weighHeaviest } from '../../core/scene/set-aside';
import { type LengthUnit, METRES_PER_UNIT } from '../../core/units/units';
import { MAX_KELVIN } from '../../core/color/kelvin';
import { rec709ToXyz } from '../../core/color/spaces';
import { correlatedKelvin } from '../../core/color/spectrum';
import type { Vec3 } from '../../core/math/vec3';
import { lampGroup } from '../../core/scene/lamp-groups';
import type { ImportReport, LampGroupReport } from '../import-report';
import { ModelRefused } from '../model-refused';
import { openReducer } from '../reduce-mesh';
import { unpackZip } from '../zip';
import { hideNodes, type NodesJson } from './hidden-nodes';
import { createIo } from './io';
import { ktxToPng } from './ktx';
import { readSite } from './read-site';
import { readScene, WRAP_NAME } from './read-scene';

export interface ModelFile {
  name: string;
  bytes: Uint8Array;
}

export interface NormaliseOptions {
  unit: LengthUnit;
  up: 'y' | 'z';
  mostBytes: number;
}

const MAX_TRIANGLES = 12e6;
// What a designer draws lies between a watch screw and a landscape.
const SMALLEST_M = 1e-4;
const LARGEST_M = 1e5;

/** Extensions that are kept or dissolved on the way in; others are dropped with a word. */
const UNDERSTOOD = new Set([
  'KHR_draco_mesh_compression',
  'EXT_meshopt_compression',
  'KHR_mesh_quantization',
  'EXT_mesh_gpu_instancing',
  'KHR_texture_basisu',
  'EXT_texture_webp',
  'KHR_texture_transform',
  'KHR_lights_punctual',
  'KHR_materials_emissive_strength',
  'KHR_materials_ior',
  'KHR_materials_transmission',
  'KHR_materials_volume',
  'KHR_materials_clearcoat',
  'KHR_materials_sheen',
  'KHR_materials_specular',
  'KHR_materials_anisotropy',
  'KHR_materials_iridescence',
  'KHR_materials_dispersion',
  'KHR_materials_diffuse_transmission',
  'KHR_materials_variants',
  'KHR_materials_unlit',
  'KHR_materials_pbrSpecularGlossiness'
]);

export async function normaliseModel(
  files: ModelFile[],
  options: NormaliseOptions
): Promise<{ glb: Uint8Array; report: ImportReport }> {
  const changed: string[] = [];
  const missing: string[] = [];
  const { document, format, source, json } = await readDocument(files, options);
  hideNodes(document, json, missing);
  const site = readSite(document, missing);
  const root = document.getRoot();
  dropWhatIsNotRendered(document, missing);
  await document.transform(uninstance(), dequantize());
  await convertSpecularGlossiness(document, changed);
  await convertTextures(document, changed);
  checkNumbers(document);
  await completeGeometry(document, changed);
  const factor = METRES_PER_UNIT[options.unit];
  if (factor !== 1 || options.up === 'z') wrapScene(document, factor, options.up, changed);
  await document.transform(
    prune({
      keepAttributes: true,
      keepLeaves: true,
      propertyTypes: [
        PropertyType.ACCESSOR,
        PropertyType.MESH,
        PropertyType.TEXTURE,
        PropertyType.BUFFER,
        PropertyType.PRIMITIVE
      ]
    }),
    unpartition()
  );
  if (root.listBuffers().length === 0) document.createBuffer();
  for (const extension of root.listExtensionsUsed())
    if (/draco|meshopt|quantization|basisu/.test(extension.extensionName)) extension.dispose();
  const glb = await (await createIo()).writeBinary(document);
  return { glb, report: { ...(await makeReport(glb, source, format, changed, missing)), ...(site ? { site } : {}) } };
}

async function readDocument(
  files: ModelFile[],
  options: NormaliseOptions
): Promise<{ document: Document; format: string; source: string; json: NodesJson }> {
  let pool = new Map(files.map((f) => [f.name, f.bytes]));
  let source = files[0]!.name;
  if (files.length === 1 && files[0]!.bytes[0] === 0x50 && files[0]!.bytes[1] === 0x4b)
    pool = unpackZip(files[0]!.bytes, options.mostBytes);
  const isGlb = (bytes: Uint8Array) =>
    bytes.length >= 4 && bytes[0] === 0x67 && bytes[1] === 0x6c && bytes[2] === 0x54 && bytes[3] === 0x46;
  const main =
    [...pool].find(([, bytes]) => isGlb(bytes)) ??
    [...pool].find(([name]) => /\.gltf$/i.test(name)) ??
    (pool.size === 1 ? [...pool][0] : undefined);
  if (!main)
    throw new ModelRefused(
      'not_a_model',
      `there is no model among these files (${[...pool.keys()].slice(0, 5).join(', ')}); bring in a ` +
        `.glb, a .gltf with its files, or a ZIP of them`
    );
  const [name, bytes] = main;
  if (pool.size > 1 || files.length > 1) source = name;
  const io = await createIo();
  if (isGlb(bytes)) {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    if (bytes.length < 20 || view.getUint32(8, true) > bytes.length)
      throw new ModelRefused(
        'truncated',
        `this GLB is cut off: it holds ${bytes.length} of ` +
          `${bytes.length >= 12 ? view.getUint32(8, true) : 'at least 20'} bytes; copy or export it ` +
          `again`
      );
    if (view.getUint32(4, true) !== 2)
      throw new ModelRefused(
        'unsupported',
        `this is a glTF of version ${view.getUint32(4, true)}; export it as glTF 2.0`
      );
    const jsonLength = view.getUint32(12, true);
    const json = parseJson(Buffer.from(bytes.subarray(20, 20 + jsonLength)).toString('utf8'));
    refuseExternal(json, new Map());
    return { document: await wellFormed(() => io.readBinary(bytes)), format: 'GLB', source, json: json as NodesJson };
  }
  const json = parseJson(Buffer.from(bytes).toString('utf8'));
  if (json.asset?.version === undefined)
    throw new ModelRefused(
      'not_a_model',
      'this JSON file is no glTF: it has no asset version; export the model as glTF 2.0'
    );
  if (!String(json.asset.version).startsWith('2'))
    throw new ModelRefused('unsupported', `this is a glTF of version ${json.asset.version}; export it as glTF 2.0`);
  const folder = name.includes('/') ? name.slice(0, name.lastIndexOf('/') + 1) : '';
  const resources: JSONDocument['resources'] = {};
  const lookUp = new Map<string, Uint8Array>();
  for (const [other, data] of pool) {
    lookUp.set(other, data);
    if (other.startsWith(folder)) lookUp.set(other.slice(folder.length), data);
    // files dropped without their folders
    lookUp.set(other.slice(other.lastIndexOf('/') + 1), data);
  }
  for (const uri of refuseExternal(json, lookUp))
    resources[uri] = Uint8Array.from(lookUp.get(decodeURI(uri)) ?? lookUp.get(decodeURI(uri).split('/').pop()!)!);
  return {
    document: await wellFormed(() => io.readJSON({ json: json as unknown as JSONDocument['json'], resources })),
    format: 'glTF',
    source,
    json: json as NodesJson
  };
}

interface GltfJson {
  asset?: { version?: unknown };
  buffers?: { uri?: string; byteLength?: number }[];
  images?: { uri?: string }[];
  extensionsRequired?: string[];
}

function parseJson(text: string): GltfJson {
  try {
    const json = JSON.parse(text.replace(/^\ufeff/, '')) as GltfJson;
    if (json && typeof json === 'object') return json;
  } catch {
    // said below
  }
  throw new ModelRefused(
    'not_a_model',
    'this file is no model that we can read; export it as glTF 2.0 (.glb, or .gltf with its files) and bring that in'
  );
}

/** The file names that the model needs; each must be among those given. Data URIs are inside the file already. */
function refuseExternal(json: GltfJson, given: Map<string, Uint8Array>): string[] {
  const unknown = (json.extensionsRequired ?? []).filter((name) => !UNDERSTOOD.has(name));
  if (unknown.length)
    throw new ModelRefused('unsupported', `this model cannot be read without ${unknown.join(', ')}; export it without`);
  const names: string[] = [];
  for (const { uri } of [...(json.buffers ?? []), ...(json.images ?? [])]) {
    if (uri === undefined || uri.startsWith('data:')) continue;
    if (/^[a-z][a-z0-9+.-]*:|^\/\//i.test(uri))
      throw new ModelRefused(
        'external_file',
        `this model points to "${uri.slice(0, 120)}" on the network, which is never fetched; export it with everything inside (GLB)`
      );
    let name = uri;
    try {
      name = decodeURI(uri);
    } catch {
      // a name with a stray percent sign is used as it stands
    }
    if (!given.has(name) && !given.has(name.split('/').pop()!))
      throw new ModelRefused(
        'missing_file',
        `this model needs the file "${name.slice(0, 120)}", which was not given; drop it together with the model, or export a GLB`
      );
    names.push(uri);
  }
  return names;
}

async function wellFormed(read: () => Promise<Document>): Promise<Document> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof ModelRefused) throw error;
    throw new ModelRefused(
      'truncated',
      `this model is damaged: ${(error as Error).message.split('\n')[0]!.slice(0, 160)}; export it again`
    );
  }
}

function dropWhatIsNotRendered(document: Document, missing: string[]): void {
  const root = document.getRoot();
  const dropped = (list: { dispose(): void }[], words: string) => {
    if (list.length === 0) return;
    for (const item of list) item.dispose();
    missing.push(words);
  };
  dropped(root.listAnimations(), `${root.listAnimations().length} animations were left out: a picture stands still`);
  dropped(root.listSkins(), 'Skeletons were left out: the model stands in its rest pose');
  let morphs = 0;
  let lines = 0;
  for (const mesh of root.listMeshes()) {
    for (const primitive of mesh.listPrimitives()) {
      for (const target of primitive.listTargets()) {
        primitive.removeTarget(target);
        morphs++;
      }
      if (primitive.getMode() === 5 || primitive.getMode() === 6) toTriangles(document, primitive);
      if (primitive.getMode() !== 4 || !primitive.getAttribute('POSITION')) {
        primitive.dispose();
        lines++;
      }
    }
  }
  if (morphs) missing.push(`${morphs} morph targets were left out`);
  if (lines) missing.push(`${lines} parts made of points or lines were left out: they have no surface`);
  if (root.listScenes().length > 1)
    missing.push(`${root.listScenes().length - 1} further scenes of the file were left out`);
  const first = root.getDefaultScene() ?? root.listScenes()[0];
  if (first) {
    for (const scene of root.listScenes()) if (scene !== first) scene.dispose();
    root.setDefaultScene(first);
  }
}

/** Strips and fans as plain triangles. */
function toTriangles(document: Document, primitive: import('@gltf-transform/core').Primitive): void {
  const count = primitive.getIndices()?.getCount() ?? primitive.getAttribute('POSITION')?.getCount() ?? 0;
  const at = (i: number) => primitive.getIndices()?.getScalar(i) ?? i;
  const out: number[] = [];
  for (let i = 0; i + 2 < count; i++) {
    if (primitive.getMode() === 6) out.push(at(0), at(i + 1), at(i + 2));
    else if (i % 2 === 0) out.push(at(i), at(i + 1), at(i + 2));
    else out.push(at(i + 1), at(i), at(i + 2));
  }
  const buffer = document.getRoot().listBuffers()[0] ?? document.createBuffer();
  primitive
    .setIndices(document.createAccessor().setType('SCALAR').setArray(Uint32Array.from(out)).setBuffer(buffer))
    .setMode(4);
}

/** The older model of specular colour and glossiness, in the words of the newer. */
async function convertSpecularGlossiness(document: Document, changed: string[]): Promise<void> {
  const old = document
    .getRoot()
    .listMaterials()
    .filter((m) => m.getExtension('KHR_materials_pbrSpecularGlossiness')).length;
  if (old === 0) return;
  await document.transform(metalRough());
  changed.push(`${old} materials of the specular-glossiness kind were converted`);
}

async function convertTextures(document: Document, changed: string[]): Promise<void> {
  let converted = 0;
  for (const texture of document.getRoot().listTextures()) {
    const image = texture.getImage();
    if (!image) {
      texture.dispose();
      continue;
    }
    if (texture.getMimeType() === 'image/ktx2') {
      texture.setImage(await ktxToPng(image)).setMimeType('image/png');
      converted++;
      continue;
    }
    try {
      await sharp(image, { limitInputPixels: 16384 * 16384 }).metadata();
    } catch {
      throw new ModelRefused(
        'truncated',
        `the texture "${texture.getName() || texture.getURI() || 'without a name'}" is damaged or of ` +
          `an unknown kind; replace it and export again`
      );
    }
  }
  if (converted) changed.push(`${converted} compressed textures were unpacked`);
}

/** Positions that are no numbers, indices that point nowhere: refused by the name of the mesh. */
function checkNumbers(document: Document): void {
  for (const mesh of document.getRoot().listMeshes()) {
    const name = mesh.getName() || 'without a name';
    for (const primitive of mesh.listPrimitives()) {
      const position = primitive.getAttribute('POSITION')!;
      const array = position.getArray();
      if (!array || position.getElementSize() !== 3)
        throw new ModelRefused('bad_numbers', `the mesh "${name}" has no usable positions; export it again`);
      for (const value of array)
        if (!Number.isFinite(value))
          throw new ModelRefused(
            'bad_numbers',
            `the mesh "${name}" has positions that are not numbers; repair it in the program it comes from`
          );
      const indices = primitive.getIndices()?.getArray();
      if (indices)
        for (const index of indices)
          if (index >= position.getCount())
            throw new ModelRefused(
              'bad_numbers',
              `the mesh "${name}" has a triangle whose corner does not exist; export it again`
            );
    }
  }
}

async function completeGeometry(document: Document, changed: string[]): Promise<void> {
  const primitives = document
    .getRoot()
    .listMeshes()
    .flatMap((m) => m.listPrimitives());
  const flat = primitives.filter((p) => !p.getAttribute('NORMAL')).length;
  if (flat) {
    await document.transform(normals({ overwrite: false }));
    changed.push(`Normals were made for ${flat} parts that had none`);
  }
  const wantsTangents = (m: Material | null) =>
    m?.getNormalTexture() ||
    m?.getExtension<Clearcoat>('KHR_materials_clearcoat')?.getClearcoatNormalTexture() ||
    (m?.getExtension<Anisotropy>('KHR_materials_anisotropy')?.getAnisotropyStrength() ?? 0) > 0;
  const needTangents = primitives.filter(
    (p) => wantsTangents(p.getMaterial()) && !p.getAttribute('TANGENT') && p.getAttribute('TEXCOORD_0')
  );
  if (needTangents.length > 0) {
    // MikkTSpace decides by corners of triangles, so shared vertices are taken apart and put together again
    for (const primitive of needTangents) takeApart(document, primitive);
    await document.transform(
      tangents({
        generateTangents: (p, n, t) => generateTangents(p as Float32Array, n as Float32Array, t as Float32Array),
        overwrite: false
      })
    );
    for (const primitive of needTangents) weldPrimitive(primitive);
    changed.push(`Tangents were made for ${needTangents.length} parts with normal maps or brushing`);
  }
}

/** Gives each corner of a triangle a vertex of its own. */
function takeApart(document: Document, primitive: import('@gltf-transform/core').Primitive): void {
  const indices = primitive.getIndices()?.getArray();
  if (!indices) return;
  for (const semantic of primitive.listSemantics()) {
    const old = primitive.getAttribute(semantic)!;
    const from = old.getArray()!;
    const size = old.getElementSize();
    const to = new (from.constructor as Float32ArrayConstructor)(indices.length * size);
    for (let i = 0; i < indices.length; i++)
      for (let k = 0; k < size; k++) to[i * size + k] = from[indices[i]! * size + k]!;
    primitive.setAttribute(
      semantic,
      document
        .createAccessor()
        .setType(old.getType())
        .setNormalized(old.getNormalized())
        .setArray(to)
        .setBuffer(old.getBuffer())
    );
  }
  primitive.setIndices(null);
}

function wrapScene(document: Document, factor: number, up: 'y' | 'z', changed: string[]): void {
  const scene = document.getRoot().getDefaultScene();
  if (!scene) return;
  const wrap = document.createNode(WRAP_NAME).setScale([factor, factor, factor]);
  if (up === 'z') wrap.setRotation([-Math.SQRT1_2, 0, 0, Math.SQRT1_2]);
  for (const child of scene.listChildren()) wrap.addChild(child);
  scene.addChild(wrap);
  for (const material of document.getRoot().listMaterials()) {
    const volume = material.getExtension<Volume>('KHR_materials_volume');
    volume
      ?.setAttenuationDistance(volume.getAttenuationDistance() * factor)
      .setThicknessFactor(volume.getThicknessFactor() * factor);
  }
  if (factor !== 1) changed.push(`Scaled by ${factor} to metres`);
  if (up === 'z') changed.push('Turned so that Y is up');
}

async function makeReport(
  glb: Uint8Array,
  source: string,
  format: string,
  changed: string[],
  missing: string[]
): Promise<ImportReport> {
  const scene = await readScene(glb);
  const stored = [scene.geometry, ...scene.objects];
  const triangles = stored.reduce((sum, g) => sum + g.indices.length / 3, 0);
  if (triangles === 0)
    throw new ModelRefused(
      'no_surface',
      'this file holds no surface: nothing in it is made of triangles; export the model itself, as meshes'
    );
  if (triangles > MAX_TRIANGLES)
    throw new ModelRefused(
      'too_large',
      `this model has ${(triangles / 1e6).toFixed(1)} million triangles; at most ` +
        `${MAX_TRIANGLES / 1e6} million can be rendered, so export it coarser`
    );
  const { min, max } = scene.bounds;
  const size_m: [number, number, number] = [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
  const largest = Math.max(...size_m);
  if (!(largest >= SMALLEST_M))
    throw new ModelRefused(
      'absurd_size',
      `this model is ${largest.toExponential(1)} m large, smaller than a grain of sand; check its ` +
        `unit and export again, or choose another unit`
    );
  if (largest > LARGEST_M || Math.max(...min.map(Math.abs), ...max.map(Math.abs)) > LARGEST_M * 10)
    throw new ModelRefused(
      'absurd_size',
      `this model is ${Math.round(largest / 1000).toLocaleString('en')} km large or lies that far ` +
        `away; check its unit and origin and export again, or choose another unit`
    );
  const used = new Set(stored.flatMap((g) => [...new Set(g.triangleMaterials)]));
  return {
    source,
    format,
    size_m,
    min_m: [...min],
    max_m: [...max],
    triangles: countTriangles(scene),
    heaviest: weighHeaviest(scene, await openReducer()),
    vertices: stored.reduce((sum, g) => sum + g.positions.length / 3, 0),
    materials: scene.materials.filter((_, i) => used.has(i)).map((m) => m.name || 'without a name'),
    textures: scene.textures.length,
    cameras: scene.cameras,
    lights: scene.lights.map((l) => l.name || l.kind),
    lamps: reportLamps(scene, used),
    lamps_there: scene.lampPlaces ?? [],
    glowing: scene.materials
      .filter((m, i) => used.has(i) && m.emissive.some((c) => c > 0))
      .map((m) => m.name || 'without a name'),
    changed,
    missing
  };
}

/** Lamps by group, in the order of the model. */
function reportLamps(scene: Scene, used: ReadonlySet<number>): LampGroupReport[] {
  const found = new Map<string, LampGroupReport & { colours: Vec3[] }>();
  const add = (group: string, kind: LampGroupReport['kind'], count: number, colour: Vec3) => {
    const known = found.get(group) ?? { group, kind, count: 0, kelvin: null, colours: [] };
    found.set(group, { ...known, count: known.count + count, colours: [...known.colours, colour] });
  };
  for (const light of scene.lights)
    add(
      lampGroup(light.name),
      'lamps',
      1,
      'intensity' in light
        ? light.intensity
        : 'illuminance' in light
          ? light.illuminance
          : 'tint' in light
            ? light.tint
            : light.radiance
    );
  scene.materials.forEach((m, i) => {
    if (used.has(i) && m.emissive.some((c) => c > 0)) add(lampGroup(m.lamp ?? m.name), 'glowing', 1, m.emissive);
  });
  return [...found.values()].map(({ colours, ...lamps }) => ({ ...lamps, kelvin: commonKelvin(colours) }));
}

/** To 50 K; null when the colours differ or are far from any white. */
function commonKelvin(colours: readonly Vec3[]): number | null {
  const kelvins = colours.map((c) => correlatedKelvin(rec709ToXyz(c)));
  const least = Math.min(...kelvins);
  const most = Math.max(...kelvins);
  return least >= 1500 && most <= MAX_KELVIN && most - least < 100 ? Math.round((least + most) / 100) * 50 : null;
}
