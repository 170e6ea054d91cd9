/** A brief as it was kept, in this version and with what has come to briefs since at its default. */
import type { Brief, BriefQuality, Seen, Surroundings } from './brief';
import { BRIEF } from './fields/brief-fields';
import { completed } from './fields/walk';
import { migrateBrief } from './migrate';

export function readBrief(json: string): Brief {
  const kept = JSON.parse(json) as { version?: unknown };
  return completed(BRIEF, migrateBrief(kept, kept.version ?? 1)) as Brief;
}

export const readSurroundings = (kept: unknown): Surroundings =>
  completed(BRIEF.fields.surroundings, kept) as Surroundings;
export const readQuality = (kept: unknown): BriefQuality => completed(BRIEF.fields.quality, kept) as BriefQuality;
export const readSeen = (kept: unknown): Seen => completed(BRIEF.fields.seen, kept) as Seen;
export const readMaterials = (kept: unknown): Brief['materials'] =>
  completed(BRIEF.fields.materials, kept) as Brief['materials'];
export const readLamps = (kept: unknown): Brief['lamps'] => completed(BRIEF.fields.lamps, kept) as Brief['lamps'];
