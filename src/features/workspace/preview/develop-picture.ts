/** A film in the browser as the picture to look at: filtered as its finish wants, developed. */
import type { Finish } from '../../../core/brief/brief';
import { MemoryDenoised } from '../../../core/film/denoised';
import { NO_LAYERS, tilesOf } from '../../../core/film/film';
import { FinishedLight } from '../../../core/film/finished-light';
import type { FilmPicture } from '../../../core/film/store';
import { denoiseFilm } from '../../../core/finishing/denoise/denoise-film';
import type { Filter } from '../../../core/finishing/denoise/filter';
import { createDeveloper } from '../../../core/finishing/develop';
import { encodeSrgb8 } from '../../../core/finishing/encode-rows';
import { Cancelled, type LearnedFilter } from './learned-filter';
import type { PreviewPicture } from './messages';
import { seenBackdrop } from './seen-backdrop';
import { seenTable } from './seen-table';

/** What a filter made of a film; `none` makes nothing. */
export interface Denoised {
  filter: PreviewPicture['filter'];
  denoised: MemoryDenoised | null;
}

/**
 * `learned`: the learned filter, when it is wanted; else, and when it cannot be had, our own. Throws Cancelled when a
 * filter was ended.
 */
export async function developPicture(
  picture: FilmPicture,
  finish: Finish,
  guided: Filter,
  learned: LearnedFilter | null
): Promise<Denoised & { rgba: ArrayBuffer }> {
  const denoised = await denoisePicture(picture, finish, guided, learned);
  return { ...denoised, rgba: await developDenoised(picture, finish, denoised) };
}

async function denoisePicture(
  picture: FilmPicture,
  finish: Finish,
  guided: Filter,
  learned: LearnedFilter | null
): Promise<Denoised> {
  if (finish.denoise === 0) return { filter: 'none', denoised: null };
  const denoised = new MemoryDenoised();
  const by = async (which: Filter) => denoiseFilm(picture, which, denoised, () => {}, false);
  if (learned && learned.fault === null) {
    const made = await by(learned).then(
      () => true,
      (error: unknown) => {
        if (error instanceof Cancelled) throw error;
        return false;
      }
    );
    if (made) return { filter: 'learned', denoised };
  }
  await by(guided);
  return { filter: 'guided', denoised };
}

/** The picture of a film that a filter has been over before. */
export async function developDenoised(
  picture: FilmPicture,
  finish: Finish,
  { denoised }: Denoised
): Promise<ArrayBuffer> {
  const { width, height, white } = picture;
  const linear = new Float32Array(width * height * 4);
  const seen: Finish = {
    ...finish,
    background: finish.background.kind === 'clear' ? { kind: 'own' } : finish.background
  };
  const develop = createDeveloper({
    width,
    height,
    white,
    finish: seen,
    backdrop: await seenBackdrop(seen.background, width, height),
    table: await seenTable(seen)
  });
  const light = new FinishedLight(picture.film, NO_LAYERS, finish, { picture: denoised, layers: null });
  for (const tile of tilesOf(width, height)) {
    const of = await light.read(tile);
    if (of) develop({ ...tile, light: of }, linear);
  }
  const pixels = new Uint8Array(width * height * 4);
  encodeSrgb8(linear, width, 0, pixels);
  return pixels.buffer;
}
