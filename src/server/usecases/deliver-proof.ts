/** A file of a proof to hand over. A task encodes it once; it is stored beside the film. */
import { createHash } from 'node:crypto';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { canonicalJson, type Finish } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { QUALITY_STEPS } from '../../core/catalogue/quality';
import type { FileKind } from '../../core/catalogue/file-kinds';
import { bleedPixels, proofPpi, shareOfSheet } from '../../core/output/size';
import { fileName } from '../../core/output/file-name';
import { besideImage } from '../../formats/image/encode';
import { runTask } from '../jobs/run-task';
import type { TaskInput } from '../jobs/tasks';
import { isWhole, keepSum, sumOfFile } from '../files/checksum';
import { DAMAGED_FILM } from '../files/film-store';
import { proofFolder } from '../files/proof-files';
import { findPicture } from '../store/pictures';
import { findProject } from '../store/projects';
import { findProof, forgetFilm } from '../store/proofs';
import { attendJob } from './attend-job';
import { newId } from './identify';
import { underWay } from './under-way';
import { type Result, ok, refused } from '../../core/result/result';

/** `asRendered` leaves the grain in, as EXR always does: it holds the film. */
export async function deliverProof(
  id: string,
  kind: FileKind,
  background: 'own' | 'clear',
  asRendered: boolean,
  cropMarks = false
): Promise<Result<{ path: string; name: string }>> {
  const proof = findProof(id);
  const picture = proof && findPicture(proof.picture_id);
  if (!proof || !picture) return refused('this proof is no longer there; reload the page', 'gone');
  if (proof.ev100 === null || proof.picture_count === 0)
    return refused('there is no picture of this proof yet; wait for its first tiles');
  if (kind === 'jpg' && background === 'clear') return refused('JPEG cannot hold a clear background; take PNG or EXR');
  const brief = readBrief(proof.brief_json);
  const marks = cropMarks && kind !== 'exr' && brief.patch === null ? bleedPixels(brief) : null;
  const finish: Finish = {
    ...brief.finish,
    denoise: asRendered || kind === 'exr' || proof.denoise_share !== 1 ? 0 : brief.finish.denoise,
    background:
      background === 'clear'
        ? { kind: 'clear' }
        : brief.finish.background.kind === 'clear'
          ? { kind: 'own' }
          : brief.finish.background
  };
  const ppi = proofPpi(brief);
  const variants = [
    brief.patch ? 'patch' : '',
    background === 'clear' && kind !== 'exr' ? 'transparent' : '',
    asRendered && kind !== 'exr' && proof.denoise_share === 1 ? 'before denoising' : '',
    marks === null ? '' : 'crop marks'
  ];
  const name = fileName({
    project: findProject(picture.project_id)!.name,
    picture: picture.name,
    proof: proof.number,
    quality: QUALITY_STEPS[brief.quality.step].name,
    width_px: proof.width_px,
    height_px: proof.height_px,
    variant: variants.filter(Boolean).join(' '),
    extension: kind
  });
  const stamp = createHash('sha256')
    .update(
      canonicalJson({
        kind,
        finish,
        film: proof.film_sha256,
        count: proof.picture_count,
        ...(marks === null ? {} : { marks })
      })
    )
    .digest('hex')
    .slice(0, 16);
  const path = join(proofFolder(id), `delivery-${stamp}.${kind}`);
  const input: TaskInput<'deliver'> = {
    proof: id,
    film: proof.film_sha256,
    kind,
    finish,
    within: shareOfSheet(brief),
    width: proof.width_px,
    height: proof.height_px,
    ev100: proof.ev100,
    ppi,
    marks,
    out: `${path}.${newId()}.part`
  };
  return underWay('delivery', path, () => attendJob('deliver', picture.project_id, () => write(input, path, name)));
}

async function write(
  input: TaskInput<'deliver'>,
  path: string,
  name: string
): Promise<Result<{ path: string; name: string }>> {
  if (await isWhole(path)) return ok({ path, name });
  const written = await runTask('deliver', input);
  if (written.ok) {
    await keepSum(path, await sumOfFile(input.out));
    await rename(input.out, path);
    return ok({ path, name });
  }
  // the next render of its brief makes a new one
  if (written.code === DAMAGED_FILM) forgetFilm(input.proof);
  // with what lies beside it
  await Promise.all([input.out, ...besideImage(input.out)].map((file) => rm(file, { force: true })));
  return written;
}
