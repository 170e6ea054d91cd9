/** What each group of lamps brings to a picture as its brief stands; one measurement at a time a project. */
import type { MeasuredLampDto } from '../../contracts/dto';
import { resolveSize } from '../../core/output/size';
import { measureLamps } from '../render/measure-lamps';
import { done, type Outcome, refused } from './identify';
import { sentBrief } from './sent-brief';

// Enough to tell a lamp from none.
const WIDTH_PX = 240;
const LEAST_HEIGHT_PX = 16;

const underWay = new Set<string>();

export async function measureLampsOf(projectId: string, input: unknown): Promise<Outcome<MeasuredLampDto[]>> {
  const sent = sentBrief(projectId, input);
  if (!sent.ok) return sent;
  const { revision, brief } = sent.value;
  if (underWay.has(projectId)) return refused('the lamps are being measured already; wait for it');
  underWay.add(projectId);
  try {
    const { width_px, height_px } = resolveSize(brief.size);
    const size = {
      width_px: WIDTH_PX,
      height_px: Math.max(LEAST_HEIGHT_PX, Math.round((WIDTH_PX * height_px) / width_px))
    };
    const said = await measureLamps({
      model: revision.glb_sha256,
      brief: { ...brief, size, quality: { ...brief.quality, scale: 1 } }
    });
    return said.ok ? done(said.lamps) : refused(said.message);
  } finally {
    underWay.delete(projectId);
  }
}
