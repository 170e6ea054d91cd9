/** A small picture of a picture without a proof: rendered when it is first asked for, once for each state of its brief. */
import { createHash } from 'node:crypto';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { canonicalJson } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { thumbnailBrief } from '../../core/brief/thumbnail-brief';
import { isWhole, keepSum, sumOf } from '../files/checksum';
import { previewPath, THUMBNAIL } from '../files/previews';
import { runTask } from '../jobs/run-task';
import { briefAt, findPicture } from '../store/pictures';
import { latestRevision } from '../store/projects';
import { attendJob } from './attend-job';
import { missingImage } from './sent-brief';
import { underWay } from './under-way';

/** Path of the PNG; null when the picture is gone or cannot be rendered as it stands. */
export async function pictureThumbnail(id: string): Promise<string | null> {
  const picture = findPicture(id);
  const text = picture && briefAt(picture.id, picture.step);
  const model = picture && latestRevision(picture.project_id)?.glb_sha256;
  if (!picture || !text || !model) return null;
  const brief = thumbnailBrief(readBrief(text));
  if (missingImage(brief)) return null;
  const key = createHash('sha256').update(canonicalJson({ model, brief })).digest('hex').slice(0, 24);
  const path = previewPath(`${THUMBNAIL}${key}`);
  return underWay('thumbnail', path, async () => {
    if (await isWhole(path)) return path;
    const made = await attendJob('preview', picture.project_id, () => runTask('crop', { model, brief }));
    if (!made.ok) return null;
    await mkdir(dirname(path), { recursive: true });
    const part = `${path}.${process.pid}.part`;
    await writeFile(part, made.value.png);
    await rename(part, path);
    await keepSum(path, sumOf(made.value.png));
    return path;
  });
}
