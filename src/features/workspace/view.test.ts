import { describe, expect, it } from 'vitest';
import type { ProofDto, WorkspaceDto } from '../../contracts/dto';
import { BRIEF_DEFAULTS } from '../../core/brief/brief';
import type { LampPlace } from '../../core/scene/lamp-groups';
import type { ImportReport } from '../../formats/model/import-report';
import { freeView, lampsOf, placesOf, proofUnder } from './view';

const lamp = (name: string, kind: LampPlace['kind'] = 'lamps', more: object = {}): LampPlace => ({
  name,
  kind,
  at_m: [0, 2, 0],
  within: [],
  ...more
});
const report = (there: LampPlace[], kelvins: Record<string, number> = {}) =>
  ({
    lights: [],
    glowing: [],
    cameras: [],
    lamps_there: there,
    lamps: Object.entries(kelvins).map(([group, kelvin]) => ({ group, kelvin, kind: 'lamps', count: 1 }))
  }) as unknown as ImportReport;
const { lamps } = BRIEF_DEFAULTS;
const added = { name: 'Shelf lamp 9', form: 'spot', kelvin: 3000 } as (typeof lamps.added)[number];

describe('the groups of a picture’s lamps', () => {
  it('are the model’s by their names, in its order, then the picture’s own', () => {
    const groups = lampsOf(
      report([lamp('Shelf lamp 1'), lamp('Globe'), lamp('Shelf lamp 2')], { 'Shelf lamp': 2700 }),
      { ...lamps, added: [{ ...added, name: 'Arch spot' }] }
    );
    expect(groups.map(({ group, count, kelvin, added }) => [group, count, kelvin, added])).toEqual([
      ['Shelf lamp', 2, 2700, null],
      ['Globe', 1, null, null],
      ['Arch spot', 1, 3000, 0]
    ]);
  });
  it('a lamp given to another group stands there, however its name is written', () => {
    const groups = lampsOf(report([lamp('Shelf lamp 1'), lamp('Shelf lamp 2'), lamp('Globe')]), {
      ...lamps,
      regrouped: [{ lamp: 'SHELF LAMP 2', group: 'Reading' }]
    });
    expect(groups.map(({ group, count }) => [group, count])).toEqual([
      ['Shelf lamp', 1],
      ['Reading', 1],
      ['Globe', 1]
    ]);
  });
  it('a group of one’s own lamp and the model’s is both, and has a colour only when all have it', () => {
    const both = (kelvin: number) =>
      lampsOf(report([lamp('Shelf lamp 1')], { 'Shelf lamp': kelvin }), { ...lamps, added: [added] })[0]!;
    expect(both(3000)).toMatchObject({ count: 2, kind: 'lamps', kelvin: 3000 });
    expect(both(2700)).toMatchObject({ count: 2, kelvin: null });
    expect(lampsOf(report([lamp('Globe', 'glowing'), lamp('Globe 2', 'glowing')]), lamps)[0]).toMatchObject({
      kind: 'glowing',
      count: 2
    });
  });
  it('is hidden when all of it is', () => {
    expect(
      lampsOf(
        report([
          lamp('Old 1', 'lamps', { hidden: true }),
          lamp('Old 2', 'lamps', { hidden: true }),
          lamp('New 1', 'lamps', { hidden: true }),
          lamp('New 2')
        ]),
        lamps
      ).map(({ group, hidden }) => [group, hidden])
    ).toEqual([
      ['Old', true],
      ['New', false]
    ]);
  });
  it('of a model brought in before places were kept come from names alone', () => {
    expect(
      placesOf({ lights: ['Spot'], glowing: ['Opal'] } as unknown as ImportReport).map(({ name, kind }) => [name, kind])
    ).toEqual([
      ['Spot', 'lamps'],
      ['Opal', 'glowing']
    ]);
  });
});

describe('the viewpoint as numbers', () => {
  const camera = {
    name: 'North',
    position_m: [1, 2, 3],
    target_m: [0, 0, 0],
    up: [0, 1, 0],
    projection: 'perspective',
    focal_length_mm: 28,
    height_m: null
  };
  const workspace = (cameras: object[]) => ({ revision: { report: { cameras } } }) as unknown as WorkspaceDto;
  const from = (name: string, cameras: object[]) =>
    freeView({ ...BRIEF_DEFAULTS, viewpoint: { camera: name } }, workspace(cameras));
  it('of a camera of the model are its own, without its name', () => {
    expect(from('North', [{ ...camera, name: 'South' }, camera])).toEqual({
      position_m: [1, 2, 3],
      target_m: [0, 0, 0],
      up: [0, 1, 0],
      projection: 'perspective',
      focal_length_mm: 28,
      height_m: null,
      sensor_height_mm: 24,
      upright: false,
      f_number: null,
      focus_m: null
    });
  });
  it('of a camera that a newer model no longer has are those of its first, or of a standing eye', () => {
    expect(from('West', [camera]).position_m).toEqual([1, 2, 3]);
    expect(from('West', []).position_m).toEqual([0, 1.6, 4]);
  });
});

describe('the proof that is seen where another has no picture', () => {
  const proof = (id: string, more: object = {}) =>
    ({
      id,
      picture_count: 1,
      revision: 1,
      state: 'done',
      width_px: 300,
      height_px: 200,
      brief: { ...BRIEF_DEFAULTS, patch: null },
      ...more
    }) as unknown as ProofDto;
  const elsewhere = { ...BRIEF_DEFAULTS, patch: null, viewpoint: { camera: 'Other' } };
  it('is for one that renders or waits the newest ended one from the same place and of the same proportion', () => {
    const running = proof('c', { state: 'running', picture_count: 0 });
    const others = [running, proof('b', { brief: elsewhere }), proof('d', { width_px: 200 }), proof('a')];
    expect(proofUnder(running, others)?.id).toBe('a');
    expect(proofUnder({ ...running, state: 'waiting' }, others)?.id).toBe('a');
    expect(proofUnder(running, others.slice(0, 3))).toBeNull();
    expect(proofUnder(proof('a'), others)).toBeNull();
  });
  it('is for a patch the newest whole one', () => {
    const patch = proof('p', { brief: { ...BRIEF_DEFAULTS, patch: { x: 0, y: 0, width: 0.5, height: 0.5 } } });
    expect(proofUnder(patch, [patch, proof('b', { brief: elsewhere }), proof('a')])?.id).toBe('b');
  });
});
