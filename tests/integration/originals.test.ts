/** Solids are meshed anew from the file that they came in with; a second file of a project can be placed in its pictures. */
import { mkdtemp, readFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it, vi } from 'vitest';
import type { PlacedPiece } from '../../src/core/brief/brief';

// the use cases read their data folder when they are loaded
vi.stubEnv('SPHAERA_DATA', await mkdtemp(join(tmpdir(), 'sphaera-originals-')));
const { contentPath, has, put } = await import('../../src/server/files/content-store');
const { createProject } = await import('../../src/server/usecases/create-project');
const { remeshModel } = await import('../../src/server/usecases/originals');
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
