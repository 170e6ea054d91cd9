/** The masks of a proof in one ZIP: flat colours of parts and materials, and the coverage of each. */
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { fileName } from '../../core/output/file-name';
import { QUALITY_STEPS } from '../../core/catalogue/quality';
import { readBrief } from '../../core/brief/read-brief';
import { type Result, ok, refused } from '../../core/result/result';
import { zipOf } from '../../formats/write-zip';
import { DAMAGED_FILM } from '../files/film-store';
import { proofFolder, readLayers } from '../files/proof-files';
import { runTask } from '../jobs/run-task';
import { findPicture } from '../store/pictures';
import { findProject } from '../store/projects';
import { findProof, forgetFilm } from '../store/proofs';
import { attendJob } from './attend-job';
import { newId } from './identify';

export async function deliverMasks(id: string): Promise<Result<{ name: string; zip: ReadableStream<Uint8Array> }>> {
  const proof = findProof(id);
  const picture = proof && findPicture(proof.picture_id);
  if (!proof || !picture) return refused('this proof is no longer there; reload the page', 'gone');
  if (proof.state !== 'done' && proof.state !== 'kept')
    return refused('the film of this proof is not complete yet; wait until it has ended, or stop it', 'too_early');
  if ((await readLayers(id)).aovs === null)
    return refused(
      'this film keeps no masks; switch on masks, depth and light passes in the quality panel and render again'
    );
  const out = join(proofFolder(id), `delivery-masks-${newId()}.part`);
  const { width_px: width, height_px: height, film_sha256: film } = proof;
  const made = await attendJob('deliver', picture.project_id, () =>
    runTask('masks', { proof: id, film, width, height, out })
  );
  if (!made.ok) {
    if (made.code === DAMAGED_FILM) forgetFilm(id);
    await rm(out, { recursive: true, force: true });
    return made;
  }
  const brief = readBrief(proof.brief_json);
  const name = fileName(
    {
      project: findProject(picture.project_id)!.name,
      picture: picture.name,
      proof: proof.number,
      quality: QUALITY_STEPS[brief.quality.step].name,
      width_px: width,
      height_px: height,
      variant: 'masks',
      extension: 'zip'
    },
    ''
  );
  const files = made.value.map((entry, i) => ({ path: join(out, `delivery-${i}`), name: entry }));
  return ok({ name, zip: thenRemove(zipOf(files), out) });
}

/** Passes a stream on and removes a folder when it has ended, however it did. */
function thenRemove(stream: ReadableStream<Uint8Array>, folder: string): ReadableStream<Uint8Array> {
  const reader = stream.getReader();
  const clear = () => rm(folder, { recursive: true, force: true });
  return new ReadableStream<Uint8Array>({
    async pull(controller) {
      try {
        const { done, value } = await reader.read();
        if (!done) return controller.enqueue(value);
        controller.close();
      } catch (error) {
        controller.error(error);
      }
      await clear();
    },
    async cancel(reason) {
      await reader.cancel(reason);
      await clear();
    }
  });
}
