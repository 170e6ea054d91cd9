import { beforeAll, describe, expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';
import type { Brief } from '../../core/brief/brief';

const { project, picture: first } = await boxProject();
const { changeBrief, moveStep } = await import('./change-brief');
const { rename } = await import('./remove');
const { addPicture } = await import('./add-picture');
const { viewWorkspace, viewChanges, viewPicture } = await import('./view-workspace');

/** A picture of the test's own. */
let picture: string;
beforeAll(() => {
  picture = copyOf(first);
});
function copyOf(id: string): string {
  const made = addPicture(id);
  if (!made.ok) throw new Error(made.message);
  return made.value.id;
}
const stateOf = (id: string) => viewPicture(id)!.picture;
const withSamples = (brief: Brief, samples: number): Brief => ({ ...brief, quality: { ...brief.quality, samples } });

describe('changeBrief', () => {
  it('saves each change as a step that can be undone and redone', () => {
    const id = copyOf(first);
    const { brief } = stateOf(id);
    changeBrief(id, withSamples(brief, 50), false);
    changeBrief(id, withSamples(brief, 60), false);
    expect(stateOf(id)).toMatchObject({ brief: { quality: { samples: 60 } }, canUndo: true, canRedo: false });
    moveStep(id, -1);
    expect(stateOf(id)).toMatchObject({ brief: { quality: { samples: 50 } }, canUndo: true, canRedo: true });
    moveStep(id, -1);
    moveStep(id, -1);
    expect(stateOf(id)).toMatchObject({ brief, canUndo: false, canRedo: true });
    moveStep(id, 1);
    expect(stateOf(id).brief.quality.samples).toBe(50);
  });

  it('merges what two windows changed of one brief, each a step, and tells what was taken back', () => {
    const id = copyOf(first);
    const { brief: from } = stateOf(id);
    changeBrief(id, { ...from, size: { width_px: 50, height_px: 40 } }, false, from);
    const other = changeBrief(id, withSamples(from, 50), true, from);
    expect(other).toMatchObject({ ok: true, value: { overridden: [] } });
    expect(stateOf(id).brief).toMatchObject({ size: { width_px: 50, height_px: 40 }, quality: { samples: 50 } });
    const same = changeBrief(id, withSamples(from, 70), false, from);
    expect(same.ok && same.value.overridden).toEqual([expect.stringMatching(/samples/i)]);
    expect(stateOf(id).brief).toMatchObject({ size: { width_px: 50, height_px: 40 }, quality: { samples: 70 } });
    moveStep(id, -1);
    expect(stateOf(id).brief.quality.samples).toBe(50);
    moveStep(id, -1);
    expect(stateOf(id).brief).toMatchObject({ size: { width_px: 50 }, quality: from.quality });
  });

  it('joins the changes of one drag to one step', () => {
    const id = copyOf(first);
    const { brief } = stateOf(id);
    changeBrief(id, withSamples(brief, 50), false);
    changeBrief(id, withSamples(brief, 51), true);
    changeBrief(id, withSamples(brief, 52), true);
    moveStep(id, -1);
    expect(stateOf(id).brief.quality.samples).toBe(brief.quality.samples);
    moveStep(id, 1);
    expect(stateOf(id).brief.quality.samples).toBe(52);
  });

  it('makes no step of a brief that is the same', () => {
    const id = copyOf(first);
    changeBrief(id, stateOf(id).brief, false);
    expect(stateOf(id).canUndo).toBe(false);
  });

  it('cuts off the redone steps when an undone brief is changed', () => {
    const id = copyOf(first);
    const { brief } = stateOf(id);
    changeBrief(id, withSamples(brief, 50), false);
    changeBrief(id, withSamples(brief, 60), false);
    moveStep(id, -1);
    changeBrief(id, withSamples(brief, 70), false);
    expect(stateOf(id).canRedo).toBe(false);
    moveStep(id, -1);
    expect(stateOf(id).brief.quality.samples).toBe(50);
  });

  it('counts every change, so that of two states of a picture the newer is known; none for the same brief', () => {
    const id = copyOf(first);
    const { brief, changes } = stateOf(id);
    const counts = [
      () => changeBrief(id, withSamples(brief, 81), false),
      () => changeBrief(id, withSamples(brief, 82), true),
      () => changeBrief(id, withSamples(brief, 82), true),
      () => moveStep(id, -1),
      () => moveStep(id, 1),
      () => moveStep(id, -1)
    ].map((act) => {
      act();
      return stateOf(id).changes - changes;
    });
    expect(counts).toEqual([1, 2, 2, 3, 4, 5]);
  });

  it('refuses a bad brief with its place and keeps the one it has', () => {
    const { brief } = stateOf(picture);
    const bad = changeBrief(picture, { ...brief, quality: { ...brief.quality, samples: -1 } }, false);
    expect(bad).toMatchObject({ ok: false, code: 'bad_brief' });
    expect(bad.ok ? '' : bad.message).toContain('samples');
    expect(stateOf(picture).brief).toEqual(brief);
  });

  it('refuses a picture that is not there', () => {
    expect(changeBrief('nothing', stateOf(picture).brief, false)).toMatchObject({ ok: false, code: 'gone' });
    expect(moveStep('nothing', -1)).toMatchObject({ ok: false, code: 'gone' });
  });
});

describe('addPicture', () => {
  it('copies the brief as it stands, under a name that is free, at the end', () => {
    const id = copyOf(first);
    changeBrief(id, withSamples(stateOf(id).brief, 77), false);
    rename('picture', id, 'Side');
    const copies = [copyOf(id), copyOf(id)].map(stateOf);
    expect(copies.map((p) => p.name)).toEqual(['Side, 2', 'Side, 3']);
    expect(copies.map((p) => p.brief.quality.samples)).toEqual([77, 77]);
    expect(copies.every((p) => !p.canUndo)).toBe(true);
    expect(viewWorkspace(project)!.pictures.at(-1)!.id).toBe(copies[1]!.id);
  });
});

describe('viewChanges', () => {
  it('holds the pictures that changed since a stamp and no others', () => {
    const id = copyOf(first);
    const { stamp } = viewWorkspace(project)!;
    expect(viewChanges(project, id, stamp)).toMatchObject({ pictures: [], picture: null });
    changeBrief(id, withSamples(stateOf(id).brief, 33), false);
    const changes = viewChanges(project, id, stamp)!;
    expect(changes.stamp).toBeGreaterThan(stamp);
    expect(changes.pictures.map((p) => p.id)).toEqual([id]);
    expect(changes.picture!.brief.quality.samples).toBe(33);
    expect(viewChanges(project, first, stamp)).toMatchObject({ opened: first, picture: null, pictures: [{ id }] });
    expect(viewChanges(project, id, changes.stamp)!.pictures).toEqual([]);
  });
});
