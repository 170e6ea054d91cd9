import { describe, expect, it } from 'vitest';
import { boxProject } from '../../../tests/support/box-project';
import { BRIEF_DEFAULTS, SURROUNDINGS_DEFAULTS } from '../../core/brief/brief';

const { project } = await boxProject();
const { keepPart } = await import('./keep-part');
const { saveViewpoint } = await import('./save-viewpoint');
const { viewWorkspace } = await import('./view-workspace');
const { viewDesk, deskStamp } = await import('./view-desk');

const evening = { ...BRIEF_DEFAULTS, surroundings: { ...SURROUNDINGS_DEFAULTS.sky, north_deg: 30 } };
const savedOf = (kind: string) => viewWorkspace(project)!.kept.filter((k) => k.kind === kind);

describe('keepPart', () => {
  it('saves the part of a brief under a name', () => {
    const saved = keepPart(project, 'surroundings', ' Evening ', evening);
    expect(saved.ok && saved.value).toMatchObject({ name: 'Evening', part: { surroundings: { north_deg: 30 } } });
    expect(savedOf('surroundings').map((k) => k.name)).toEqual(['Evening']);
  });

  it('makes a destination of the size under its own name', () => {
    const size = { paper: 'A1', orientation: 'landscape', ppi: 150 } as const;
    keepPart(project, 'destination', 'Jury wall', { ...BRIEF_DEFAULTS, size });
    expect(savedOf('destination')[0]!.part.seen!.destination).toEqual({ name: 'Jury wall', size });
  });

  it('refuses a name that is there already, an empty one, a bad brief and a project that is gone', () => {
    keepPart(project, 'step', 'Fast', BRIEF_DEFAULTS);
    const twice = keepPart(project, 'step', 'Fast', BRIEF_DEFAULTS);
    expect(twice.ok ? '' : twice.message).toContain('"Fast" is there already');
    expect(keepPart(project, 'step', ' ', BRIEF_DEFAULTS).ok).toBe(false);
    expect(keepPart(project, 'step', 'Bad', { version: 99 })).toMatchObject({ ok: false, code: 'bad_brief' });
    expect(keepPart('nothing', 'step', 'Fast', BRIEF_DEFAULTS)).toMatchObject({ ok: false, code: 'gone' });
    expect(savedOf('step')).toHaveLength(1);
  });

  it('takes the same name for another kind', () => {
    expect(keepPart(project, 'cue', 'Fast', BRIEF_DEFAULTS).ok).toBe(true);
  });
});

describe('saveViewpoint', () => {
  it('saves a viewpoint for all pictures of the project, once a name', () => {
    expect(saveViewpoint(project, 'Corner', BRIEF_DEFAULTS.viewpoint).ok).toBe(true);
    expect(viewWorkspace(project)!.viewpoints.map((v) => [v.name, v.viewpoint])).toEqual([
      ['Corner', BRIEF_DEFAULTS.viewpoint]
    ]);
    expect(saveViewpoint(project, 'Corner', BRIEF_DEFAULTS.viewpoint).ok).toBe(false);
    expect(saveViewpoint(project, 'Other', { position_m: [0, 0] })).toMatchObject({ ok: false, code: 'bad_brief' });
    expect(saveViewpoint('nothing', 'Corner', BRIEF_DEFAULTS.viewpoint)).toMatchObject({ ok: false, code: 'gone' });
  });
});

describe('viewDesk', () => {
  it('shows the project with its first picture and what its model takes on disk', () => {
    const desk = viewDesk();
    expect(desk.projects).toHaveLength(1);
    expect(desk.projects[0]).toMatchObject({ id: project, revision: 1, lead: null, running: null });
    expect(desk.storage.models_bytes).toBeGreaterThan(500);
    expect(desk.storage.free_bytes).toBeGreaterThan(0);
    expect(desk).toMatchObject({ running: null, waiting: 0, stamp: deskStamp() });
    expect(desk.formats.extensions).toContain('glb');
  });
});
