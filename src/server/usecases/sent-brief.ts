/** A brief that was sent for a project's newest model, checked; refused when it cannot be rendered as it stands. */
import { parseBrief } from '../../contracts/brief';
import type { Brief } from '../../core/brief/brief';
import { findCaptured, latestRevision, type RevisionRow } from '../store/projects';
import { done, type Outcome, refused } from './identify';

export function sentBrief(projectId: string, input: unknown): Outcome<{ revision: RevisionRow; brief: Brief }> {
  const revision = latestRevision(projectId);
  if (!revision) return refused('this project is no longer there; reload the page', 'gone');
  const parsed = parseBrief(input);
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  return missingImage(parsed.value) ?? done({ revision, brief: parsed.value });
}

/** A refusal when its surroundings are a captured image that is not there. */
export const missingImage = ({ surroundings }: Brief) => (surroundings.kind === 'captured' && !findCaptured(surroundings.file) ? refused<never>('choose a captured image for the surroundings, or another kind of surroundings') : null);
