/** Saves the viewpoint of the stage under a name, for all pictures of the project. */
import { parseBrief } from '../../contracts/brief';
import { findProject, insertViewpoint, listViewpoints } from '../store/projects';
import { type Result, ok, refused } from '../../core/result/result';
import { newId } from './identify';

export function saveViewpoint(projectId: string, name: string, viewpoint: unknown): Result<{ id: string }> {
  if (!findProject(projectId)) return refused('this project is no longer there; reload the page', 'gone');
  const plain = name.trim().slice(0, 80);
  if (!plain) return refused('give the viewpoint a name');
  if (listViewpoints(projectId).some((v) => v.name === plain))
    return refused(`there is a viewpoint "${plain}" already; choose another name`);
  const parsed = parseBrief({ version: 1, viewpoint });
  if (!parsed.ok) return refused(parsed.message, 'bad_brief');
  const id = newId();
  insertViewpoint({
    id,
    project_id: projectId,
    name: plain,
    viewpoint_json: JSON.stringify(parsed.value.viewpoint),
    created_at_ms: Date.now()
  });
  return ok({ id });
}
