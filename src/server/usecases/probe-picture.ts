/**
 * The probe of a brief: made once, kept by the hash of what it is of. One at a time, and none while a render runs: both
 * would be slower and neither true.
 */
import type { Brief } from '../../core/brief/brief';
import { resolveSize, scaleSize } from '../../core/output/size';
import type { Probe } from '../../core/forecast/forecast';
import { probeKey } from '../render/probe-key';
import { probeBrief } from '../render/probe';
import { findProbe, saveProbe } from '../store/forecasts';
import { openProofs } from '../store/proofs';
import { done, type Outcome, refused } from './identify';
import { inTurn } from './in-turn';
import { giveWay } from './preview-first';
import { sentBrief } from './sent-brief';

/** Of the picture that patches are taken of; their own sizes are the worker's. */
const LONG_SIDE_PX = 1024;

export function smallSize({ size }: Pick<Brief, 'size'>): { width_px: number; height_px: number } {
  const whole = resolveSize(size);
  return scaleSize(whole, LONG_SIDE_PX / Math.max(whole.width_px, whole.height_px));
}

export async function probePicture(projectId: string, input: unknown): Promise<Outcome<Probe>> {
  const sent = sentBrief(projectId, input);
  if (!sent.ok) return sent;
  const { revision, brief } = sent.value;
  const key = probeKey(revision.glb_sha256, brief);
  return inTurn(async (): Promise<Outcome<Probe>> => {
    const known = findProbe(key);
    if (known) return done(known);
    if (openProofs().some((p) => p.state === 'running'))
      return refused('a render is under way; the forecast is measured when it has ended', 'busy');
    const said = await probeBrief(
      {
        model: revision.glb_sha256,
        brief: { ...brief, size: smallSize(brief), quality: { ...brief.quality, scale: 1 } }
      },
      giveWay
    );
    if (!said.ok) return refused(said.message);
    saveProbe(key, said.probe, Date.now());
    return done(said.probe);
  });
}
