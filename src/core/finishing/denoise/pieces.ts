/** Cuts an image into pieces for the filter: cores that are whole film tiles and a halo around, so memory stays bounded at any size. */
import { TILE_PX } from '../../film/film';
import { ALIGN_PX, HALO_PX } from './filter';

export interface Piece {
  /** What the filter is fed: may reach beyond the image on the right and below, where it is mirrored. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** What is kept of it. */
  core: { x: number; y: number; width: number; height: number };
}

// About 1.2 megapixels with the halo: 2.2 GB in the runtime, and a fifth to a half more work than the whole at once.
const CORE_TILES = 14;

export function piecesOf(width: number, height: number, coreTiles = CORE_TILES): Piece[] {
  const columns = cut(width, coreTiles);
  return cut(height, coreTiles).flatMap((row) => columns.map((column) => ({ x: column.from, y: row.from, width: column.to - column.from, height: row.to - row.from, core: { x: column.coreFrom, y: row.coreFrom, width: column.coreTo - column.coreFrom, height: row.coreTo - row.coreFrom } })));
}

function cut(length: number, coreTiles: number): { from: number; to: number; coreFrom: number; coreTo: number }[] {
  const tiles = Math.ceil(length / TILE_PX);
  const parts = Math.ceil(tiles / coreTiles);
  const aligned = Math.ceil(length / ALIGN_PX) * ALIGN_PX;
  return Array.from({ length: parts }, (_, i) => {
    const coreFrom = Math.round((i * tiles) / parts) * TILE_PX;
    const coreTo = Math.min(length, Math.round(((i + 1) * tiles) / parts) * TILE_PX);
    return { coreFrom, coreTo, from: Math.max(0, coreFrom - HALO_PX), to: Math.min(aligned, coreTo === length ? aligned : coreTo + HALO_PX) };
  });
}

/** Index into an image of `length` for one that may lie beyond its end: mirrored. */
export const mirrored = (i: number, length: number): number => (i < length ? i : Math.max(0, 2 * length - 1 - i));
