/** What a screen shows of a proof's film, for its finish to be adjusted; made once and kept for a while. */
import { createHash } from 'node:crypto';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { MaskName } from '../../core/film/masks';
import { whiteLuminance } from '../../core/brief/exposure';
import { type Result, ok, refused } from '../../core/result/result';
import { isWhole, keepSum, sumOfFile } from '../files/checksum';
import { DAMAGED_FILM } from '../files/film-store';
import { cleanLayersPath, proofFolder, readLayers } from '../files/proof-files';
import { runTask } from '../jobs/run-task';
import { cleanLayers } from '../render/clean-layers';
import { findPicture } from '../store/pictures';
import { findProof, forgetFilm, type ProofRow } from '../store/proofs';
import { attendJob } from './attend-job';
import { newId } from './identify';
import { underWay } from './under-way';

export interface StageAsked {
  /** How much of the filter the light layers are to show, 0 to 1. */
  denoise: number;
  /** Whose coverage it is to have. */
  masks: readonly MaskName[];
  /** Waits until the light layers are denoised; else they come as they are. */
  settled: boolean;
}

export async function stageFilm(id: string, { denoise, masks, settled }: StageAsked): Promise<Result<string>> {
  const proof = findProof(id);
  const picture = proof && findPicture(proof.picture_id);
  if (!proof || !picture) return refused('this proof is no longer there; reload the page', 'gone');
  if (proof.ev100 === null || (proof.state !== 'done' && proof.state !== 'kept'))
    return refused('the film of this proof is not complete yet; wait until it has ended, or stop it', 'too_early');
  const denoised = proof.denoise_share === 1;
  const clean = settled && denoised && denoise > 0 ? await readyLayers(proof, picture.project_id) : ok(null);
  if (!clean.ok) return clean;
  const layersClean = await isWhole(cleanLayersPath(id));
  const stamp = createHash('sha256')
    .update(JSON.stringify([proof.film_sha256, proof.picture_count, denoised, denoise, masks, layersClean]))
    .digest('hex')
    .slice(0, 16);
  const path = join(proofFolder(id), `stage-${stamp}.film`);
  return underWay('stage film', path, () =>
    attendJob('deliver', picture.project_id, async (): Promise<Result<string>> => {
      if (await isWhole(path)) return ok(path);
      const out = `${path}.${newId()}.part`;
      const made = await runTask('stage', {
        proof: id,
        film: proof.film_sha256,
        width: proof.width_px,
        height: proof.height_px,
        ev100: proof.ev100!,
        denoise,
        masks,
        denoised,
        out
      });
      if (made.ok) {
        await keepSum(path, await sumOfFile(out));
        await rename(out, path);
        return ok(path);
      }
      // the next render of its brief makes a new one
      if (made.code === DAMAGED_FILM) forgetFilm(id);
      await rm(out, { force: true });
      return made;
    })
  );
}

/** Denoises the light layers of a proof, unless they are or there are none. */
export async function readyLayers(proof: ProofRow, project: string): Promise<Result<null>> {
  const { id, width_px: width, height_px: height, ev100 } = proof;
  if ((await readLayers(id)).groups.length === 0) return ok(null);
  const white = whiteLuminance(ev100!);
  return underWay('light layers', id, () =>
    attendJob('deliver', project, () => cleanLayers({ proof: id, width, height, white }))
  );
}
