/** A film in the browser as the picture to look at: filtered as its finish wants, developed. */
import type { Finish } from '../../../core/brief/brief';
import { FinishedFilm, MemoryClean } from '../../../core/film/clean';
import { CHANNELS, tilesOf } from '../../../core/film/film';
import type { FilmPicture } from '../../../core/film/store';
import { cleanFilm } from '../../../core/finishing/denoise/clean-film';
import { guidedFilter } from '../../../core/finishing/denoise/guided';
import { developTile } from '../../../core/finishing/develop';
import type { PreviewPicture } from './messages';

export async function developPicture(picture: FilmPicture, finish: Finish, wanted: 'guided' | 'learned'): Promise<{ rgba: ArrayBuffer; filter: PreviewPicture['filter'] }> {
  const { width, height, white } = picture;
  const pixels = new Uint8Array(width * height * 4);
  const seen: Finish = { ...finish, background: { kind: 'own' } };
  const tiles = tilesOf(width, height);
  let { film } = picture;
  const filter = finish.denoise > 0 ? wanted : 'none';
  if (filter !== 'none') {
    const clean = new MemoryClean();
    await cleanFilm(picture, guidedFilter, clean, () => {}, false);
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
