/**
 * A piece of a picture as a brief would have it. The last ones are kept in memory; one is rendered at a time, and none
 * while a proof is.
 */
import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import type { CropDto } from '../../contracts/dto';
import { type Brief, canonicalJson, developKey, filmBrief } from '../../core/brief/brief';
import { cropBrief } from '../../core/forecast/crop';
import { runTask } from '../jobs/run-task';
import { singleton } from '../jobs/singleton';
import { type Result, ok, refused } from '../../core/result/result';
import { attendJob, isRendering } from './attend-job';
import { sentBrief } from './sent-brief';

const known = () => singleton('crops', () => new LRUCache<string, CropDto>({ max: 64 }));

/** `place`: the middle of the detail, in shares of the picture. */
export async function viewCrop(
  projectId: string,
  input: unknown,
  place: { x: number; y: number }
): Promise<Result<CropDto>> {
  const sent = sentBrief(projectId, input);
  if (!sent.ok) return sent;
  const { revision } = sent.value;
  const brief: Brief = cropBrief(sent.value.brief, place);
  const of = { model: revision.glb_sha256, film: filmBrief(brief), finish: developKey(brief.finish) };
  const key = createHash('sha256').update(canonicalJson(of)).digest('hex');
  return attendJob('measure', projectId, async (): Promise<Result<CropDto>> => {
    const found = known().get(key);
    if (found) return ok(found);
    if (isRendering()) return refused('a render is under way; the detail is shown when it has ended', 'busy');
    const made = await runTask('crop', { model: revision.glb_sha256, brief });
    if (!made.ok) return made;
    const { png, samples, whole } = made.value;
    const crop: CropDto = { png: `data:image/png;base64,${Buffer.from(png).toString('base64')}`, samples, whole };
    known().set(key, crop);
    return ok(crop);
  });
}
