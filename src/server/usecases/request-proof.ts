/**
 * Puts a render of a picture's brief into the queue, unless a proof that shows it is there or under way. An unfinished
 * proof of the same brief is continued. Where the film is there and only the finish differs, the film is shared and
 * nothing is rendered.
 */
import type { ProofDto } from '../../contracts/dto';
import { type Brief, canonicalJson, developKey, type Patch } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { trySaving } from '../../core/forecast/costs';
import { filmDiskBytes } from '../../core/forecast/forecast';
import { proofPixels } from '../../core/output/size';
import { config } from '../config';
import { freeBytes } from '../files/free-bytes';
import { shareFilm } from '../files/proof-files';
import { filmKey } from '../render/film-key';
import { probeKey } from '../render/probe-key';
import { sqliteQueue as queue } from '../store/job-queue';
import { database } from '../store/database';
import { findCosts, findProbe } from '../store/forecasts';
import { briefAt, findPicture } from '../store/pictures';
import { latestRevision } from '../store/projects';
import { copyFilmFacts, findProof, insertProof, listByKey, nextNumber, type ProofRow } from '../store/proofs';
import { type Result, ok, refused } from '../../core/result/result';
import { newId } from './identify';
import { missingImage } from './sent-brief';
import { continueProof } from './stop-proof';
import { proofDto } from './to-dto';

const gone = () => refused('this picture is no longer there; reload the page', 'gone');
const gigabytes = (bytes: number) => `${(bytes / 1e9).toFixed(1)} GB`;

/**
 * With a patch, of that rectangle alone, at the full size; with a `saving` that was measured on the brief, as it would
 * be with that.
 */
export function requestProof(pictureId: string, patch: Patch | null = null, saving: unknown = null): Result<ProofDto> {
  return database()
    .transaction((): Result<ProofDto> => {
      const picture = findPicture(pictureId);
      const revision = picture && latestRevision(picture.project_id);
      if (!picture || !revision) return gone();
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
      return requestProofOf(pictureId, patch ? { ...whole, patch, quality: { ...whole.quality, scale: 1 } } : whole);
    })
    .immediate();
}

/** A proof of another's film with the finish that its picture has by now; nothing is rendered while that film is there. */
export function finishProofOf(pictureId: string, proofId: string): Result<ProofDto> {
  const picture = findPicture(pictureId);
  const proof = findProof(proofId);
  if (!picture || !proof || proof.picture_id !== picture.id) return gone();
  const own = readBrief(proof.brief_json);
  const revision = latestRevision(picture.project_id);
  if (!revision || filmKey(revision.glb_sha256, own) !== proof.key_sha256)
    return refused(
      'the model or the renderer has changed since this proof; hand its files over, or render the picture again',
      'outdated'
    );
  const { finish } = readBrief(briefAt(picture.id, picture.step)!);
  return requestProofOf(pictureId, { ...own, finish });
}

/** Puts a render of this brief, which need not be the one that the picture has now, into the queue. */
export function requestProofOf(pictureId: string, brief: Brief): Result<ProofDto> {
  return database()
    .transaction((): Result<ProofDto> => {
      const picture = findPicture(pictureId);
      const revision = picture && latestRevision(picture.project_id);
      if (!picture || !revision) return gone();
      const missing = missingImage(brief);
      if (missing) return missing;
      const key = filmKey(revision.glb_sha256, brief);
      const ofThisFilm = listByKey(picture.id, key);
      const finish = developKey(brief.finish);
      const same = ofThisFilm.find(
        (p) =>
          (p.state === 'open' && !hasFailed(p)) ||
          (p.state === 'done' && developKey(readBrief(p.brief_json).finish) === finish)
      );
      if (same) return ok(proofDto(same));
      const unfinished = ofThisFilm.find(
        (p) => p.state === 'kept' && developKey(readBrief(p.brief_json).finish) === finish
      );
      if (unfinished) {
        const continued = continueProof(unfinished.id);
        return continued.ok ? ok(proofDto(findProof(unfinished.id)!)) : continued;
      }
      const { width, height } = proofPixels(brief);
      const finished = ofThisFilm.filter((p) => p.state === 'done');
      const source = finished.find((p) => p.denoise_share === 1) ?? finished[0];
      const needs = source
        ? 0
        : filmDiskBytes(
            width * height,
            findProbe(probeKey(revision.glb_sha256, brief))?.layers ?? 0,
            brief.finish.denoise > 0
          );
      const free = freeBytes();
      if (needs > free - config.spareBytes)
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
      const kind = source ? 'finish' : brief.patch ? 'patch' : 'render';
      queue.enqueue({ id: newId(), kind, project: picture.project_id, proof: id, now: Date.now() });
      return ok(proofDto(findProof(id)!));
    })
    .immediate();
}

const hasFailed = ({ id }: ProofRow): boolean => queue.ofProof(id)?.state.name === 'failed';
