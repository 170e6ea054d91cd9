/** A film in the browser as the picture to look at: filtered as its finish wants, developed. */
import type { Finish } from '../../../core/brief/brief';
import { FinishedFilm, MemoryClean } from '../../../core/film/clean';
import { CHANNELS, tilesOf } from '../../../core/film/film';
import type { FilmPicture } from '../../../core/film/store';
import { cleanFilm } from '../../../core/finishing/denoise/clean-film';
import type { Filter } from '../../../core/finishing/denoise/filter';
import { developTile } from '../../../core/finishing/develop';
import { Cancelled, type LearnedFilter } from './learned-filter';
import type { PreviewPicture } from './messages';

/** `learned`: the learned filter, when it is wanted; else, and when it cannot be had, our own. */
export async function developPicture(picture: FilmPicture, finish: Finish, guided: Filter, learned: LearnedFilter | null): Promise<{ rgba: ArrayBuffer; filter: PreviewPicture['filter'] }> {
  const { width, height, white } = picture;
  const pixels = new Uint8Array(width * height * 4);
  const seen: Finish = { ...finish, background: { kind: 'own' } };
  const tiles = tilesOf(width, height);
  let { film } = picture;
  let filter: PreviewPicture['filter'] = 'none';
  if (finish.denoise > 0) {
    const clean = new MemoryClean();
    const by = async (which: Filter) => cleanFilm(picture, which, clean, () => {}, false);
    filter = 'guided';
    if (learned && learned.fault === null) {
      filter = await by(learned).then(
        () => 'learned' as const,
        (error: unknown) => {
          if (error instanceof Cancelled) throw error;
          return 'guided' as const;
        }
      );
    }
    if (filter === 'guided') await by(guided);
    film = new FinishedFilm(film, clean, finish.denoise, tiles);
  }
  for (const tile of tiles) {
    const state = film.state(tile.index);
    if (!state) continue;
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    developTile(data, tile.width, tile.height, state.samples, white, seen, pixels, (tile.y * width + tile.x) * 4, width * 4);
  }
  return { rgba: pixels.buffer, filter };
}
