/**
 * What costs time is told from measurements: another scene, and the sentences are others; a model brought in before its
 * objects were weighed is weighed.
 */
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Result } from '../../src/core/result/result';
import { greyHdr } from '../support/hdr';

const data = await mkdtemp(join(tmpdir(), 'sphaera-costs-'));
vi.stubEnv('SPHAERA_DATA', data);
const { put } = await import('../../src/server/files/content-store');
const { closeDatabase, database } = await import('../../src/server/store/database');
const { SURROUNDINGS_DEFAULTS } = await import('../../src/core/brief/brief');
const { addCaptured } = await import('../../src/server/usecases/add-captured');
const { createProject } = await import('../../src/server/usecases/create-project');
const { measureCostsOf } = await import('../../src/server/usecases/measure-costs');
const { runTask } = await import('../../src/server/jobs/run-task');
const { requestProof } = await import('../../src/server/usecases/request-proof');
const { viewWorkspace } = await import('../../src/server/usecases/view-workspace');
const { changeBrief } = await import('../../src/server/usecases/change-brief');
const { costSentence } = await import('../../src/core/forecast/costs');
const { perihelionLamp } = await import('../../src/demo/models');
const { writeModel } = await import('../../src/drawing/write-model');
type Brief = import('../../src/core/brief/brief').Brief;
type Cost = import('../../src/core/forecast/costs').Cost;

afterAll(async () => {
  closeDatabase();
  await rm(data, { recursive: true, force: true });
});

const GLASS = 'clear glass';
const open = async (glass: object) => {
  const model = perihelionLamp();
  const { sha256 } = await put(
    'incoming',
    await writeModel({ ...model, materials: { ...model.materials, [GLASS]: { ...model.materials[GLASS]!, ...glass } } })
  );
  const made = await createProject({ files: [{ upload: sha256, name: 'lamp.glb' }], unit: 'm', up: 'y' });
  if (!made.ok) throw new Error(made.message);
  const { opened, revision } = viewWorkspace(made.value.project)!;
  const { picture } = opened;
  const brief: Brief = {
    ...picture.brief,
    size: { width_px: 300, height_px: 420 },
    viewpoint: { camera: revision.report.cameras[1]!.name },
    quality: { ...picture.brief.quality, bounces: 16, scale: 1 }
  };
  const changed = changeBrief(picture.id, brief, false);
  if (!changed.ok) throw new Error(changed.message);
  return {
    project: made.value.project,
    picture: picture.id,
    revision: revision.id,
    model: revision.glb_sha256,
    brief
  };
};
const measure = async ({ project, brief }: { project: string; brief: Brief }) => {
  const measured = await measureCostsOf(project, brief);
  if (!measured.ok) throw new Error(measured.message);
  return measured.value;
};

describe('what costs time', () => {
  let glazed: Awaited<ReturnType<typeof open>>;
  let costs: Cost[];
  // the one measurement of the glazed lamp: stopped after two costs, and asked for again before it has ended, as a user
  // does who presses Stop and goes on
  let stopped: { result: Result<Cost[]>; costs: Cost[]; steps: number[] };
  let continued: { result: Result<Cost[]>; counts: number[] };
  beforeAll(async () => {
    glazed = await open({});
    const stop = new AbortController();
    const steps: number[] = [];
    let before: Cost[] = [];
    const first = measureCostsOf(
      glazed.project,
      glazed.brief,
      (progress) => {
        steps.push(progress.steps);
        before = progress.costs;
        if (before.length === 2) stop.abort();
      },
      stop.signal
    );
    const counts: number[] = [];
    const second = measureCostsOf(glazed.project, glazed.brief, (progress) => counts.push(progress.costs.length));
    stopped = { result: await first, costs: before, steps };
    continued = { result: await second, counts };
    if (!continued.result.ok) throw new Error(continued.result.message);
    costs = continued.result.value;
  }, 240_000);
  it('names the glass where there is glass, and not where it has become plain; a model that was not weighed is weighed', {
    timeout: 240_000
  }, async () => {
    const glass = costs.find((c) => c.saving.kind === 'material' && c.saving.name === GLASS)!;
    expect(glass.changes).toBeGreaterThan(0.5);
    expect(glass.at!.x * glass.at!.y).toBeGreaterThan(0);
    const plain = await open({ transmission: 0, roughness: 1, volume: undefined, specularColor: undefined });
    // as models came in before their objects were weighed
    const reportOf = () => viewWorkspace(plain.project)!.revision.report;
    const { heaviest, ...before } = reportOf();
    database().prepare('UPDATE revisions SET report_json = ? WHERE id = ?').run(JSON.stringify(before), plain.revision);
    const others = await measure(plain);
    expect(reportOf().heaviest).toEqual(heaviest);
    expect(others.some((c) => c.saving.kind === 'material' && c.saving.name === 'polished brass')).toBe(true);
    // four bounces take light out of glass, and little from elsewhere
    const said = (all: typeof costs) =>
      costSentence(all.find((c) => c.saving.kind === 'bounces' && c.saving.to === 4)!, glazed.brief);
    expect(said(costs)).not.toBe(said(others));
    const lost = (all: typeof costs) => all.find((c) => c.saving.kind === 'bounces' && c.saving.to === 4)!.changes;
    expect(lost(costs)).toBeGreaterThan(2 * lost(others));
  });
  it('offers a captured image coarser where nothing is seen of it, and not where its detail is seen', {
    timeout: 240_000
  }, async () => {
    const around = async (name: string, grey: (x: number, y: number) => number) => {
      const { sha256 } = await put('incoming', greyHdr(4096, 2048, grey));
      const added = await addCaptured(sha256, `${name}.hdr`, false);
      if (!added.ok) throw new Error(added.message);
      const surroundings = { ...SURROUNDINGS_DEFAULTS.captured, file: added.value.sha256 };
      // nothing else is measured
      const measured = await runTask('costs', {
        model: glazed.model,
        brief: { ...glazed.brief, surroundings },
        size: glazed.brief.size,
        savings: [],
        known: [],
        materials: 0
      });
      if (!measured.ok) throw new Error(measured.message);
      return measured.value[0];
    };
    const smooth = await around('smooth', (_, y) => 60 + Math.round((150 * y) / 2048));
    expect(smooth?.saving).toEqual({ kind: 'captured', from: 4096, to: 2048, bytes: 4096 * 2048 * 12 });
    expect(smooth!.changes).toBeLessThan(0.05);
    expect(await around('striped', (x) => (x % 2 ? 40 : 160))).toBeUndefined();
  });
  it('is stopped, and continued at once from what there was', () => {
    expect(stopped.result).toMatchObject({ ok: false, message: 'the measurement was stopped' });
    expect(Math.min(...stopped.steps)).toBeGreaterThan(2);
    expect(continued.counts[0]).toBe(2);
    expect(costs.slice(0, 2)).toEqual(stopped.costs);
    expect(costs.length).toBeGreaterThan(4);
  });
  it('is tried as a patch of what was measured, and of nothing else', () => {
    const [cost] = costs;
    const tried = requestProof(glazed.picture, { x: 0.2, y: 0.2, width: 0.2, height: 0.2 }, cost!.saving);
    expect(tried.ok && tried.value.brief.patch).toEqual({ x: 0.2, y: 0.2, width: 0.2, height: 0.2 });
    if (cost!.saving.kind === 'bounces') expect(tried.ok && tried.value.brief.quality.bounces).toBe(cost!.saving.to);
    expect(requestProof(glazed.picture, null, { kind: 'bounces', to: 3 })).toMatchObject({
      ok: false,
      message: expect.stringContaining('measure again')
    });
  });
});
