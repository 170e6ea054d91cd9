import { describe, expect, it } from 'vitest';
import type { PictureDto, ProofDto, WorkspaceChangesDto, WorkspaceDto } from '../../contracts/dto';
import { createWorkspaceStore } from './workspace-store';

const picture = (id: string, changes = 0) => ({ id, name: id, changes }) as PictureDto;
const proof = (id: string, state = 'running') => ({ id, state }) as ProofDto;
const workspace = {
  pictures: [picture('a'), picture('b')],
  proofs: [proof('2'), proof('1')],
  stamp: 4
} as WorkspaceDto;
const changes = (part: Partial<WorkspaceChangesDto>) =>
  ({ stamp: 5, machine: null, rendering: null, pictures: [], proofs: [], removed: [], ...part }) as WorkspaceChangesDto;
const store = (pictureId: string | null = null) => createWorkspaceStore(workspace, pictureId);

describe('the workspace store', () => {
  it('opens the picture that the address names, or the first', () => {
    expect(store('b').getState().pictureId).toBe('b');
    expect(store('gone').getState().pictureId).toBe('a');
    expect(store().getState().pictureId).toBe('a');
  });

  it('puts new proofs first, replaces changed ones and drops removed ones', () => {
    const s = store();
    s.getState().applyChanges(changes({ proofs: [proof('3'), proof('1', 'done')], removed: ['2'] }));
    expect(s.getState().workspace.proofs.map((p) => [p.id, p.state])).toEqual([
      ['3', 'running'],
      ['1', 'done']
    ]);
    expect(s.getState().workspace.stamp).toBe(5);
  });

  it('keeps the newer state of a picture when an answer overtakes an event', () => {
    const s = store();
    s.getState().replacePicture(picture('a', 3));
    s.getState().applyChanges(changes({ pictures: [picture('a', 2), picture('b', 1), picture('c')] }));
    expect(s.getState().workspace.pictures.map((p) => [p.id, p.changes])).toEqual([
      ['a', 3],
      ['b', 1],
      ['c', 0]
    ]);
  });

  it('adds a proof once, whether the answer or the event comes first', () => {
    const s = store();
    s.getState().addProof(proof('3'));
    s.getState().addProof(proof('3'));
    expect(s.getState().workspace.proofs.map((p) => p.id)).toEqual(['3', '2', '1']);
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
    s.getState().choosePicture('b');
    expect(s.getState()).toMatchObject({ pictureId: 'b', panel: 'lamps', picking: null, gathering: null });
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
    s.getState().chooseProof('1');
    expect(s.getState()).toMatchObject({ proofId: '1', showModel: false });
  });
});
