import { appendFile, mkdtemp, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { Document, NodeIO } from '@gltf-transform/core';
import { afterAll, describe, expect, it, vi } from 'vitest';

// the use cases read their data folder when they are loaded
const data = await mkdtemp(join(tmpdir(), 'sphaera-revisions-'));
vi.stubEnv('SPHAERA_DATA', data);
const { put } = await import('../../src/server/files/content-store');
const { createProject } = await import('../../src/server/usecases/create-project');
const { bringRevision, restoreRevision } = await import('../../src/server/usecases/bring-revision');
const { changeBrief } = await import('../../src/server/usecases/change-brief');
const { viewChanges, viewWorkspace } = await import('../../src/server/usecases/view-workspace');
const { watchModel } = await import('../../src/cli/watch-command');
const { closeDatabase } = await import('../../src/server/store/database');
afterAll(closeDatabase);

interface Part {
  name: string;
  at: number;
  width?: number;
}
/** Cards in a row, and a camera unless it is left out. */
async function model(parts: Part[], camera = true): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene();
  const material = document.createMaterial('card');
  for (const { name, at, width = 0.1 } of parts) {
    const corners = Float32Array.of(0, 0, 0, width, 0, 0, width, 1, 0, 0, 1, 0);
    const positions = document.createAccessor().setType('VEC3').setArray(corners).setBuffer(buffer);
    const indices = document
      .createAccessor()
      .setType('SCALAR')
      .setArray(Uint16Array.of(0, 1, 2, 0, 2, 3))
      .setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', positions)
      .setIndices(indices)
      .setMaterial(material);
    scene.addChild(
      document.createNode(name).setMesh(document.createMesh(name).addPrimitive(primitive)).setTranslation([at, 0, 0])
    );
  }
  if (camera) {
    const lens = document.createCamera('Lens').setType('perspective').setYFov(0.8).setAspectRatio(1.5);
    scene.addChild(document.createNode('Entrance').setCamera(lens).setTranslation([0.5, 0.5, 4]));
  }
  document.getRoot().setDefaultScene(scene);
  return new NodeIO().writeBinary(document);
}
const upload = async (bytes: Uint8Array, name = 'row.glb') => [{ upload: (await put('incoming', bytes)).sha256, name }];
const ROW: Part[] = [
  { name: 'Left', at: 0 },
  { name: 'Middle', at: 0.5 },
  { name: 'Right', at: 1 }
];

describe('a newer file of a model', () => {
  it('becomes the next revision, says what is other, keeps views, and can be taken back', async () => {
    const made = await createProject({ files: await upload(await model(ROW)), unit: null, up: null });
    if (!made.ok) throw new Error(made.message);
    const { project } = made.value;
    const first = viewWorkspace(project)!;
    expect(first.opened.picture.brief.viewpoint).toEqual({ camera: 'Entrance' });

    expect(await bringRevision(project, await upload(await model(ROW)))).toEqual({ ok: true, value: { same: true } });
    expect(viewWorkspace(project)!.revision.number).toBe(1);

    const next = [ROW[0]!, { ...ROW[1]!, at: 0.6 }, { name: 'Shelf', at: 1.5, width: 0.3 }];
    expect(await bringRevision(project, await upload(await model(next, false)))).toMatchObject({
      value: { same: false }
    });
    const second = viewWorkspace(project)!;
    expect(second.revision.number).toBe(2);
    expect(second.revision.report.compared).toMatchObject({
      with: 1,
      same: 1,
      moved: { count: 1, names: ['Middle'] },
      added: { count: 1, names: ['Shelf'] },
      removed: { count: 1, names: ['Right'] },
      changed: { count: 0 },
      renamed: { count: 0 }
    });
    // the picture looks at all of the row
    expect(second.revision.report.compared!.pictures).toEqual(made.value.pictures);
    expect(second.earlier.map(({ number }) => number)).toEqual([1]);
    // the camera is gone from the file, not from the picture
    const { viewpoint } = second.opened.picture.brief;
    expect(viewpoint).toMatchObject({ projection: 'perspective' });
    expect('position_m' in viewpoint && viewpoint.position_m.map((v) => Math.round(v * 1e5) / 1e5)).toEqual([
      0.5, 0.5, 4
    ]);
    // other windows learn that the model is another
    expect(viewChanges(project, second.opened.picture.id, first.stamp)!.model).toBe(second.revision.glb_sha256);

    expect(restoreRevision(project, first.revision.id)).toEqual({ ok: true, value: { same: false } });
    const third = viewWorkspace(project)!;
    expect([third.revision.number, third.revision.glb_sha256]).toEqual([3, first.revision.glb_sha256]);
    expect(third.earlier.map(({ number }) => number)).toEqual([2, 1]);
  }, 60_000);

  it('finds posed parts, materials of single parts and masks again under their new names', async () => {
    const made = await createProject({ files: await upload(await model(ROW)), unit: null, up: null });
    if (!made.ok) throw new Error(made.message);
    const { project, pictures } = made.value;
    const posed = (part: string) => ({
      part,
      seen: 'whole' as const,
      turn_deg: [0, 30, 0] as [number, number, number],
      move_m: [0, 0, 0] as [number, number, number],
      about_m: [0.5, 0, 0] as [number, number, number]
    });
    const pose = [posed('Middle'), posed('Left'), posed('Right')];
    const before = viewWorkspace(project)!.opened.picture;
    const materials = ['Middle', 'Right'].map((part) => ({
      material: 'card',
      part,
      becomes: 'paint-white',
      change: null,
      texture: null
    }));
    const mask = { of: 'part' as const, name: 'Middle', exposure_ev: 1, warmth_mired: 0, saturation: 0 };
    const finish = { ...before.brief.finish, masks: [mask] };
    expect((await changeBrief(pictures[0]!, { ...before.brief, pose, materials, finish }, false)).ok).toBe(true);
    const next = [ROW[0]!, { ...ROW[1]!, name: 'Centre' }];
    expect((await bringRevision(project, await upload(await model(next)))).ok).toBe(true);
    const { brief } = viewWorkspace(project)!.opened.picture;
    const parts = brief.pose.map((p) => p.part);
    expect(brief.materials.map((rule) => rule.part)).toEqual(['Centre', 'Right']);
    expect(brief.finish.masks.map(({ name }) => name)).toEqual(['Centre']);
    // what is gone keeps its name, and is there again after going back
    expect(parts).toEqual(['Centre', 'Left', 'Right']);
  }, 60_000);

  it('that cannot be read leaves the project as it was', async () => {
    const made = await createProject({ files: await upload(await model(ROW)), unit: null, up: null });
    if (!made.ok) throw new Error(made.message);
    const broken = await bringRevision(
      made.value.project,
      await upload(new TextEncoder().encode('nothing'), 'row.glb')
    );
    expect(broken.ok).toBe(false);
    expect(viewWorkspace(made.value.project)!.revision.number).toBe(1);
    expect(await bringRevision('no-such-project', [])).toMatchObject({ ok: false, code: 'gone' });
  }, 60_000);
});

describe('a watched file', () => {
  it('becomes a revision each time it is saved, when it is whole, and a broken one is told', async () => {
    const path = join(data, 'row.glb');
    await writeFile(path, await model(ROW));
    const made = await createProject({ files: await upload(await model(ROW)), unit: null, up: null });
    if (!made.ok) throw new Error(made.message);
    const { project } = made.value;
    const end = new AbortController();
    const said: string[] = [];
    const heard = async (count: number) => {
      for (const from = Date.now(); said.length < count; await sleep(50))
        if (Date.now() - from > 30_000) throw new Error(`expected ${count} sentences, got ${said.join(' ')}`);
    };
    const watching = watchModel(path, project, end.signal, (text) => said.push(text), { quiet_ms: 600 });
    await heard(1);
    expect(said).toEqual(['It is the model that is there already.']);

    // saved in two halves: the first alone is no model, and is not tried
    const next = await model(ROW.slice(0, 2));
    await writeFile(path, next.subarray(0, next.length >> 1));
    await sleep(300);
    await appendFile(path, next.subarray(next.length >> 1));
    await heard(2);
    expect(said[1]).toBe('Brought in as the next revision.');
    expect(viewWorkspace(project)!.revision.report.compared).toMatchObject({ same: 2, removed: { count: 1 } });

    await writeFile(path, 'nothing');
    await heard(3);
    expect(said[2]).toMatch(/^Not brought in: .*export/);
    await writeFile(path, await model(ROW));
    await heard(4);
    expect(viewWorkspace(project)!.revision.number).toBe(3);
    end.abort();
    await watching;
  }, 100_000);
});
