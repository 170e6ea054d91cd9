/** A file of a proof to hand over. Encoded in a process of its own, kept beside the film, so that it is made once. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { access, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { canonicalJson, type Finish } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { sizeLabel } from '../../core/brief/sentence';
import type { FileKind } from '../../core/catalogue/file-kinds';
import { bleedPixels, type SheetShare, shareOfSheet } from '../../core/output/size';
import { fileName } from '../../core/output/file-name';
import { besideImage } from '../../formats/image/encode';
import { config } from '../config';
import { proofFolder } from '../files/proof-files';
import { proofPpi } from '../render/prepare';
import { findPicture } from '../store/pictures';
import { findProject } from '../store/projects';
import { findProof } from '../store/proofs';
import { done, type Outcome, refused } from './identify';

export interface DeliverJob {
  proof: string;
  kind: FileKind;
  finish: Finish;
  within: SheetShare;
  width: number;
  height: number;
  ev100: number;
  ppi: number | null;
  /** Px that reach beyond the trim, when crop marks are wanted round them. */
  marks: number | null;
  out: string;
}

/** `asRendered` leaves the grain in, as EXR always does: it holds the film. */
export async function deliverProof(
  id: string,
  kind: FileKind,
  background: 'own' | 'clear',
  asRendered: boolean,
  cropMarks = false
): Promise<Outcome<{ path: string; name: string }>> {
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
    denoise: asRendered || kind === 'exr' || proof.clean_share !== 1 ? 0 : brief.finish.denoise,
    background:
      background === 'clear'
        ? { kind: 'clear' }
        : brief.finish.background.kind === 'clear'
          ? { kind: 'own' }
          : brief.finish.background
  };
  const ppi = proofPpi(brief);
  const name = fileName(findProject(picture.project_id)!.name, picture.name, sizeLabel(brief.size), kind);
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
  if (
    await access(path).then(
      () => true,
      () => false
    )
  )
    return done({ path, name });
  const job: DeliverJob = {
    proof: id,
    kind,
    finish,
    within: shareOfSheet(brief),
    width: proof.width_px,
    height: proof.height_px,
    ev100: proof.ev100,
    ppi,
    marks,
    out: `${path}.${process.pid}.part`
  };
  const said = await new Promise<string>((resolve) => {
    const child = spawn(process.execPath, [config.built('deliver-worker.mjs'), JSON.stringify(job)], {
      cwd: config.root,
      stdio: ['ignore', 'ignore', 'pipe'],
      env: { ...config.childEnvironment, SPHAERA_DATA: config.dataDir }
    });
    let text = '';
    child.stderr.on('data', (chunk: Buffer) => {
      text = (text + chunk.toString()).slice(-2000);
    });
    child.on('exit', (code) => resolve(code === 0 ? '' : text || `code ${code}`));
    child.on('error', (error) => resolve(error.message));
  });
  if (said) {
    // with what lay beside it
    await Promise.all([job.out, ...besideImage(job.out)].map((file) => rm(file, { force: true })));
    return refused(
      `the file could not be written: ${said.split('\n').find((l) => /Error/.test(l)) ?? 'unknown reason'}`,
      'fault'
    );
  }
  await rename(job.out, path);
  return done({ path, name });
}
