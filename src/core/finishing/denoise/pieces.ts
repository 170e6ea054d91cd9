/**
 * Cuts an image into pieces for the filter: cores that are whole film tiles and a halo around, so memory stays bounded
 * at any size.
 */
import { TILE_PX } from '../../film/film';
import { ALIGN_PX } from './filter';

export interface Piece {
  /** What the filter is fed: may reach beyond the image on the right and below, where it is mirrored. */
  x: number;
  y: number;
  width: number;
  height: number;
  /** What is kept of it. */
  core: { x: number; y: number; width: number; height: number };
}

/** Of a piece with its halo: 1.6 GB of the filter's process. */
export const MAX_PIXELS = 1_300_000;

interface Cut {
  spans: { from: number; to: number; coreFrom: number; coreTo: number }[];
  longest: number;
  sum: number;
}

/** The pieces of least work of at most `mostPixels` each, or of one film tile and its halo. */
export function piecesOf(width: number, height: number, reachPx: number, mostPixels = MAX_PIXELS): Piece[] {
  const [across, down] = [cuts(width, reachPx), cuts(height, reachPx)];
  let best: [Cut, Cut] = [across.at(-1)!, down.at(-1)!];
  for (const columns of across) {
    const rows = down.find((r) => columns.longest * r.longest <= mostPixels);
    if (rows && columns.sum * rows.sum < best[0].sum * best[1].sum) best = [columns, rows];
  }
  const [columns, rows] = best;
  return rows.spans.flatMap((row) =>
    columns.spans.map((column) => ({
      x: column.from,
      y: row.from,
      width: column.to - column.from,
      height: row.to - row.from,
      core: {
        x: column.coreFrom,
        y: row.coreFrom,
        width: column.coreTo - column.coreFrom,
        height: row.coreTo - row.coreFrom
      }
    }))
  );
}

/** A side cut into one part, two, and so on to one a film tile. */
function cuts(length: number, reachPx: number): Cut[] {
  const tiles = Math.ceil(length / TILE_PX);
  const aligned = Math.ceil(length / ALIGN_PX) * ALIGN_PX;
  return Array.from({ length: tiles }, (_, n) => {
    const spans = Array.from({ length: n + 1 }, (_, i) => {
      const coreFrom = Math.round((i * tiles) / (n + 1)) * TILE_PX;
      const coreTo = Math.min(length, Math.round(((i + 1) * tiles) / (n + 1)) * TILE_PX);
      return {
        coreFrom,
        coreTo,
        from: Math.max(0, coreFrom - reachPx),
        to: coreTo === length ? aligned : Math.min(aligned, coreTo + reachPx)
      };
    });
    const lengths = spans.map(({ from, to }) => to - from);
    return { spans, longest: Math.max(...lengths), sum: lengths.reduce((a, b) => a + b) };
  });
}

/** A piece with more round it, as far as the image goes. */
export function grown(
  { x, y, width, height, core }: Piece,
  by: number,
  image: { width: number; height: number }
): Piece {
  const [left, top] = [Math.max(0, x - by), Math.max(0, y - by)];
  const end = (at: number, long: number) => Math.min(Math.ceil(long / ALIGN_PX) * ALIGN_PX, at + by);
  return {
    x: left,
    y: top,
    width: end(x + width, image.width) - left,
    height: end(y + height, image.height) - top,
    core
  };
}

/** What planes of one piece hold of another that lies within it. */
export function cropPlanes(planes: Float32Array, channels: number, from: Piece, to: Piece): Float32Array {
  const out = new Float32Array(channels * to.width * to.height);
  for (let c = 0; c < channels; c++) {
    for (let y = 0; y < to.height; y++) {
      const start = (c * from.height + to.y - from.y + y) * from.width + to.x - from.x;
      out.set(planes.subarray(start, start + to.width), (c * to.height + y) * to.width);
    }
  }
  return out;
}

/** Index into an image of `length` for one that may lie beyond its end: mirrored. */
export const mirrored = (i: number, length: number): number => (i < length ? i : Math.max(0, 2 * length - 1 - i));
