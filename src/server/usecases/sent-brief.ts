/** A brief that was sent for a project's newest model, checked; refused when it cannot be rendered as it stands. */
import { parseBrief } from '../../contracts/brief';
import type { Brief } from '../../core/brief/brief';
import { filesOf } from '../../core/scene/surface-pictures';
import { existsSync } from 'node:fs';
import { findBackdrop } from '../store/backdrops';
import { findCaptured, latestRevision, type RevisionRow } from '../store/projects';
import { type Result, ok, refused } from '../../core/result/result';
import { tableFile } from './add-table';

export function sentBrief(projectId: string, input: unknown): Result<{ revision: RevisionRow; brief: Brief }> {
  const revision = latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const parsed = parseBrief(input);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  return missingImage(parsed.value) ?? ok({ revision, brief: parsed.value });
}

type Pictured = Pick<Brief, 'surroundings' | 'finish' | 'materials' | 'labels'>;

/** A refusal when an image of its surroundings, its background or its surfaces is not there. */
export function missingImage({ surroundings, finish: { background, table }, materials, labels }: Pictured) {
  if (surroundings.kind === 'captured' && !findCaptured(surroundings.file))
    return refused('choose a captured image for the surroundings, or another kind of surroundings');
  if (background.kind === 'picture' && !findBackdrop(background.file))
    return refused('choose a picture to stand behind the model, or another background');
  const tablePath = table && tableFile(table.file);
  if (table && !(tablePath && existsSync(tablePath)))
    return refused(`the colour table "${table.name}" is no longer there; bring it in again, or take it off`);
  for (const { material, texture } of materials)
    for (const file of texture ? filesOf(texture) : [])
      if (!findBackdrop(file))
        return refused(`a picture on the material "${material}" is no longer there; bring it in again, or take it off`);
  for (const { name, file, shown } of labels)
    if (shown && !findBackdrop(file))
      return refused(`the picture of the label "${name}" is no longer there; bring it in again, or remove the label`);
  return null;
}
