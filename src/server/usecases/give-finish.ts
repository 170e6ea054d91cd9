/** The finish of one picture for all others of its project, so that a set matches. Each is a step that can be undone. */
import { canonicalJson } from '../../core/brief/brief';
import { readBrief } from '../../core/brief/read-brief';
import { type Result, ok, refused } from '../../core/result/result';
import { database } from '../store/database';
import { briefAt, findPicture, listPictures, pushBrief } from '../store/pictures';

/** What lies behind each stays, and whether it is denoised while it renders. Tells how many pictures have it newly. */
export function giveFinish(pictureId: string): Result<{ pictures: number }> {
  return database()
    .transaction((): Result<{ pictures: number }> => {
      const from = findPicture(pictureId);
      if (!from) return refused('this picture is no longer there; reload the page', 'gone');
      const { finish } = readBrief(briefAt(from.id, from.step)!);
      let pictures = 0;
      for (const picture of listPictures(from.project_id)) {
        if (picture.id === from.id) continue;
        const there = briefAt(picture.id, picture.step)!;
        const brief = readBrief(there);
        const { background, denoise_meanwhile } = brief.finish;
        const json = canonicalJson({ ...brief, finish: { ...finish, background, denoise_meanwhile } });
        if (json === there) continue;
        pushBrief(picture, json, Date.now());
        pictures++;
      }
      return ok({ pictures });
    })
    .immediate();
}
