/** A brief that was sent for a project's newest model, checked; refused when it cannot be rendered as it stands. */
import { parseBrief } from '../../contracts/brief';
import type { Brief } from '../../core/brief/brief';
import { findBackdrop } from '../store/backdrops';
import { findCaptured, latestRevision, type RevisionRow } from '../store/projects';
import { type Result, ok, refused } from '../../core/result/result';

export function sentBrief(projectId: string, input: unknown): Result<{ revision: RevisionRow; brief: Brief }> {
  const revision = latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const parsed = parseBrief(input);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  return missingImage(parsed.value) ?? ok({ revision, brief: parsed.value });
}

/** A refusal when its surroundings are a captured image that is not there, or its background a picture that is not. */
export function missingImage({ surroundings, finish: { background } }: Pick<Brief, 'surroundings' | 'finish'>) {
  if (surroundings.kind === 'captured' && !findCaptured(surroundings.file))
    return refused('choose a captured image for the surroundings, or another kind of surroundings');
  if (background.kind === 'picture' && !findBackdrop(background.file))
    return refused('choose a picture to stand behind the model, or another background');
  return null;
}
