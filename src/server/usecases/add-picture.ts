/** A further picture of a project, beginning as a copy of another. */
import type { PictureDto } from '../../contracts/dto';
import { database } from '../store/database';
import { briefAt, findPicture, insertPicture, listPictures } from '../store/pictures';
import { type Result, ok, refused } from '../../core/result/result';
import { newId } from './identify';
import { pictureDto } from './to-dto';

export function addPicture(fromPictureId: string): Result<PictureDto> {
  return database()
    .transaction((): Result<PictureDto> => {
      const from = findPicture(fromPictureId);
      if (!from) return refused('this picture is no longer there; reload the page', 'gone');
      const all = listPictures(from.project_id);
      const names = new Set(all.map((p) => p.name));
      let n = 2;
      while (names.has(`${from.name}, ${n}`)) n++;
      const id = newId();
      insertPicture(
        {
          id,
          project_id: from.project_id,
          position: (all.at(-1)?.position ?? -1) + 1,
          name: `${from.name}, ${n}`,
          step: 0,
          created_at_ms: Date.now()
        },
        briefAt(from.id, from.step)!
      );
      return ok(pictureDto(findPicture(id)!));
    })
    .immediate();
}
