/** The film of a proof on disk with what a filter made of it, to be developed. */
import type { Cleaned } from '../../core/film/finished-light';
import { type FilmLayers, layerCount, tilesOf } from '../../core/film/film';
import { DenoisedFile } from '../files/denoised-file';
import { DiskFilm, refuseDamaged } from '../files/film-store';
import { cleanLayersPath, denoisedPath, filmPath, readLayers } from '../files/proof-files';

/** `hash`: of its film; null while it is rendered. `denoised`: whether its denoised film is wanted. */
export async function openFinishedFilm(
  proof: string,
  hash: string | null,
  width: number,
  height: number,
  denoised: boolean
): Promise<{ film: DiskFilm; layers: FilmLayers; cleaned: Cleaned }> {
  const tiles = tilesOf(width, height);
  const layers = await readLayers(proof);
  const film = await DiskFilm.openToRead(filmPath(proof), tiles.length, layerCount(layers));
  await refuseDamaged(film, hash, width, height, tiles);
  return { film, layers, cleaned: denoised ? await openCleaned(proof, layers) : { picture: null, layers: null } };
}

/** What the filter made of a film; layers only once a lamp was dimmed. */
export async function openCleaned(proof: string, { groups }: FilmLayers) {
  const picture = await DenoisedFile.open(denoisedPath(proof));
  const layers = picture && groups.length > 0 ? await DenoisedFile.open(cleanLayersPath(proof), groups.length) : null;
  return { picture, layers };
}
