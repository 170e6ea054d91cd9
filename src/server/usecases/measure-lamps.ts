/** What each group of lamps contributes to a picture as its brief stands. */
import type { MeasuredLampDto } from '../../contracts/dto';
import { resolveSize } from '../../core/output/size';
import type { Result } from '../../core/result/result';
import { runTask } from '../jobs/run-task';
import { attendJob } from './attend-job';
import { sentBrief } from './sent-brief';
import { underWay } from './under-way';

// Enough to tell a lamp from none.
const WIDTH_PX = 240;
const MIN_HEIGHT_PX = 16;

export async function measureLampsOf(projectId: string, input: unknown): Promise<Result<MeasuredLampDto[]>> {
  const sent = sentBrief(projectId, input);
  if (!sent.ok) return sent;
  const { revision, brief } = sent.value;
  const { width_px, height_px } = resolveSize(brief.size);
  const height = Math.max(MIN_HEIGHT_PX, Math.round((WIDTH_PX * height_px) / width_px));
  const small = {
    ...brief,
    size: { width_px: WIDTH_PX, height_px: height },
    quality: { ...brief.quality, scale: 1 }
  };
  return underWay('lamps', `${projectId} ${JSON.stringify(small)}`, () =>
    attendJob('measure', projectId, () => runTask('lamps', { model: revision.glb_sha256, brief: small }))
  );
}
