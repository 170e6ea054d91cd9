/**
 * What of a brief a probe is of: all that decides a sample's time and grain, but not how many pixels and samples there
 * are.
 */
import { type Brief, canonicalJson, samplingBrief } from '../brief/brief';
import { resolveSize } from '../output/size';

/** Two sizes of one proportion have one probe. */
const ASPECT_STEPS = 200;

export function probeOf(brief: Brief): object {
  const { width_px, height_px } = resolveSize(brief.size);
  return { ...samplingBrief(brief), aspect: Math.round(Math.log(width_px / height_px) * ASPECT_STEPS) };
}

export const probeText = (brief: Brief): string => canonicalJson(probeOf(brief));
