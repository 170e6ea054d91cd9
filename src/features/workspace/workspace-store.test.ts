import { describe, expect, it } from 'vitest';
import type { PictureDto, PictureItemDto, ProofDto, WorkspaceChangesDto, WorkspaceDto } from '../../contracts/dto';
import { createWorkspaceStore } from './workspace-store';

const picture = (id: string, changes = 0) =>
  ({ id, name: id, changes, brief: { size: { width_px: 4, height_px: 3 } } }) as PictureDto;
const item = (id: string, changes = 0) => ({ id, name: id, changes, position: id.charCodeAt(0) }) as PictureItemDto;
const proof = (number: number, state = 'running', pictureId = 'a') =>
  ({ id: `p${number}`, number, state, pictureId }) as ProofDto;
const opened = (id: string, proofs: ProofDto[] = []) => ({ stamp: 4, picture: picture(id), proofs, earlier: 0 });
const workspace = {
  pictures: [item('a'), item('b')],
  opened: opened('a', [proof(2), proof(1)]),
  stamp: 4
} as unknown as WorkspaceDto;
const changes = (part: Partial<WorkspaceChangesDto>) =>
  ({
    stamp: 5,
    opened: 'a',
    picture: null,
    machine: null,
    rendering: null,
    pictures: [],
    proofs: [],
    removed: [],
    removedPictures: [],
    ...part
  }) as unknown as WorkspaceChangesDto;
const store = () => createWorkspaceStore(workspace);
const proofsOf = (s: ReturnType<typeof store>) => s.getState().workspace.opened.proofs.map((p) => [p.number, p.state]);

describe('the workspace store', () => {
  it('puts new proofs first, replaces changed ones and drops removed ones', () => {
    const s = store();
    expect(s.getState().applyChanges(changes({ proofs: [proof(3), proof(1, 'done')], removed: ['p2'] }))).toBe(true);
    expect(proofsOf(s)).toEqual([
      [3, 'running'],
      [1, 'done']
    ]);
    expect(s.getState().workspace.stamp).toBe(5);
  });

  it('takes no changes of a picture that is no longer in hand: they are to be asked for again', () => {
    const s = store();
    expect(s.getState().applyChanges(changes({ opened: 'b', proofs: [proof(9, 'done', 'b')] }))).toBe(false);
    expect(s.getState().workspace).toBe(workspace);
  });

  it('keeps the newer state of a picture when an answer overtakes an event', () => {
    const s = store();
    s.getState().replacePicture(picture('a', 3));
    s.getState().applyChanges(changes({ pictures: [item('a', 2), item('b', 1), item('c')], picture: picture('a', 2) }));
    const { pictures, opened: inHand } = s.getState().workspace;
    expect(pictures.map((p) => [p.id, p.changes])).toEqual([
      ['a', 3],
      ['b', 1],
      ['c', 0]
    ]);
    expect(inHand.picture.changes).toBe(3);
  });

  it('takes removed pictures out of the list and puts those that come back in their place', () => {
    const s = store();
    s.getState().applyChanges(changes({ removedPictures: ['b'], pictures: [item('c')] }));
    expect(s.getState().workspace.pictures.map((p) => p.id)).toEqual(['a', 'c']);
    s.getState().applyChanges(changes({ pictures: [item('b')] }));
    expect(s.getState().workspace.pictures.map((p) => p.id)).toEqual(['a', 'b', 'c']);
  });

  it('adds a proof once, whether the answer or the event comes first, and none of another picture', () => {
    const s = store();
    s.getState().addProof(proof(3));
    s.getState().addProof(proof(3));
    s.getState().addProof(proof(7, 'waiting', 'b'));
    expect(proofsOf(s).map(([number]) => number)).toEqual([3, 2, 1]);
  });

  it('puts earlier proofs after those that are there', () => {
    const s = store();
    s.getState().openPicture({ ...opened('b', [proof(40), proof(39)]), earlier: 38 });
    s.getState().addEarlierProofs({ proofs: [proof(38), proof(37)], earlier: 36 });
    expect(proofsOf(s).map(([number]) => number)).toEqual([40, 39, 38, 37]);
    expect(s.getState().workspace.opened.earlier).toBe(36);
  });

  it('ends what a panel asked of the stage when another panel or picture is opened', () => {
    const s = store();
    const asked = () => {
      s.getState().set({ picking: { asks: 'focus', says: 'Pick a point.' }, gathering: ['lamp'] });
    };
    s.getState().openPanel('lens');
    asked();
    s.getState().openPanel('lamps');
    expect(s.getState()).toMatchObject({ panel: 'lamps', picking: null, gathering: null });
    asked();
    s.getState().openPicture(opened('b'));
    expect(s.getState()).toMatchObject({ panel: 'lamps', picking: null, gathering: null });
    expect(s.getState().workspace.opened.picture.id).toBe('b');
  });

  it('closes the open panel when it is asked for again', () => {
    const s = store();
    s.getState().togglePanel('size');
    expect(s.getState().panel).toBe('size');
    s.getState().togglePanel('size');
    expect(s.getState().panel).toBeNull();
  });

  it('shows the chosen proof in place of the model', () => {
    const s = store();
    s.getState().set({ showModel: true });
    s.getState().chooseProof('p1');
    expect(s.getState()).toMatchObject({ proofId: 'p1', showModel: false });
  });
});
