/** A further project with the same model, pictures, viewpoints and cues, to work on apart. Proofs stay with the first. */
import { ok, refused, type Result } from '../../core/result/result';
import { database } from '../store/database';
import { insertKept, listKept } from '../store/kept';
import { insertFurtherModel, insertOriginal, listFurtherModels, listOriginals } from '../store/model-files';
import { briefAt, insertPicture, listPictures } from '../store/pictures';
import {
  findProject,
  insertProject,
  insertRevision,
  insertViewpoint,
  isProjectName,
  latestRevision,
  listViewpoints
} from '../store/projects';
import { newId } from './identify';

export function duplicateProject(id: string, now = Date.now()): Result<{ project: string }> {
  return database()
    .transaction((): Result<{ project: string }> => {
      const from = findProject(id);
      const revision = from && latestRevision(from.id);
      if (!from || !revision) return refused('this project is no longer there; reload the page', 'gone');
      let n = 2;
      while (isProjectName(`${from.name}, ${n}`)) n++;
      const project = newId();
      insertProject({ ...from, id: project, name: `${from.name}, ${n}`, created_at_ms: now });
      const copy = newId();
      insertRevision({ ...revision, id: copy, project_id: project, created_at_ms: now });
      for (const original of listOriginals(revision.id)) insertOriginal(copy, original);
      for (const model of listFurtherModels(id)) insertFurtherModel({ ...model, project_id: project });
      listPictures(id).forEach((picture, position) => {
        const { name, step } = picture;
        insertPicture(
          { id: newId(), project_id: project, position, name, step: 0, created_at_ms: now },
          briefAt(picture.id, step)!
        );
      });
      for (const viewpoint of listViewpoints(id)) insertViewpoint({ ...viewpoint, id: newId(), project_id: project });
      for (const part of listKept(id))
        if (part.project_id === id) insertKept({ ...part, id: newId(), project_id: project });
      return ok({ project });
    })
    .immediate();
}
