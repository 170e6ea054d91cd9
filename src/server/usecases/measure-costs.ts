/**
 * Measures what costs time in a brief, once per model and brief. What was measured before a stop is saved too, so that
 * it can be tried and the measurement continued.
 */
import { settingOf } from '../../core/scene/dim-lamps';
import { lampGroup } from '../../core/scene/lamp-groups';
import { type Cost, type CostsSoFar, savingsOf } from '../../core/forecast/costs';
import type { ImportReport } from '../../formats/model/import-report';
import { runTask } from '../jobs/run-task';
import { probeKey } from '../render/probe-key';
import { findCosts, saveCosts } from '../store/forecasts';
import { type RevisionRow, saveReport } from '../store/projects';
import { type Result, ok, refused } from '../../core/result/result';
import { attendJob, isRendering } from './attend-job';
import { sentBrief } from './sent-brief';
import { smallSize } from './probe-picture';

// More would take minutes; the rest is told by what each lamp brings (measure-lamps.ts).
const MAX_LAMP_GROUPS = 5;
const MAX_OBJECTS = 3;
const MAX_MATERIALS = 4;

/** The report of a model, its objects weighed if they were not when it came in. */
async function weighed(revision: RevisionRow): Promise<ImportReport> {
  const report = JSON.parse(revision.report_json) as ImportReport;
  if (report.heaviest?.every((g) => g.slim !== undefined)) return report;
  const weighed = await runTask('weigh', { model: revision.glb_sha256 });
  if (!weighed.ok) return report;
  const whole: ImportReport = { ...report, heaviest: weighed.value };
  saveReport(revision.id, JSON.stringify(whole));
  return whole;
}

/** `stop` ends it, or its waiting for its turn; the next one goes on from what was measured by then. */
export async function measureCostsOf(
  projectId: string,
  input: unknown,
  onProgress?: (progress: CostsSoFar) => void,
  stop?: AbortSignal
): Promise<Result<Cost[]>> {
  const sent = sentBrief(projectId, input);
  if (!sent.ok) return sent;
  const { revision, brief } = sent.value;
  const key = probeKey(revision.glb_sha256, brief);
  return attendJob('measure', projectId, async (): Promise<Result<Cost[]>> => {
    const known = findCosts(key);
    if (known?.whole) return ok(known.costs);
    if (isRendering()) return refused('a render is under way; measure when it has ended', 'busy');
    const report = await weighed(revision);
    const groups = [...(report.lamps ?? []).map((l) => l.group), ...brief.lamps.added.map((l) => lampGroup(l.name))]
      .filter((g) => settingOf(brief.lamps, g).on)
      .slice(0, MAX_LAMP_GROUPS);
    const savings = savingsOf(brief, groups, (report.heaviest ?? []).slice(0, MAX_OBJECTS));
    const job = {
      model: revision.glb_sha256,
      brief: { ...brief, size: smallSize(brief), quality: { ...brief.quality, scale: 1 } },
      savings,
      known: known?.costs ?? [],
      materials: MAX_MATERIALS,
      size: brief.size
    };
    const keep = (progress: CostsSoFar) => {
      saveCosts(key, progress.costs, false, Date.now());
      onProgress?.(progress);
    };
    const measured = await runTask('costs', job, { onProgress: keep, ...(stop ? { signal: stop } : {}) });
    if (measured.ok) saveCosts(key, measured.value, true, Date.now());
    return measured;
  });
}
