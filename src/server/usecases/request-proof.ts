/**
 * Puts a render of a picture's brief into the queue, unless this very picture is there or under way already. Where the
 * film is there and only the finish differs, the film is shared and nothing is rendered.
 */
import { createHash } from 'node:crypto';
import type { ProofDto } from '../../contracts/dto';
import { canonicalJson, developKey, filmBrief, type Patch } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { trySaving } from '../../core/forecast/costs';
import { filmDiskBytes } from '../../core/forecast/forecast';
import { proofPixels } from '../../core/output/size';
import { freeBytes } from '../files/free-bytes';
import { shareFilm } from '../files/proof-files';
import { probeKey } from '../render/probe-key';
import { database } from '../store/database';
import { findCosts, findProbe } from '../store/forecasts';
import { briefAt, findPicture } from '../store/pictures';
import { latestRevision } from '../store/projects';
import {
  askStop,
  copyFilmFacts,
  dropProof,
  findProof,
  insertProof,
  listByKey,
  nextNumber,
  retryProof
} from '../store/proofs';
import { done, newId, type Outcome, refused } from './identify';
import { missingImage } from './sent-brief';
import { proofDto } from './to-dto';

/** Files to hand over, packs and the database need some room too. */
const SPARE_BYTES = 2e8;
const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(1)} GB`;

/**
 * With a patch, of that rectangle alone, at the full size; with a `saving` that was measured on the brief, as it would
 * be with that.
 */
export function requestProof(pictureId: string, patch: Patch | null = null, saving: unknown = null): Outcome<ProofDto> {
  return database()
    .transaction((): Outcome<ProofDto> => {
      const picture = findPicture(pictureId);
      const revision = picture && latestRevision(picture.project_id);
      if (!picture || !revision) return refused('this picture is no longer there; reload the page', 'gone');
      const own = readBrief(briefAt(picture.id, picture.step)!);
      const cost =
        saving === null
          ? null
          : (findCosts(probeKey(revision.glb_sha256, own))?.costs.find(
              (c) => canonicalJson(c.saving) === canonicalJson(saving)
            ) ?? null);
      if (saving !== null && !cost)
        return refused('this was measured on another state of the picture; measure again what costs time');
      const whole = cost ? trySaving(cost.saving, own) : own;
      const brief = patch ? { ...whole, patch, quality: { ...whole.quality, scale: 1 } } : whole;
      const missing = missingImage(brief);
      if (missing) return missing;
      const key = createHash('sha256')
        .update(canonicalJson({ model: revision.glb_sha256, brief: filmBrief(brief) }))
        .digest('hex');
      const ofThisFilm = listByKey(picture.id, key);
      const finish = developKey(brief.finish);
      const same = ofThisFilm.find((p) => p.state !== 'done' || developKey(readBrief(p.brief_json).finish) === finish);
      if (same) return done(proofDto(same));
      const { width, height } = proofPixels(brief);
      const source = ofThisFilm.find((p) => p.clean_share === 1) ?? ofThisFilm[0];
      const needs = source
        ? 0
        : filmDiskBytes(
            width * height,
            findProbe(probeKey(revision.glb_sha256, brief))?.layers ?? 0,
            brief.finish.denoise > 0
          );
      const free = freeBytes();
      if (needs > free - SPARE_BYTES)
        return refused(
          `a film of ${width} × ${height} px takes ${gigabytes(needs)} on disk and ${gigabytes(free)} ` +
            `are free; lower the size or the ppi, or make room`,
          'no_room'
        );
      const id = newId();
      insertProof({
        id,
        picture_id: picture.id,
        revision_id: revision.id,
        number: nextNumber(picture.id),
        brief_json: canonicalJson(brief),
        key_sha256: key,
        width_px: width,
        height_px: height,
        created_at_ms: Date.now()
      });
      if (source) {
        shareFilm(source.id, id);
        copyFilmFacts(id, source.id, brief.finish.denoise > 0);
      }
      return done(proofDto(findProof(id)!));
    })
    .immediate();
}

/** Ends a render early: keep what there is as a proof, or drop it. */
export function stopProof(id: string, how: 'keep' | 'drop'): Outcome<null> {
  const proof = findProof(id);
  if (!proof) return refused('this proof is no longer there; reload the page', 'gone');
  if (proof.state === 'waiting' || proof.state === 'running') askStop(id, how, Date.now());
  else if (how === 'drop') dropProof(id, Date.now());
  return done(null);
}

/** Goes on with a render that broke off. */
export function goOn(id: string): Outcome<null> {
  if (!findProof(id)) return refused('this proof is no longer there; reload the page', 'gone');
  retryProof(id);
  return done(null);
}
