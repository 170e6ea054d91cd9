/**
 * A document that any reader made, to one normalised GLB (metres, +Y up, plain geometry, PNG or JPEG or WebP textures)
 * and a report of what came in.
 */
import { type Document, type Material, PropertyType } from '@gltf-transform/core';
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
import { weighMaterials } from '../../core/scene/weigh-materials';
import { MAX_KELVIN } from '../../core/color/kelvin';
import { A_SERIES, isLarge, roomView, standingView } from '../../core/camera/first-view';
import { rec709ToXyz } from '../../core/color/spaces';
import { correlatedKelvin } from '../../core/color/spectrum';
import type { Rescaling } from '../../core/brief/rescale';
import type { Vec3 } from '../../core/math/vec3';
import { DEFAULT_REPAIRS, isRepair } from '../../core/scene/health';
import { lampGroup } from '../../core/scene/lamp-groups';
import { WRAP_NAME } from '../../core/scene/part-paths';
import type { ImportReport, LampGroupReport } from './import-report';
import { ModelRefused } from './model-refused';
import { Curves } from './curves';
import { examineHealth } from './health';
import { rayCaster } from './ray-caster';
import { shareMeshes } from './share-meshes';
import { takeApart } from './take-apart';
import { type NormaliseOptions, rescalingOf } from './rescaling';
import type { ReadModel } from './reader';
import { openReducer } from '../reduce-mesh';
import { bakePose } from '../gltf/bake-pose';
import { createIo } from '../gltf/io';
import { ktxToPng } from '../gltf/ktx';
import { readSite } from '../gltf/read-site';
import { readScene } from '../gltf/read-scene';

const MAX_TRIANGLES = 12e6;
// What a designer draws lies between a watch screw and a landscape.
const SMALLEST_M = 1e-4;
const LARGEST_M = 1e5;

export interface NormalisedModel {
  glb: Uint8Array;
  /**
   * The model before any repair, in the file's own unit and axis, to repair it otherwise; null where nothing can be
   * repaired.
   */
  unrepaired: Uint8Array | null;
  report: ImportReport;
}

/** What a reader made of a file, the same way for every format: see the head of this file. */
export async function normaliseModel(
  { document, format, source, changed, missing, missing_files = [] }: ReadModel,
  { repairs = DEFAULT_REPAIRS, ...options }: NormaliseOptions
): Promise<NormalisedModel> {
  const site = readSite(document, missing);
  const { skinned, morphed } = bakePose(document);
  if (skinned) changed.push(`${skinned} meshes with a skeleton stand in the pose of the file`);
  if (morphed) changed.push(`${morphed} meshes with morph targets have the form of the file`);
  const curves = new Curves(document);
  dropWhatIsNotRendered(document, missing);
  await document.transform(uninstance(), dequantize());
  await convertSpecularGlossiness(document, changed);
  await convertTextures(document, changed);
  checkNumbers(document);
  missing.push(...missing_files.map((name) => `"${name}" was not among the files: what it shows has a plain colour`));
  const { findings, repair } = await examineHealth(document, missing_files);
  const unrepaired = findings.some(({ kind }) => isRepair(kind)) ? await writeWith(curves, document) : null;
  const repaired = await repair(repairs);
  await completeGeometry(document, changed);
  const shared = shareMeshes(document);
  if (shared > 0) changed.push(`${shared.toLocaleString('en')} objects of the same shape as another are kept once`);
  const rescaling = rescalingOf(options);
  if (rescaling.factor !== 1 || rescaling.turn_deg !== 0) wrapScene(document, rescaling, changed);
  await document.transform(
    prune({
      keepAttributes: true,
      keepLeaves: true,
      // to find out whether a texture has one colour, every pixel would be decoded
      keepSolidTextures: true,
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
  const glb = await writeWith(curves, document);
  const report = await makeReport(glb, source, format, changed, missing);
  const read_as = { unit: options.unit, up: options.up };
  if (curves.segments > 0)
    report.changed.push(
      `${curves.segments.toLocaleString('en')} segments of curves came in; a picture shows them when it says their width`
    );
  const health = findings.map((finding) => ({ ...finding, repaired: repaired.some((kind) => kind === finding.kind) }));
  return {
    glb,
    unrepaired,
    report: {
      ...report,
      read_as,
      health,
      ...(curves.segments > 0 ? { curves: curves.segments } : {}),
      ...(site ? { site } : {})
    }
  };
}

async function writeWith(curves: Curves, document: Document): Promise<Uint8Array> {
  curves.attach();
  const glb = await writeGlb(document);
  curves.detach();
  return glb;
}

async function writeGlb(document: Document): Promise<Uint8Array> {
  const root = document.getRoot();
  if (root.listBuffers().length === 0) document.createBuffer();
  for (const extension of root.listExtensionsUsed())
    if (/draco|meshopt|quantization|basisu/.test(extension.extensionName)) extension.dispose();
  return (await createIo()).writeBinary(document);
}

function dropWhatIsNotRendered(document: Document, missing: string[]): void {
  const root = document.getRoot();
  const dropped = (list: { dispose(): void }[], words: string) => {
    if (list.length === 0) return;
    for (const item of list) item.dispose();
    missing.push(words);
  };
  dropped(root.listAnimations(), `${root.listAnimations().length} animations were left out: a picture stands still`);
  for (const skin of root.listSkins()) skin.dispose();
  let points = 0;
  for (const mesh of root.listMeshes()) {
    for (const primitive of mesh.listPrimitives()) {
      if (primitive.getMode() === 5 || primitive.getMode() === 6) toTriangles(document, primitive);
      if (primitive.getMode() !== 4 || !primitive.getAttribute('POSITION')) {
        primitive.dispose();
        points++;
      }
    }
  }
  if (points) missing.push(`${points} parts made of points were left out: they have no surface`);
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
    changed.push(`Tangents were made for ${needTangents.length} parts with normal maps or brushed surfaces`);
  }
}

function wrapScene(document: Document, { factor, turn_deg }: Rescaling, changed: string[]): void {
  const scene = document.getRoot().getDefaultScene();
  if (!scene) return;
  const wrap = document.createNode(WRAP_NAME).setScale([factor, factor, factor]);
  if (turn_deg !== 0) wrap.setRotation([Math.sign(turn_deg) * Math.SQRT1_2, 0, 0, Math.SQRT1_2]);
  for (const child of scene.listChildren()) wrap.addChild(child);
  scene.addChild(wrap);
  for (const material of document.getRoot().listMaterials()) {
    const volume = material.getExtension<Volume>('KHR_materials_volume');
    volume
      ?.setAttenuationDistance(volume.getAttenuationDistance() * factor)
      .setThicknessFactor(volume.getThicknessFactor() * factor);
  }
  if (factor !== 1) changed.push(`Scaled by ${factor} to metres`);
  if (turn_deg !== 0) changed.push('Turned so that Y is up');
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
    material_weights: weighMaterials(scene),
    one_sided: scene.materials.filter((m, i) => used.has(i) && !m.twoSided).length,
    textures: scene.textures.length,
    cameras: scene.cameras,
    lights: scene.lights.map((l) => l.name || l.kind),
    lamps: reportLamps(scene, used),
    lamps_there: scene.lampPlaces ?? [],
    glowing: scene.materials
      .filter((m, i) => used.has(i) && m.emissive.some((c) => c > 0))
      .map((m) => m.name || 'without a name'),
    ...firstViewOf(scene),
    changed,
    missing
  };
}

/** Where a model that brings no camera is first seen from. */
function firstViewOf(scene: Scene): Pick<ImportReport, 'first_view'> {
  const { min, max } = scene.bounds;
  if (scene.cameras.length > 0 || !isLarge(min, max)) return {};
  const cast = rayCaster(scene);
  const lit = scene.lights.length > 0 || scene.materials.some((m) => m.emissive.some((c) => c > 0));
  const view = cast && (roomView(min, max, cast, lit) ?? standingView(min, max, A_SERIES, cast));
  return view ? { first_view: view } : {};
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
