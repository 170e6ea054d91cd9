import { existsSync } from 'node:fs';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, dirname, join } from 'node:path';
import { NodeIO } from '@gltf-transform/core';
import {
  EXTMeshoptCompression,
  KHRLightsPunctual,
  KHRMeshQuantization,
  KHRTextureBasisu
} from '@gltf-transform/extensions';
import { meshopt } from '@gltf-transform/functions';
import { zipSync } from 'fflate';
import { validateBytes } from 'gltf-validator';
import { MeshoptDecoder, MeshoptEncoder } from 'meshoptimizer';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { MeshBuilder } from '../../src/drawing/mesh-builder';
import type { DrawnMaterial } from '../../src/drawing/write-model';
import { skyDirection, sunPosition } from '../../src/core/lights/sun/position';
import { dot, normalize, type Vec3 } from '../../src/core/math/vec3';
import { hut, perihelionLamp, readingRoom } from '../../src/demo/models';
import { materialSheet } from '../../src/demo/models/material-sheet';
import { writeModel } from '../../src/drawing/write-model';
import { ktxToPng } from '../../src/formats/gltf/ktx';
import { readModel, recognise } from '../../src/formats/model';
import { normaliseModel } from '../../src/formats/model/normalise';
import { readScene } from '../../src/formats/gltf/read-scene';
import { firstBrief } from '../../src/server/usecases/default-briefs';
import { importModel } from '../../src/server/usecases/import-model';
import { boxGlb, rawGlb } from '../support/glb';
import { uastcKtx } from '../support/ktx';

const MODELS = '/usr/share/assimp/models/glTF2';
let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'sphaera-test-'));
});
async function bring(name: string, bytes: Uint8Array | string, unit: 'm' | 'mm' = 'm', up: 'y' | 'z' = 'y') {
  const path = join(folder, name);
  await writeFile(path, bytes);
  return importModel({ files: [{ path, name }], unit, up });
}
const triangle = () => Buffer.from(Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]).buffer);
const errorsOf = async (glb: Uint8Array) =>
  (await validateBytes(glb)).issues.messages.filter((m) => m.severity === 0).map((m) => `${m.pointer}: ${m.message}`);

describe('models come in', () => {
  it('a box in millimetres with Z up becomes metres with Y up', async () => {
    const slab = Float32Array.from([
      -500, -500, 0, 500, -500, 0, 500, 500, 0, -500, 500, 0, -500, -500, 200, 500, -500, 200, 500, 500, 200, -500, 500,
      200
    ]);
    const result = await bring('slab.glb', await boxGlb({ positions: slab }), 'mm', 'z');
    expect(result.ok).toBe(true);
    if (!result.ok) return;
    expect(result.value.report.size_m.map((v) => Math.round(v * 1e4) / 1e4)).toEqual([1, 0.2, 1]);
    expect(result.value.report.triangles).toBe(12);
    expect(result.value.report.materials).toEqual(['paint']);
    expect(result.value.report.changed.join()).toMatch(/Normals were made/);
    expect(await errorsOf(result.value.glb)).toEqual([]);
  });
  it('a glTF with its files, as a ZIP', async () => {
    const document = {
      asset: { version: '2.0' },
      scene: 0,
      scenes: [{ nodes: [0] }],
      nodes: [{ mesh: 0 }],
      meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
      accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 0] }],
      bufferViews: [{ buffer: 0, byteLength: 36 }],
      buffers: [{ uri: 'data/my%20part.bin', byteLength: 36 }]
    };
    const binary = new Uint8Array(Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]).buffer);
    const result = await bring(
      'model.zip',
      zipSync({ 'set/model.gltf': Buffer.from(JSON.stringify(document)), 'set/data/my part.bin': binary })
    );
    expect(result.ok && result.value.report.triangles).toBe(1);
  });
  it('geometry compressed by meshopt', async () => {
    await Promise.all([MeshoptEncoder.ready, MeshoptDecoder.ready]);
    const io = new NodeIO()
      .registerExtensions([EXTMeshoptCompression, KHRMeshQuantization])
      .registerDependencies({ 'meshopt.encoder': MeshoptEncoder, 'meshopt.decoder': MeshoptDecoder });
    const document = await io.readBinary(await boxGlb({ size: 2 }));
    await document.transform(meshopt({ encoder: MeshoptEncoder }));
    const result = await bring('packed.glb', await io.writeBinary(document));
    expect(result.ok && result.value.report.size_m.map((v) => Math.round(v * 100) / 100)).toEqual([2, 2, 2]);
    if (result.ok) expect(await errorsOf(result.value.glb)).toEqual([]);
  });
  it('material extensions arrive as layers, lengths in them scaled with the model', async () => {
    const result = await bring('sheet.glb', await writeModel(materialSheet()), 'mm');
    expect(result.ok).toBe(true);
    if (!result.ok) return;
    expect(result.value.report.missing).toEqual([]);
    expect(await errorsOf(result.value.glb)).toEqual([]);
    const { materials, geometry } = await readScene(result.value.glb);
    const of = (name: string) => materials.find((m) => m.name === name)!;
    expect(of('brushed steel').layers).toMatchObject({ anisotropy: expect.closeTo(0.85, 5), coat: 0 });
    expect(of('annealed titanium').layers).toMatchObject({
      iridescence: 1,
      filmIor: expect.closeTo(2.1, 5),
      filmThickness: [95, 95]
    });
    expect(of('lacquered walnut').layers).toMatchObject({ coat: 1, coatRoughness: expect.closeTo(0.04, 5) });
    expect(of('heavy crystal').layers).toMatchObject({ dispersion: 2 });
    expect(of('red velvet').layers).toMatchObject({ sheenRoughness: expect.closeTo(0.45, 5) });
    expect(of('milky shade').layers).toMatchObject({ diffuseTransmission: expect.closeTo(0.65, 5) });
    expect(of('matte plaster').layers).toMatchObject({
      specularColor: [0.4, 0.4, 0.4].map((c) => expect.closeTo(c, 5))
    });
    expect(of('polished brass').layers).toBeNull();
    expect(of('amber glass').attenuationDistance).toBeCloseTo(0.05 / 1000, 8);
    // brushing needs a direction: tangents were made from the uv
    expect(geometry.tangents.some((v) => v !== 0)).toBe(true);
  });
  it('lamps are counted by group, each with its place, and one glowing material that several share becomes several', async () => {
    const document = await new NodeIO().readBinary(await boxGlb());
    const mesh = document.getRoot().listMeshes()[0]!;
    const glow = document.createMaterial('opal').setEmissiveFactor([1, 0.72, 0.42]);
    mesh.listPrimitives()[0]!.setMaterial(glow);
    const scene = document.getRoot().listScenes()[0]!;
    for (const child of scene.listChildren()) scene.removeChild(child);
    const storey = document.createNode('Ground floor');
    for (const [i, name] of ['Shelf lamp.001', 'Shelf lamp.002', 'Hall lamp', 'Mesh.004'].entries())
      storey.addChild(
        document
          .createNode(name)
          .setMesh(mesh)
          .setTranslation([3 * i, 0, 0])
      );
    scene.addChild(storey);
    const imported = await bring('lamps.glb', await new NodeIO().writeBinary(document));
    if (!imported.ok) throw new Error(imported.message);
    expect(imported.value.report.lamps?.map(({ group, kind }) => `${group}, ${kind}`)).toEqual([
      'Shelf lamp, glowing',
      'Hall lamp, glowing',
      'opal, glowing'
    ]);
    expect(imported.value.report.lamps![0]!.kelvin).toBeGreaterThan(2500);
    const read = await readScene(imported.value.glb);
    const groups = new Set([...read.geometry.triangleMaterials].map((m) => read.materials[m]!.lamp));
    expect([...groups].sort()).toEqual(['Hall lamp', 'Shelf lamp.001', 'Shelf lamp.002', 'opal']);
    expect(imported.value.report.lamps_there?.map((l) => l.name)).toEqual([
      'Shelf lamp.001',
      'Shelf lamp.002',
      'Hall lamp',
      'opal'
    ]);
    const [first, second] = imported.value.report.lamps_there!;
    expect(second!.at_m[0] - first!.at_m[0]).toBeCloseTo(3, 5);
    expect(first!.within).toEqual(['Ground floor']);
  });
  it('hidden layers stay away but for their lamps, which are off until asked for; a site is taken over', async () => {
    const document = await new NodeIO().registerExtensions([KHRLightsPunctual]).readBinary(await boxGlb());
    const scene = document.getRoot().listScenes()[0]!;
    const lights = document.createExtension(KHRLightsPunctual);
    const mesh = document.getRoot().listMeshes()[0]!;
    const layer = document
      .createNode('Garage')
      .addChild(document.createNode('Garage box').setMesh(mesh))
      .addChild(
        document
          .createNode('Garage lamp')
          .setExtension('KHR_lights_punctual', lights.createLight('lamp').setType('point').setIntensity(50))
      );
    scene.addChild(layer).setExtras({ site: { latitude_deg: 52, longitude_deg: 8, north_deg: 30 } });
    const { json, resources } = await new NodeIO().registerExtensions([KHRLightsPunctual]).writeJSON(document);
    const hidden = json.nodes!.find((n) => n.name === 'Garage')!;
    hidden.extensions = { ...hidden.extensions, KHR_node_visibility: { visible: false } };
    json.extensionsUsed = [...(json.extensionsUsed ?? []), 'KHR_node_visibility'];
    const [uri, bytes] = Object.entries(resources)[0]!;
    json.buffers![0]!.uri = `data:application/octet-stream;base64,${Buffer.from(bytes as Uint8Array).toString('base64')}`;
    expect(uri).toBeTruthy();
    const imported = await bring('layers.gltf', new TextEncoder().encode(JSON.stringify(json)));
    if (!imported.ok) throw new Error(imported.message);
    expect(imported.value.report.missing.join(' ')).toContain('1 part on hidden layers');
    expect(imported.value.report.lamps_there).toEqual([expect.objectContaining({ name: 'Garage lamp', hidden: true })]);
    expect(imported.value.report.site).toEqual({ latitude_deg: 52, longitude_deg: 8, north_deg: 30 });
    const read = await readScene(imported.value.glb);
    expect(read.lights[0]).toMatchObject({ name: 'Garage lamp', hidden: true });
    expect(firstBrief(imported.value.report).surroundings).toMatchObject({
      kind: 'sky',
      latitude_deg: 52,
      longitude_deg: 8,
      north_deg: 30
    });
  });
  it('an opening that the file states is known, and what fills it is not drawn', async () => {
    const document = await new NodeIO().readBinary(await boxGlb());
    const buffer = document.getRoot().listBuffers()[0]!;
    const corners = document
      .createAccessor()
      .setType('VEC3')
      .setBuffer(buffer)
      .setArray(Float32Array.from([0, 0, 0, 1.2, 0, 0, 1.2, 1.5, 0, 0, 1.5, 0]));
    const pane = document.createMesh('hole').addPrimitive(
      document
        .createPrimitive()
        .setAttribute('POSITION', corners)
        .setIndices(
          document
            .createAccessor()
            .setType('SCALAR')
            .setBuffer(buffer)
            .setArray(Uint16Array.from([0, 1, 2, 0, 2, 3]))
        )
    );
    document
      .getRoot()
      .listScenes()[0]!
      .addChild(
        document.createNode('Window hole').setMesh(pane).setTranslation([5, 1, -3]).setExtras({ opening: true })
      );
    const plain = await bring('plain.glb', await boxGlb());
    const imported = await bring('opening.glb', await new NodeIO().writeBinary(document));
    if (!imported.ok || !plain.ok) throw new Error('not brought in');
    const [read, before] = [await readScene(imported.value.glb), await readScene(plain.value.glb)];
    expect(read.openings).toHaveLength(1);
    const [opening] = read.openings!;
    expect([...opening!.middle_m, opening!.width_m, opening!.height_m].map((v) => Math.round(v * 1e5) / 1e5)).toEqual([
      5.6, 1.75, -3, 1.2, 1.5
    ]);
    expect(read.geometry.indices.length).toBe(before.geometry.indices.length);
  });
  it('an extension that is not known is told, and so is what is lit though it is marked as unlit', async () => {
    const json = {
      asset: { version: '2.0' },
      extensionsUsed: ['KHR_materials_unlit', 'KHR_materials_subsurface'],
      buffers: [{ byteLength: 36, uri: `data:application/octet-stream;base64,${triangle().toString('base64')}` }],
      bufferViews: [{ buffer: 0, byteLength: 36 }],
      accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', min: [0, 0, 0], max: [1, 1, 0] }],
      materials: [{ extensions: { KHR_materials_unlit: {}, KHR_materials_subsurface: {} } }],
      meshes: [{ primitives: [{ attributes: { POSITION: 0 }, material: 0 }] }],
      nodes: [{ mesh: 0 }],
      scenes: [{ nodes: [0] }]
    };
    const result = await bring('unknown.gltf', JSON.stringify(json));
    expect(result.ok ? result.value.report.missing.join() : result.message).toMatch(
      /KHR_materials_subsurface says was left out.*unlit are lit/
    );
  });
  it('KTX2 textures are unpacked to their colours', async () => {
    const colors = [
      [255, 0, 0, 255],
      [10, 200, 30, 255],
      [0, 40, 220, 255],
      [90, 90, 90, 128]
    ] as const;
    const { data, info } = await sharp(await ktxToPng(uastcKtx(2, colors)))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([8, 8]);
    for (const [i, color] of colors.entries()) {
      const at = ((Math.floor(i / 2) * 4 + 1) * 8 + (i % 2) * 4 + 2) * 4;
      expect([...data.subarray(at, at + 4)]).toEqual([...color]);
    }
    const document = await new NodeIO().readBinary(await boxGlb({ size: 1 }));
    document.createExtension(KHRTextureBasisu).setRequired(true);
    const texture = document.createTexture('colour').setImage(uastcKtx(2, colors)).setMimeType('image/ktx2');
    document.getRoot().listMaterials()[0]!.setBaseColorTexture(texture);
    const result = await bring(
      'basis.glb',
      await new NodeIO().registerExtensions([KHRTextureBasisu]).writeBinary(document)
    );
    expect(result.ok && result.value.report.changed.join()).toMatch(/1 compressed textures were unpacked/);
    if (result.ok) expect((await readScene(result.value.glb)).textures[0]).toMatchObject({ width: 8, height: 8 });
  });
  it('the KTX2 transcoder says what it cannot read', async () => {
    await expect(ktxToPng(new Uint8Array(200))).rejects.toThrow(/not a valid KTX2 texture/);
  });
  it.skipIf(!existsSync(MODELS)).each([
    ['BoxTextured-glTF-Binary/BoxTextured.glb', 12],
    // 121,496 in the file; without those that have no area, which the compression of the other file left out too
    ['2CylinderEngine-glTF-Binary/2CylinderEngine.glb', 110336],
    // places that were rounded made some more without an area
    ['draco/2CylinderEngine.gltf', 110319]
  ])('%s, which we did not make', async (name, triangles) => {
    const path = join(MODELS, name);
    const files = [{ path, name: basename(path) }];
    if (name.endsWith('.gltf')) {
      const { buffers } = JSON.parse(await readFile(path, 'utf8')) as { buffers: { uri: string }[] };
      for (const { uri } of buffers) files.push({ path: join(dirname(path), uri), name: uri });
    }
    const result = await importModel({ files, unit: 'm', up: 'y' });
    expect(result.ok ? result.value.report.triangles : result.message).toBe(triangles);
    if (result.ok) expect(await errorsOf(result.value.glb)).toEqual([]);
  });
});

describe('what cannot be used is refused with what is wrong and what to do', () => {
  const refusal = async (name: string, bytes: Uint8Array | string) => {
    const result = await bring(name, bytes);
    return result.ok ? 'accepted' : `${result.code}: ${result.message}`;
  };
  it('not a model', async () =>
    expect(await refusal('drawing.svg', '<svg xmlns="http://www.w3.org/2000/svg"/>')).toMatch(
      /^not_a_model: .*export/
    ));
  it('empty', async () => expect(await refusal('empty.glb', '')).toMatch(/^not_a_model: the file is empty/));
  it('cut off', async () =>
    expect(await refusal('cut.glb', (await boxGlb()).subarray(0, 300))).toMatch(/^truncated: .*cut off/));
  it('a ZIP that is no ZIP', async () =>
    expect(await refusal('broken.zip', Buffer.concat([Buffer.from('PK\u0003\u0004'), Buffer.alloc(400, 7)]))).toMatch(
      /^(truncated|not_a_model):/
    ));
  it('a ZIP bomb', async () =>
    expect(await refusal('bomb.zip', zipSync({ 'model.gltf': new Uint8Array(64 * 2 ** 20) }, { level: 9 }))).toMatch(
      /^zip_bomb:/
    ));
  it('an external address', async () =>
    expect(
      await refusal(
        'far.glb',
        rawGlb({ asset: { version: '2.0' }, buffers: [{ uri: 'http://example.invalid/a.bin', byteLength: 4 }] })
      )
    ).toMatch(/^external_file: .*never fetched/));
  it('a path out of its folder', async () =>
    expect(
      await refusal(
        'up.glb',
        rawGlb({ asset: { version: '2.0' }, buffers: [{ uri: '../../../etc/passwd', byteLength: 4 }] })
      )
    ).toMatch(/^missing_file:/));
  it('no surface', async () =>
    expect(await refusal('none.glb', rawGlb({ asset: { version: '2.0' }, scenes: [{}], scene: 0 }))).toMatch(
      /^no_surface:/
    ));
  it('positions that are no numbers', async () =>
    expect(
      await refusal('nan.glb', await boxGlb({ positions: new Float32Array(24).fill(Number.NaN), name: 'tower' }))
    ).toMatch(/^bad_numbers: the mesh "tower"/));
  it('absurd sizes', async () => {
    expect(await refusal('giant.glb', await boxGlb({ size: 1e9 }))).toMatch(/^absurd_size: .*unit/);
    expect(await refusal('speck.glb', await boxGlb({ size: 1e-7 }))).toMatch(/^absurd_size:/);
  });
  it('a required extension that we do not know', async () =>
    expect(
      await refusal(
        'odd.glb',
        rawGlb({ asset: { version: '2.0' }, extensionsRequired: ['VENDOR_odd'], extensionsUsed: ['VENDOR_odd'] })
      )
    ).toMatch(/^unsupported: .*VENDOR_odd/));
});

describe('the demo models', () => {
  it.each([
    ['hut', hut, 6, 500],
    ['reading room', readingRoom, 6, 400],
    ['lamp', perihelionLamp, 0.3, 1]
  ] as const)('%s is a valid GLB of 30,000 to two million triangles in its true size', async (_, draw, least, most) => {
    const glb = await writeModel(draw());
    expect(await errorsOf(glb)).toEqual([]);
    const { report } = await normaliseModel(await readModel(recognise([{ name: 'demo.glb', bytes: glb }], 2 ** 32)), {
      unit: 'm',
      up: 'y'
    });
    expect(report.triangles).toBeGreaterThan(30_000);
    expect(report.triangles).toBeLessThan(2_000_000);
    expect(Math.max(...report.size_m)).toBeGreaterThan(least);
    expect(Math.max(...report.size_m)).toBeLessThan(most);
    expect(report.cameras.length).toBeGreaterThanOrEqual(2);
    expect(report.glowing.length).toBeGreaterThanOrEqual(1);
  });
});

describe('the first view of a model without cameras', () => {
  const PLAIN = { color: [0.6, 0.6, 0.6] as Vec3, roughness: 0.8 };
  async function firstOf(draw: (m: MeshBuilder) => void, materials: Record<string, DrawnMaterial> = {}) {
    const mesh = new MeshBuilder(1);
    draw(mesh);
    const names = [...new Set([...mesh.parts.values()].map((part) => part.material))];
    const all = { ...Object.fromEntries(names.map((name) => [name, PLAIN])), ...materials };
    const glb = await writeModel({ name: 'drawn', mesh, cameras: [], lamps: [], materials: all });
    const { report } = await normaliseModel(await readModel(recognise([{ name: 'drawn.glb', bytes: glb }], 2 ** 32)), {
      unit: 'm',
      up: 'y'
    });
    return { report, brief: firstBrief(report), view: report.first_view };
  }
  const [X, Y, Z] = [2.5, 2.7, 3];
  /** Five by six metres; the wall at drawn z = 3, which is -3 in the file, has a window. */
  const room = (m: MeshBuilder, storey = 0, pane = false) => {
    const y = storey * (Y + 0.4);
    m.box('floor', [-X, y - 0.2, -Z], [X, y, Z], 0);
    m.box('ceiling', [-X, y + Y, -Z], [X, y + Y + 0.2, Z], 0);
    for (const s of [-1, 1]) m.box('wall', [s < 0 ? -X - 0.2 : X, y, -Z], [s < 0 ? -X : X + 0.2, y + Y, Z], 0);
    m.box('wall', [-X, y, -Z - 0.2], [X, y + Y, -Z], 0);
    m.box('wall', [-X, y, Z], [X, y + 0.9, Z + 0.2], 0);
    m.box('wall', [-X, y + 2.3, Z], [X, y + Y, Z + 0.2], 0);
    for (const s of [-1, 1]) m.box('wall', [s < 0 ? -X : 1.4, y + 0.9, Z], [s < 0 ? -1.4 : X, y + 2.3, Z + 0.2], 0);
    if (pane) m.quad('pane', [-1.4, y + 0.9, Z], [1.4, y + 0.9, Z], [1.4, y + 2.3, Z], [-1.4, y + 2.3, Z]);
    m.box('table', [-0.8, y + 0.7, -0.5], [0.8, y + 0.75, 0.5], 0.01);
  };
  it.each([false, true])('of a room is from inside it, with the sun through its window (pane: %s)', async (pane) => {
    const { brief, view } = await firstOf((m) => room(m, 0, pane), {
      pane: { color: [1, 1, 1], transmission: 1, roughness: 0, ior: 1.5 }
    });
    expect(view!.kind).toBe('room');
    const { position_m: eye, target_m: target, upright } = view!.viewpoint;
    expect(Math.abs(eye[0])).toBeLessThan(X);
    expect(Math.abs(eye[2])).toBeLessThan(Z);
    expect(eye[1]).toBeGreaterThan(1.2);
    expect(eye[1]).toBeLessThan(1.7);
    expect([upright, target[1]]).toEqual([true, eye[1]]);
    // from a corner into the room, with the window in the picture
    expect(Math.hypot(eye[0] / X, eye[2] / Z)).toBeGreaterThan(0.8);
    expect(view!.opening![2]).toBeLessThan(-0.95);
    if (brief.surroundings.kind !== 'sky') throw new Error('a room is lit by the sky');
    const { time, latitude_deg, longitude_deg, north_deg } = brief.surroundings;
    const { azimuth, elevation } = sunPosition(Date.parse(time), latitude_deg, longitude_deg);
    const sun = skyDirection(azimuth, elevation, north_deg);
    expect(-sun[2] / Math.hypot(sun[0], sun[2])).toBeCloseTo(Math.cos((35 * Math.PI) / 180), 1);
    expect(brief.ground).toEqual({ kind: 'none' });
  });
  it('of a house is from the height of the eye on a ground, level, all of it in the frame', async () => {
    const { brief, view } = await firstOf((m) => {
      m.box('wall', [-5, 0, -4], [5, 5.5, 4], 0);
      m.box('roof', [-5.4, 5.5, -4.4], [5.4, 5.8, 4.4], 0);
    });
    expect(view).toMatchObject({ kind: 'standing', ground: false });
    const { viewpoint } = view!;
    expect(viewpoint.position_m[1]).toBeCloseTo(1.6, 6);
    expect(viewpoint.upright).toBe(true);
    expect(brief).toMatchObject({ ground: { kind: 'shadow' }, surroundings: { kind: 'sky' } });
    // seen through a level camera whose lens is shifted
    const [px, py, pz] = viewpoint.position_m;
    const ahead = normalize([-px, 0, -pz]);
    const right: Vec3 = [-ahead[2], 0, ahead[0]];
    const depth = (p: Vec3) => dot([p[0] - px, 0, p[2] - pz], ahead);
    const shift = (2.9 - py) / depth([0, 2.9, 0]);
    for (let i = 0; i < 8; i++) {
      const p: Vec3 = [i & 1 ? 5.4 : -5.4, i & 2 ? 5.8 : 0, i & 4 ? 4.4 : -4.4];
      const across = dot([p[0] - px, 0, p[2] - pz], right) / depth(p);
      const up = (p[1] - py) / depth(p) - shift;
      expect(Math.abs(across)).toBeLessThan((12 / 35) * Math.SQRT2);
      expect(Math.abs(up)).toBeLessThan(12 / 35);
    }
  });
  it('stands on the ground of the model where it has one, and is from outside where there are storeys', async () => {
    const hill = await firstOf((m) => {
      m.box('tower', [-3, 0, -3], [3, 24, 3], 0);
      m.box('ground', [-60, 1, -60], [60, 1.5, 60], 0);
    });
    expect(hill.view).toMatchObject({ kind: 'standing', ground: true });
    expect(hill.view!.viewpoint.position_m[1]).toBeCloseTo(1.5 + 1.6, 4);
    expect(hill.brief.ground).toEqual({ kind: 'none' });
    const storeys = await firstOf((m) => {
      for (const storey of [0, 1, 2]) room(m, storey);
    });
    expect(storeys.view!.kind).toBe('standing');
  });
  it('of a site is from above, of a thing in the studio', async () => {
    const site = await firstOf((m) => {
      m.box('ground', [-60, -0.5, -60], [60, 0, 60], 0);
      m.box('shed', [-2, 0, -2], [2, 2.6, 2], 0);
    });
    expect(site.view).toBeUndefined();
    expect((site.brief.viewpoint as { position_m: number[] }).position_m[1]).toBeGreaterThan(20);
    const chair = await firstOf((m) => m.box('seat', [-0.2, 0.4, -0.2], [0.2, 0.45, 0.2], 0));
    expect(chair.view).toBeUndefined();
    expect(chair.brief.surroundings.kind).toBe('studio');
  });
});
