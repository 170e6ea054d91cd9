/**
 * Models read anew from what was kept of them: meshed, repaired, completed. A second file of a project can be placed in its
 * pictures.
 */
import { mkdtemp, readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, describe, expect, it, vi } from 'vitest';
import type { PlacedPiece } from '../../src/core/brief/brief';

// the use cases read their data folder when they are loaded
vi.stubEnv('SPHAERA_DATA', await mkdtemp(join(tmpdir(), 'sphaera-originals-')));
const { contentPath, has, put } = await import('../../src/server/files/content-store');
const { createProject } = await import('../../src/server/usecases/create-project');
const { completeModel, remeshModel, repairModel } = await import('../../src/server/usecases/read-model-again');
const { bringRevision } = await import('../../src/server/usecases/bring-revision');
const { addFurtherModel } = await import('../../src/server/usecases/add-further-model');
const { duplicateProject } = await import('../../src/server/usecases/duplicate-project');
const { viewWorkspace } = await import('../../src/server/usecases/view-workspace');
const { readPiece } = await import('../../src/server/render/pieces');
const { isOriginal, listOriginals } = await import('../../src/server/store/model-files');
const { isModel, modelsOnlyOf } = await import('../../src/server/store/removal');
const { closeDatabase } = await import('../../src/server/store/database');
const { placeModels } = await import('../../src/core/scene/place-models');
afterAll(closeDatabase);

const SOLID = 'node_modules/occt-import-js/test/testfiles/conical-surface/conical-surface.step';
const MESH = '/usr/share/assimp/models/STL/Spider_binary.stl';
const upload = async (path: string, name: string) => [
  { upload: (await put('incoming', new Uint8Array(await readFile(path)))).sha256, name }
];

describe('a model of solids', () => {
  it('keeps its file and is meshed finer and coarser, with all its pictures', async () => {
    const made = await createProject({ files: await upload(SOLID, 'cone.stp'), unit: null, up: null });
    if (!made.ok) throw new Error(made.message);
    const { project } = made.value;
    const medium = viewWorkspace(project)!.revision;
    expect(medium.report.fineness).toBe('medium');
    const [original] = listOriginals(medium.id);
    expect(original!.name).toBe('cone.stp');
    expect(await has('originals', original!.sha256)).toBe(true);
    const triangles: number[] = [];
    for (const fineness of ['coarse', 'fine'] as const) {
      expect(await remeshModel(project, fineness)).toEqual({ ok: true, value: null });
      const { revision } = viewWorkspace(project)!;
      expect([revision.number, revision.report.fineness]).toEqual([1, fineness]);
      expect(revision.report.size_m.map((v) => v.toFixed(3))).toEqual(medium.report.size_m.map((v) => v.toFixed(3)));
      triangles.push(revision.report.triangles);
    }
    expect(triangles[0]!).toBeLessThan(medium.report.triangles);
    expect(triangles[1]!).toBeGreaterThan(medium.report.triangles);
    expect(isOriginal(original!.sha256)).toBe(true);
    const copy = duplicateProject(project);
    expect(copy.ok && (await remeshModel(copy.value.project, 'coarse'))).toEqual({ ok: true, value: null });
  }, 120_000);

  it('of which no file was kept says so', async () => {
    const made = await createProject({ files: await upload(MESH, 'spider.stl'), unit: 'cm', up: 'y' });
    if (!made.ok) throw new Error(made.message);
    expect(viewWorkspace(made.value.project)!.revision.report.fineness).toBe(undefined);
    expect(await remeshModel(made.value.project, 'fine')).toMatchObject({ ok: false, code: 'no_original' });
  }, 60_000);
});

/** A cube as OBJ whose faces look inwards and one of which is there twice; its material names a picture. */
const SICK_OBJ = `mtllib cube.mtl
o Vase
${[0, 1, 2, 3, 4, 5, 6, 7].map((i) => `v ${i & 1} ${(i >> 1) & 1} ${(i >> 2) & 1}`).join('\n')}
vt 0 0
usemtl glaze
${[
  [1, 2, 4, 3],
  [5, 7, 8, 6],
  [1, 5, 6, 2],
  [3, 4, 8, 7],
  [1, 3, 7, 5],
  [2, 6, 8, 4],
  [1, 2, 4, 3]
]
  .map((face) => `f ${face.map((v) => `${v}/1`).join(' ')}`)
  .join('\n')}
`;
const MTL = 'newmtl glaze\nKd 1 1 1\nmap_Kd glaze.png\n';
const bytesOf = async (text: string, name: string) => ({
  upload: (await put('incoming', new TextEncoder().encode(text))).sha256,
  name
});
const healthOf = (project: string) =>
  viewWorkspace(project)!.revision.report.health!.map(({ kind, count, repaired }) => `${kind} ${count} ${repaired}`);

describe('a sick model', () => {
  it('is repaired on request, each repair can be undone, and they are repeated for the next revision', async () => {
    const files = [await bytesOf(SICK_OBJ, 'vase.obj'), await bytesOf(MTL, 'cube.mtl')];
    const made = await createProject({ files, unit: 'm', up: 'y' });
    if (!made.ok) throw new Error(made.message);
    const { project } = made.value;
    // what nobody wants as it is was put right at once
    expect(healthOf(project)).toEqual(['doubled 2 true', 'inside_out 1 false', 'pictures 1 false']);
    const first = viewWorkspace(project)!.revision;
    expect(first.report.triangles).toBe(12);
    expect((await repairModel(project, [])).ok).toBe(true);
    expect(viewWorkspace(project)!.revision.report.triangles).toBe(14);
    expect(healthOf(project)).toEqual(['doubled 2 false', 'inside_out 1 false', 'pictures 1 false']);
    expect((await repairModel(project, ['doubled', 'inside_out'])).ok).toBe(true);
    expect(healthOf(project)).toEqual(['doubled 2 true', 'inside_out 1 true', 'pictures 1 false']);
    const { report } = viewWorkspace(project)!.revision;
    expect([report.triangles, report.source, report.size_m]).toEqual([12, 'vase.obj', [1, 1, 1]]);
    // the next file comes in with the same repairs
    const next = [await bytesOf(SICK_OBJ.replace('v 0 0 0', 'v 0 0 0.1'), 'vase.obj'), files[1]!];
    expect((await bringRevision(project, next)).ok).toBe(true);
    expect(viewWorkspace(project)!.revision.number).toBe(2);
    expect(healthOf(project)).toEqual(['doubled 2 true', 'inside_out 1 true', 'pictures 1 false']);
  }, 120_000);

  it('takes the pictures that it missed, with its repairs', async () => {
    const made = await createProject({
      files: [await bytesOf(SICK_OBJ, 'vase.obj'), await bytesOf(MTL, 'cube.mtl')],
      unit: 'm',
      up: 'y'
    });
    if (!made.ok) throw new Error(made.message);
    const { project } = made.value;
    expect((await repairModel(project, ['doubled', 'inside_out'])).ok).toBe(true);
    const png = await sharp({ create: { width: 4, height: 4, channels: 3, background: '#a43' } })
      .png()
      .toBuffer();
    const picture = { upload: (await put('incoming', new Uint8Array(png))).sha256, name: 'textures/glaze.png' };
    expect(await completeModel(project, [picture])).toEqual({ ok: true, value: null });
    expect(healthOf(project)).toEqual(['doubled 2 true', 'inside_out 1 true']);
    expect(viewWorkspace(project)!.revision.report.textures).toBe(1);
  }, 120_000);
});

describe('a second file in a project', () => {
  it('is listed, owned by the project, and placed', async () => {
    const made = await createProject({ files: await upload(SOLID, 'cone.stp'), unit: null, up: null });
    if (!made.ok) throw new Error(made.message);
    const { project } = made.value;
    const added = await addFurtherModel(project, await upload(MESH, 'my_spider.stl'));
    if (!added.ok) throw new Error(added.message);
    const { model } = added.value;
    expect(viewWorkspace(project)!.further).toMatchObject([{ model, name: 'my spider' }]);
    expect([isModel(model), modelsOnlyOf(project).includes(model)]).toEqual([true, true]);
    const placed: PlacedPiece = { name: 'Spider', model, position_m: [1, 0, 0], turn_deg: 0, scale: 1, seen: 'whole' };
    const spider = await readPiece(model);
    const scene = placeModels(spider, [placed], new Map([[model, spider]]));
    expect(scene.instances.length).toBe(1);
    await expect(readPiece('0'.repeat(64))).rejects.toThrow(/is not here/);
    expect(contentPath('models', model)).toContain(model);
  }, 120_000);
  it('that cannot be read is refused, and nothing is listed', async () => {
    const made = await createProject({ files: await upload(MESH, 'spider.stl'), unit: 'cm', up: 'y' });
    if (!made.ok) throw new Error(made.message);
    const files = [{ upload: (await put('incoming', new TextEncoder().encode('nothing'))).sha256, name: 'a.glb' }];
    expect((await addFurtherModel(made.value.project, files)).ok).toBe(false);
    expect(viewWorkspace(made.value.project)!.further).toEqual([]);
  }, 60_000);
});
