/** Where a proof's files lie: its film with state, and the picture of it so far. */
import { copyFileSync, existsSync, linkSync, mkdirSync } from 'node:fs';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type FilmLayers, NO_LAYERS } from '../../core/film/film';
import { config } from '../config';
import { sumPath } from './checksum';

/** Long sides of the pictures for the screen. */
export const SCREEN_PX = 1800;
export const THUMBNAIL_PX = 320;

const ID = /^[0-9a-zA-Z-]{6,40}$/;

export function proofFolder(id: string): string {
  if (!ID.test(id)) throw new Error(`proofFolder: expected an id, got ${JSON.stringify(id.slice(0, 80))}`);
  return join(config.dataDir, 'films', id);
}
export async function makeProofFolder(id: string): Promise<string> {
  const folder = proofFolder(id);
  await mkdir(folder, { recursive: true });
  return folder;
}
/** Path without extension, for DiskFilm. */
export const filmPath = (id: string) => join(proofFolder(id), 'film');
/** The picture for the screen: at most SCREEN_PX on its long side, refreshed while rendering. */
export const screenPath = (id: string) => join(proofFolder(id), 'screen.png');
/** The same as rendered, when screen.png is denoised. */
export const rawScreenPath = (id: string) => join(proofFolder(id), 'screen-raw.png');
/** Names of the film's layers, when it has some. */
export const layersPath = (id: string) => join(proofFolder(id), 'layers.json');
/** What the filter made of the film. */
export const denoisedPath = (id: string) => join(proofFolder(id), 'film.clean');
/** The same of its light layers, made when a lamp is dimmed for the first time. */
export const cleanLayersPath = (id: string) => join(proofFolder(id), 'layers.clean');
export const thumbnailPath = (id: string) => join(proofFolder(id), 'thumbnail.png');

/**
 * Gives a proof the finished film of another, without its bytes where the disk can share them. Nothing writes to a
 * finished film.
 */
export function shareFilm(from: string, to: string): void {
  mkdirSync(proofFolder(to), { recursive: true });
  const paths = (id: string) => [
    `${filmPath(id)}.film`,
    `${filmPath(id)}.state.json`,
    layersPath(id),
    ...[denoisedPath(id), cleanLayersPath(id)].flatMap((path) => [path, sumPath(path)])
  ];
  for (const [i, path] of paths(from).entries()) {
    if (!existsSync(path)) continue;
    try {
      linkSync(path, paths(to)[i]!);
    } catch {
      copyFileSync(path, paths(to)[i]!);
    }
  }
}

/** Earlier films say the names of their light groups only. */
export async function readLayers(proof: string): Promise<FilmLayers> {
  const text = await readFile(layersPath(proof), 'utf8').catch(() => null);
  if (text === null) return NO_LAYERS;
  const kept = JSON.parse(text) as string[] | FilmLayers;
  return Array.isArray(kept) ? { groups: kept, aovs: null } : kept;
}
