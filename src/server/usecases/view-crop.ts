/**
 * A piece of a picture as a brief would have it. The last ones are kept in memory; one is rendered at a time, and none
 * while a proof is.
 */
import { createHash } from 'node:crypto';
import type { CropDto } from '../../contracts/dto';
import { type Brief, canonicalJson, developKey, filmBrief } from '../../core/brief/brief';
import { cropBrief } from '../../core/forecast/crop';
import { renderCrop } from '../render/crop';
import { openProofs } from '../store/proofs';
import { done, type Outcome, refused } from './identify';
import { inTurn } from './in-turn';
import { sentBrief } from './sent-brief';

const MOST_KEPT = 64;
const kept = new Map<string, CropDto>();

/** `place`: the middle of the piece, in shares of the picture. */
export async function viewCrop(
  projectId: string,
  input: unknown,
  place: { x: number; y: number }
): Promise<Outcome<CropDto>> {
  const sent = sentBrief(projectId, input);
  if (!sent.ok) return sent;
  const { revision } = sent.value;
  const brief: Brief = cropBrief(sent.value.brief, place);
  const key = createHash('sha256')
    .update(canonicalJson({ model: revision.glb_sha256, film: filmBrief(brief), finish: developKey(brief.finish) }))
    .digest('hex');
  return inTurn(async (): Promise<Outcome<CropDto>> => {
    const known = kept.get(key);
    if (known) return done(known);
    if (openProofs().some((p) => p.state === 'running'))
      return refused('a render is under way; the piece is shown when it has ended', 'busy');
    const said = await renderCrop({ model: revision.glb_sha256, brief });
    if (!said.ok) return refused(said.message);
    const crop: CropDto = {
      png: `data:image/png;base64,${Buffer.from(said.png).toString('base64')}`,
      samples: said.samples,
      whole: said.whole
    };
    if (kept.size >= MOST_KEPT) kept.delete(kept.keys().next().value!);
    kept.set(key, crop);
    return done(crop);
  });
}
