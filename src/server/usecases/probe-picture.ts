/**
 * The probe of a brief: made once, kept by the hash of what it is of. One at a time, and none while a render runs: both
 * would be slower and neither true.
 */
import type { Brief } from '../../core/brief/brief';
import { resolveSize, scaleSize } from '../../core/output/size';
import type { Probe } from '../../core/forecast/forecast';
import { probeKey } from '../render/probe-key';
import { runTask } from '../jobs/run-task';
import { findProbe, saveProbe } from '../store/forecasts';
import { type Result, ok, refused } from '../../core/result/result';
import { attendJob, isRendering } from './attend-job';
import { giveWay } from './preview-first';
import { sentBrief } from './sent-brief';

/** Of the picture that patches are taken of; their own sizes are the worker's. */
const LONG_SIDE_PX = 1024;

export function smallSize({ size }: Pick<Brief, 'size'>): { width_px: number; height_px: number } {
  const whole = resolveSize(size);
  return scaleSize(whole, LONG_SIDE_PX / Math.max(whole.width_px, whole.height_px));
}

export async function probePicture(projectId: string, input: unknown): Promise<Result<Probe>> {
  const sent = sentBrief(projectId, input);
  if (!sent.ok) return sent;
  const { revision, brief } = sent.value;
  const key = probeKey(revision.glb_sha256, brief);
  return attendJob('measure', projectId, async (): Promise<Result<Probe>> => {
    const known = findProbe(key);
    if (known) return ok(known);
    if (isRendering()) return refused('a render is under way; the forecast is measured when it has ended', 'busy');
    const small = { ...brief, size: smallSize(brief), quality: { ...brief.quality, scale: 1 } };
    const probe = await runTask('probe', { model: revision.glb_sha256, brief: small }, { attend: giveWay });
    if (probe.ok) saveProbe(key, probe.value, Date.now());
    return probe;
  });
}
