import { expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';

const { project, picture: first } = await boxProject();
const { addPicture } = await import('./add-picture');
const { movePicture } = await import('./move-picture');
const { viewChanges, viewWorkspace } = await import('./view-workspace');

const order = () => viewWorkspace(project)!.pictures.map((p) => p.id);

it('moves a picture among the others, stops at either end, and tells other windows', () => {
  const added = addPicture(first);
  if (!added.ok) throw new Error(added.message);
  const before = order();
  const last = before.at(-1)!;
  const { stamp } = viewWorkspace(project)!;
  expect(movePicture(last, 1)).toEqual({ ok: true, value: { order: before } });
  const moved = movePicture(last, -1);
  expect(order()).toEqual([...before.slice(0, -2), last, before.at(-2)]);
  expect(moved).toEqual({ ok: true, value: { order: order() } });
  const changed = viewChanges(project, first, stamp)!.pictures.map((p) => p.id);
  expect(changed).toContain(last);
  for (let i = 0; i < before.length; i++) movePicture(last, -1);
  expect(order()[0]).toBe(last);
  expect(movePicture('nowhere', 1)).toMatchObject({ ok: false });
});
