import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';
import { BRIEF_DEFAULTS, SURROUNDINGS_DEFAULTS } from '../../core/brief/brief';

const { project, picture: first } = await boxProject();
const { RESTORABLE_MS } = await import('../../core/catalogue/removable');
const { contentPath, put } = await import('../files/content-store');
const { proofFolder } = await import('../files/proof-files');
const { boxGlb } = await import('../../../tests/support/glb');
const { sqliteQueue: queue } = await import('../store/job-queue');
const { findProof } = await import('../store/proofs');
const { insertBackdrop } = await import('../store/backdrops');
const { findRevision } = await import('../store/projects');
const { addPicture } = await import('./add-picture');
const { changeBrief } = await import('./change-brief');
const { createProject } = await import('./create-project');
const { duplicateProject } = await import('./duplicate-project');
const { keepPart } = await import('./keep-part');
const { purgeRemoved } = await import('../files/purge-removed');
const { remove, rename, restore, viewRemoved } = await import('./remove');
const { requestProof } = await import('./request-proof');
const { saveViewpoint } = await import('./save-viewpoint');
const { viewChanges, viewPicture, viewWorkspace } = await import('./view-workspace');
const { viewDesk } = await import('./view-desk');

const taken = <T>(result: { ok: true; value: T } | { ok: false; message: string }): T => {
  if (!result.ok) throw new Error(result.message);
  return result.value;
};
const message = (result: { ok: boolean; message?: string }) => (result.ok ? '' : result.message!);
const newPicture = () => taken(addPicture(first)).id;

describe('remove and restore', () => {
  it('take a picture from the project and bring it back in its place, with its proofs', () => {
    const id = newPicture();
    const proof = taken(requestProof(id));
    const last = newPicture();
    const { stamp } = viewWorkspace(project)!;
    expect(taken(remove('picture', id)).name).toContain(', ');
    expect(viewWorkspace(project)!.pictures.map((p) => p.id)).not.toContain(id);
    expect(viewPicture(id)).toBeNull();
    expect(viewChanges(project, last, stamp)!.removedPictures).toEqual([id]);
    expect(restore('picture', id).ok).toBe(true);
    const ids = viewWorkspace(project)!.pictures.map((p) => p.id);
    expect(ids.indexOf(id)).toBe(ids.indexOf(last) - 1);
    // what waited is unfinished now, and can be continued
    expect(viewPicture(id)!.proofs).toMatchObject([{ id: proof.id, state: 'kept' }]);
  });

  it('stop what renders of a removed proof at once', () => {
    const proof = taken(requestProof(newPicture()));
    let job = queue.claim('render', 'worker', Date.now());
    while (job && job.proof !== proof.id) job = queue.claim('render', 'worker', Date.now());
    taken(remove('proof', proof.id));
    expect(queue.find(job!.id)!.state).toMatchObject({ name: 'running', stop: 'drop' });
    expect(findProof(proof.id)).toBeNull();
    expect(viewRemoved()[0]!.name).toMatch(/^proof 1 of /);
  });

  it('take a project from the desk and bring it back', () => {
    const copy = taken(duplicateProject(project)).project;
    expect(viewDesk().count).toBe(2);
    taken(remove('project', copy));
    expect(viewDesk()).toMatchObject({ count: 1, removed: [{ kind: 'project', id: copy }, {}] });
    expect(viewWorkspace(copy)).toBeNull();
    taken(restore('project', copy));
    expect(viewDesk().count).toBe(2);
    taken(remove('project', copy));
  });

  it('do the same for viewpoints and saved parts, whose names are free again', () => {
    const viewpoint = taken(saveViewpoint(project, 'Corner', BRIEF_DEFAULTS.viewpoint)).id;
    const part = taken(keepPart(project, 'cue', 'Evening', BRIEF_DEFAULTS)).id;
    taken(remove('viewpoint', viewpoint));
    taken(remove('part', part));
    expect(viewWorkspace(project)).toMatchObject({ viewpoints: [], kept: [] });
    expect(saveViewpoint(project, 'Corner', BRIEF_DEFAULTS.viewpoint).ok).toBe(true);
    taken(restore('part', part));
    expect(viewWorkspace(project)!.kept.map((k) => k.name)).toEqual(['Evening']);
  });

  it('refuse the only picture of a project, a file in use, and what is not there', () => {
    const copy = taken(duplicateProject(project)).project;
    const { pictures } = viewWorkspace(copy)!;
    for (const { id } of pictures.slice(1)) taken(remove('picture', id));
    expect(message(remove('picture', pictures[0]!.id))).toContain('needs a picture');
    const sha256 = 'b'.repeat(64);
    insertBackdrop({ sha256, name: 'Bay', width_px: 10, height_px: 10, purpose: 'behind', created_at_ms: 1 });
    const id = newPicture();
    const { brief } = viewPicture(id)!.picture;
    const background = { kind: 'picture', file: sha256, across: 0.5, down: 0.5, enlarged: 1, lighter_ev: 0 };
    taken(changeBrief(id, { ...brief, finish: { ...brief.finish, background } }, false));
    expect(message(remove('backdrop', sha256))).toMatch(/uses Bay; choose another there first/);
    expect(remove('proof', 'nothing')).toMatchObject({ ok: false, code: 'gone' });
    expect(restore('proof', 'nothing')).toMatchObject({ ok: false, code: 'gone' });
  });
});

describe('rename', () => {
  it('trims a name and refuses an empty one', () => {
    const id = newPicture();
    expect(taken(rename('picture', id, '  Front view ')).name).toBe('Front view');
    expect(viewPicture(id)!.picture.name).toBe('Front view');
    expect(message(rename('picture', id, '   '))).toContain('name');
    expect(viewPicture(id)!.picture.name).toBe('Front view');
    expect(rename('picture', 'nothing', 'name')).toMatchObject({ ok: false, code: 'gone' });
  });

  it('renames a project, which the desk then shows', () => {
    taken(rename('project', project, 'Pier'));
    expect(viewDesk().projects.map((p) => p.name)).toContain('Pier');
  });
});

describe('duplicateProject', () => {
  it('copies model, pictures and viewpoints, under a name that is free, and no proofs', () => {
    const before = viewWorkspace(project)!;
    const [a, b] = [0, 1].map(() => viewWorkspace(taken(duplicateProject(project)).project)!);
    expect([a!.project.name, b!.project.name]).toEqual(['Pier, 2', 'Pier, 3']);
    expect(a!.pictures.map((p) => p.name)).toEqual(before.pictures.map((p) => p.name));
    expect(a!.revision.glb_sha256).toBe(before.revision.glb_sha256);
    expect(a!.viewpoints.map((v) => v.name)).toEqual(before.viewpoints.map((v) => v.name));
    expect(a!.opened.proofs).toEqual([]);
    expect(duplicateProject('nothing')).toMatchObject({ ok: false, code: 'gone' });
  });
});

describe('purgeRemoved', () => {
  it('deletes what was removed more than ten minutes ago, with its files, and nothing else', async () => {
    const { sha256 } = await put('incoming', await boxGlb({ size: 0.7 }));
    const made = taken(await createProject({ files: [{ upload: sha256, name: 'other.glb' }], unit: 'm', up: 'y' }));
    const { revision } = viewWorkspace(made.project)!;
    taken(keepPart(made.project, 'cue', 'Evening', BRIEF_DEFAULTS));
    const proof = taken(requestProof(made.pictures[0]!));
    mkdirSync(proofFolder(proof.id), { recursive: true });
    writeFileSync(join(proofFolder(proof.id), 'film.film'), 'bits');
    const before = viewDesk().storage.models_bytes;
    const now = Date.now() + 1000;
    taken(remove('project', made.project, now));
    await purgeRemoved(now + RESTORABLE_MS - 1);
    expect(existsSync(proofFolder(proof.id))).toBe(true);
    await purgeRemoved(now + RESTORABLE_MS);
    expect(existsSync(proofFolder(proof.id))).toBe(false);
    expect(existsSync(contentPath('models', revision.glb_sha256))).toBe(false);
    expect(viewDesk().storage.models_bytes).toBeLessThan(before);
    expect(findRevision(revision.id)).toBeNull();
    expect(restore('project', made.project)).toMatchObject({ ok: false, code: 'gone' });
    // the model of the first project is used by its copies
    expect(existsSync(contentPath('models', viewWorkspace(project)!.revision.glb_sha256))).toBe(true);
  });

  it('deletes saved surroundings', async () => {
    const evening = { ...BRIEF_DEFAULTS, surroundings: { ...SURROUNDINGS_DEFAULTS.sky, north_deg: 30 } };
    const { id } = taken(keepPart(project, 'surroundings', 'Dusk', evening));
    taken(remove('part', id, 5));
    await purgeRemoved(5 + RESTORABLE_MS);
    expect(restore('part', id).ok).toBe(false);
  });
});
