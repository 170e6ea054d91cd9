/** Moves a picture one place up or down among those of its project. */
import { type Result, ok, refused } from '../../core/result/result';
import { database } from '../store/database';
import { findPicture, listPictures, orderPictures } from '../store/pictures';

/** At either end it stays where it is. */
export function movePicture(id: string, by: -1 | 1): Result<{ order: string[] }> {
  return database()
    .transaction((): Result<{ order: string[] }> => {
      const picture = findPicture(id);
      if (!picture) return refused('this picture is no longer there; reload the page', 'gone');
      const order = listPictures(picture.project_id).map((p) => p.id);
      const from = order.indexOf(id);
      const to = Math.min(order.length - 1, Math.max(0, from + by));
      order.splice(to, 0, ...order.splice(from, 1));
      orderPictures(order);
      return ok({ order });
    })
    .immediate();
}
