import { describe, expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';
import type { Brief } from '../../core/brief/brief';

const { project, picture } = await boxProject();
const { addPicture } = await import('./add-picture');
const { changeBrief, moveStep } = await import('./change-brief');
const { requestProof } = await import('./request-proof');
const { stopProof } = await import('./stop-proof');
const { rescaleModel } = await import('./rescale-model');
const { saveViewpoint } = await import('./save-viewpoint');
const { viewPicture, viewWorkspace } = await import('./view-workspace');

const free = (brief: Brief) => brief.viewpoint as Extract<Brief['viewpoint'], { position_m: unknown }>;
const large = () => Math.max(...viewWorkspace(project)!.revision.report.size_m);

describe('rescaleModel', () => {
  it('gives the revision its true size, and all that stands in its metres with it', async () => {
    const added = addPicture(picture);
    if (!added.ok) throw new Error(added.message);
    const touched = added.value.id;
    const { brief } = viewPicture(touched)!.picture;
    const view = { ...free(brief), position_m: [1, 2, 3] as [number, number, number], focus_m: 2 };
    changeBrief(touched, { ...brief, viewpoint: view }, false);
    saveViewpoint(project, 'Corner', view);
    const size = large();
    expect((await rescaleModel(project, { unit: 'mm', up: 'y' })).ok).toBe(true);
    expect(large() / size).toBeCloseTo(0.001, 6);
    const now = viewWorkspace(project)!;
    expect(now.revision).toMatchObject({ number: 1, report: { read_as: { unit: 'mm', up: 'y' } } });
    expect(free(viewPicture(touched)!.picture.brief)).toMatchObject({
      position_m: [0.001, 0.002, 0.003],
      focus_m: 0.002
    });
    expect(now.viewpoints[0]!.viewpoint).toMatchObject({ position_m: [0.001, 0.002, 0.003] });
    // a step back is of the true size too
    moveStep(touched, -1);
    expect(Math.hypot(...free(viewPicture(touched)!.picture.brief).position_m)).toBeLessThan(0.1);
    // nobody has touched the first picture: it begins anew, as a thing of half a millimetre
    expect(viewPicture(picture)!.picture.brief.surroundings.kind).toBe('studio');
  });

  it('comes back, and stands up by the other axis', async () => {
    expect((await rescaleModel(project, { unit: 'm', up: 'z' })).ok).toBe(true);
    const { report } = viewWorkspace(project)!.revision;
    expect(report.read_as).toEqual({ unit: 'm', up: 'z' });
    expect(large()).toBeCloseTo(0.4, 3);
    expect(report.source).toBe('my_box.glb');
  });

  it('waits for the renders of the project', async () => {
    const proof = requestProof(picture);
    if (!proof.ok) throw new Error(proof.message);
    expect(await rescaleModel(project, { unit: 'cm', up: 'y' })).toMatchObject({ ok: false, code: 'busy' });
    stopProof(proof.value.id);
  });

  it('changes nothing when it is read so already, and refuses what is not there', async () => {
    const { revision } = viewWorkspace(project)!;
    await rescaleModel(project, { unit: 'm', up: 'z' });
    expect(viewWorkspace(project)!.revision.glb_sha256).toBe(revision.glb_sha256);
    expect(await rescaleModel('nothing', { unit: 'm', up: 'y' })).toMatchObject({ ok: false, code: 'gone' });
  });
});
