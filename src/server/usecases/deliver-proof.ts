/** A file of a proof to hand over. A task encodes it once; it is stored beside the film. */
import { createHash } from 'node:crypto';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { canonicalJson, developKey, type Finish } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { QUALITY_STEPS } from '../../core/catalogue/quality';
import {
  FILE_KIND_NAMES,
  type FileOptions,
  hasQuality,
  holds16Bits,
  holdsClear,
  holdsColours,
  isLinear,
  QUALITY_DEFAULT
} from '../../core/catalogue/file-kinds';
import { layerGains } from '../../core/film/dimmers';
import { bleedPixels, proofPpi, shareOfSheet } from '../../core/output/size';
import { fileName, unusedName } from '../../core/output/file-name';
import { zipOf } from '../../formats/write-zip';
import { besideImage } from '../../formats/image/encode';
import { runTask } from '../jobs/run-task';
import type { TaskInput } from '../jobs/tasks';
import { isContentHash } from '../files/content-store';
import { isWhole, keepSum, sumOfFile } from '../files/checksum';
import { DAMAGED_FILM } from '../files/film-store';
import { proofFolder, readLayers } from '../files/proof-files';
import { briefAt, findPicture, listPictures } from '../store/pictures';
import { findPressProfile } from '../store/press-profiles';
import { findProject } from '../store/projects';
import { findProof, forgetFilm, newestWhole } from '../store/proofs';
import { attendJob } from './attend-job';
import { newId } from './identify';
import { readyLayers } from './stage-film';
import { type Asker, type Making, underWay } from './under-way';
import { type Result, ok, refused } from '../../core/result/result';

/** What is asked of a file beside how it is encoded. */
export interface Delivery extends Omit<FileOptions, 'about'> {
  background: 'own' | 'clear';
  /** As the proof is finished, as its picture is by now, or as is said. */
  finish: 'proof' | 'picture' | Finish;
  /** Leaves the grain in, as linear files always do: they hold the film. */
  asRendered: boolean;
  cropMarks: boolean;
  /** What the file says about its picture; null: nothing. */
  about: { author: string; withBrief: boolean } | null;
  /** Of its name; empty for the usual one. */
  pattern: string;
}

/** The colours of a file, when its format holds them and the profile of its press is there. */
function colorsOf({ kind, colors, press, background }: Delivery): Result<Pick<FileOptions, 'colors' | 'press'>> {
  if (!holdsColours(kind, colors))
    return refused(
      `${FILE_KIND_NAMES[kind]} does not hold ${colors === 'p3' ? 'Display P3' : 'the inks of a press'}; take ` +
        (colors === 'p3' ? 'PNG or TIFF' : 'TIFF or PDF'),
      'bad_input'
    );
  if (colors !== 'press') return ok({ colors, press: null });
  if (background === 'clear') return refused('inks have no clear background; take sRGB for it', 'bad_input');
  if (press === null || !isContentHash(press) || !findPressProfile(press))
    return refused('choose the profile of the press, or bring it in', 'bad_input');
  return ok({ colors, press });
}

/** `asker` hears what share of the file is written, and may go before its end. */
export async function deliverProof(
  id: string,
  asked: Delivery,
  asker: Asker<number> = {}
): Promise<Result<{ path: string; name: string }>> {
  const { kind, background, asRendered } = asked;
  const proof = findProof(id);
  const picture = proof && findPicture(proof.picture_id);
  if (!proof || !picture) return refused('this proof is no longer there; reload the page', 'gone');
  if (proof.ev100 === null || proof.picture_count === 0)
    return refused('there is no picture of this proof yet; wait for its first tiles');
  if (!holdsClear(kind) && background === 'clear')
    return refused(`${FILE_KIND_NAMES[kind]} cannot hold a clear background; take PNG, TIFF or EXR`);
  const colors = colorsOf(asked);
  if (!colors.ok) return colors;
  const brief = readBrief(proof.brief_json);
  const linear = isLinear(kind);
  const bleedPx = brief.patch === null ? bleedPixels(brief) : 0;
  const marks = asked.cropMarks && !linear && brief.patch === null;
  const chosen =
    asked.finish === 'proof'
      ? brief.finish
      : asked.finish === 'picture'
        ? readBrief(briefAt(picture.id, picture.step)!).finish
        : asked.finish;
  const finish: Finish = {
    ...chosen,
    denoise: asRendered || linear || proof.denoise_share !== 1 ? 0 : chosen.denoise,
    background:
      background === 'clear'
        ? { kind: 'clear' }
        : chosen.background.kind === 'clear'
          ? { kind: 'own' }
          : chosen.background
  };
  const isRefinished = !linear && developKey(chosen) !== developKey(brief.finish);
  const ppi = proofPpi(brief);
  const project = findProject(picture.project_id)!.name;
  // inks are of 8 bits
  const bits = holds16Bits(kind) && colors.value.colors !== 'press' ? asked.bits : 8;
  const long = Math.max(proof.width_px, proof.height_px);
  if (!linear && asked.long_px !== null && asked.long_px > long)
    return refused(
      `this film is ${proof.width_px} × ${proof.height_px} px; ${asked.long_px} px would be made up. ` +
        `Render the picture at a larger size or quality`
    );
  const scale = linear || asked.long_px === null ? 1 : asked.long_px / long;
  const file: FileOptions = {
    long_px: scale === 1 ? null : asked.long_px,
    half: kind === 'exr' && asked.half,
    pictureOnly: kind === 'exr' && asked.pictureOnly,
    kind,
    bits,
    ...colors.value,
    quality: hasQuality(kind) ? asked.quality : QUALITY_DEFAULT,
    about: asked.about && {
      title: `${picture.name}, ${project}`,
      author: asked.about.author,
      date: new Date(proof.ended_at_ms ?? proof.created_at_ms).toISOString(),
      brief: asked.about.withBrief ? proof.brief_json : null
    }
  };
  const variants = [
    brief.patch ? 'patch' : '',
    background === 'clear' && !linear ? 'transparent' : '',
    asRendered && !linear && proof.denoise_share === 1 ? 'before denoising' : '',
    marks ? 'crop marks' : '',
    isRefinished ? 'finished' : '',
    bits === 16 ? '16 bit' : '',
    file.half ? 'half' : '',
    file.colors === 'p3' ? 'Display P3' : file.colors === 'press' ? 'CMYK' : ''
  ];
  const name = fileName(
    {
      project,
      picture: picture.name,
      proof: proof.number,
      quality: QUALITY_STEPS[brief.quality.step].name,
      width_px: Math.max(1, Math.round(proof.width_px * scale)),
      height_px: Math.max(1, Math.round(proof.height_px * scale)),
      variant: variants.filter(Boolean).join(' '),
      extension: kind
    },
    asked.pattern
  );
  const stamp = createHash('sha256')
    .update(canonicalJson({ file, finish, film: proof.film_sha256, count: proof.picture_count, marks }))
    .digest('hex')
    .slice(0, 16);
  const path = join(proofFolder(id), `delivery-${stamp}.${kind}`);
  const input: TaskInput<'deliver'> = {
    proof: id,
    film: proof.film_sha256,
    file,
    finish,
    within: shareOfSheet(brief),
    width: proof.width_px,
    height: proof.height_px,
    ev100: proof.ev100,
    ppi,
    bleedPx,
    marks,
    out: `${path}.${newId()}.part`
  };
  // a layered file has each light alone
  const dimmed = kind === 'ora' || layerGains(finish.lamps, (await readLayers(id)).groups).length > 0;
  if (dimmed && finish.denoise > 0) {
    const ready = await readyLayers(proof, picture.project_id);
    if (!ready.ok) return ready;
  }
  const inQueue = (making: Making<number>) =>
    attendJob('deliver', picture.project_id, () => write(input, path, name, making));
  return underWay('delivery', path, inQueue, asker);
}

async function write(
  input: TaskInput<'deliver'>,
  path: string,
  name: string,
  { report, signal }: Making<number>
): Promise<Result<{ path: string; name: string }>> {
  if (await isWhole(path)) return ok({ path, name });
  const written = await runTask('deliver', input, { onProgress: report, signal });
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

/** The newest finished proof of each picture of a project, in the order of the pictures; no patches. */
export function proofsOfSet(projectId: string): Result<string[]> {
  const proofs = listPictures(projectId).flatMap(({ id }) => newestWhole(id)?.id ?? []);
  return proofs.length > 0
    ? ok(proofs)
    : refused('no picture of this project has a finished proof yet; render one first');
}

/** All of them in one ZIP. */
export async function deliverSet(projectId: string, asked: Delivery): Promise<Result<ReadableStream<Uint8Array>>> {
  const proofs = proofsOfSet(projectId);
  if (!proofs.ok) return proofs;
  const files: { path: string; name: string }[] = [];
  const taken = new Set<string>();
  for (const proof of proofs.value) {
    const file = await deliverProof(proof, asked);
    if (!file.ok) return file;
    const name = unusedName(file.value.name, taken);
    taken.add(name);
    files.push({ path: file.value.path, name });
  }
  return ok(zipOf(files));
}
