/** The picture of a film as rows, developed strip by strip, so that a sheet of any size needs little memory. */
import type { Finish } from '../../core/brief/brief';
import type { ColourTable } from '../../core/color/table';
import type { FileOptions } from '../../core/catalogue/file-kinds';
import { type FilmLayers, TILE_PX, type TileRect, tilesOf } from '../../core/film/film';
import { type Cleaned, FinishedLight, type LightSource, NOT_CLEANED } from '../../core/film/finished-light';
import { LIGHT, shrink, shrinkFactor } from '../../core/film/light';
import { AROUND_PX } from '../../core/film/stage-film';
import type { FilmPicture } from '../../core/film/store';
import { type Around, AroundMaps, needsAround, NOTHING_AROUND } from '../../core/finishing/around';
import type { BackdropImage } from '../../core/finishing/background';
import { createDeveloper } from '../../core/finishing/develop';
import { encodeRows } from '../../core/finishing/encode-rows';
import type { Gamut } from '../../core/finishing/grade';
import { adjusted, type FloatRows, smaller } from '../../core/finishing/float-rows';
import { surfaceAdjustments } from '../../core/finishing/surface';
import type { SheetShare } from '../../core/output/size';
import type { RgbaImage } from '../../formats/image/encode';

export interface FilmView extends FilmPicture {
  layers: FilmLayers;
  /** What it shows of its sheet; all of it when that is not said. */
  within?: SheetShare;
  /** What a filter made of it; nothing when that is not said. */
  cleaned?: Cleaned;
  /** The colour table of its finish; none when that is not said. */
  table?: ColourTable | null;
}

/** In memory, for small ones. */
export async function developFilm(
  view: FilmView,
  finish: Finish,
  backdrop: BackdropImage | null = null
): Promise<RgbaImage> {
  const { width, height } = view;
  const rows = encodeRows(await filmRows(view, finish, backdrop), '8 bit');
  return { width, height, pixels: await rows.read(0, height) };
}

const STRIPS_KEPT = 3;

/** The picture of a film as linear rows; strips of tiles are developed as they are asked for. */
export async function filmRows(
  view: FilmView,
  finish: Finish,
  backdrop: BackdropImage | null,
  gamut: Gamut = 'srgb'
): Promise<FloatRows> {
  const { film, width, height, white, within, layers, cleaned = NOT_CLEANED, table = null } = view;
  const light = new FinishedLight(film, layers, finish, cleaned);
  const around = needsAround(finish) ? await takeAround(light, view, finish) : NOTHING_AROUND;
  const develop = createDeveloper({
    width,
    height,
    white,
    finish,
    ...(within ? { within } : {}),
    backdrop,
    around,
    table,
    gamut
  });
  const tilesAt = tilesByRow(width, height);
  // the last strips: what looks beyond its rows asks for the neighbours again
  const strips = new Map<number, Float32Array>();
  const stripAt = async (y: number): Promise<Float32Array> => {
    const known = strips.get(y);
    if (known) return known;
    const pixels = new Float32Array(Math.min(TILE_PX, height - y) * width * 4);
    for (const tile of tilesAt.get(y)!) {
      const of = await light.read(tile);
      if (of) develop({ ...tile, light: of }, pixels, y);
    }
    if (strips.size >= STRIPS_KEPT) strips.delete(strips.keys().next().value!);
    strips.set(y, pixels);
    return pixels;
  };
  const rows: FloatRows = {
    width,
    height,
    async read(from, count) {
      const out = new Float32Array(count * width * 4);
      for (let y = from; y < from + count; ) {
        const top = Math.floor(y / TILE_PX) * TILE_PX;
        const strip = await stripAt(top);
        const end = Math.min(from + count, top + TILE_PX);
        out.set(strip.subarray((y - top) * width * 4, (end - top) * width * 4), (y - from) * width * 4);
        y = end;
      }
      return out;
    }
  };
  return adjusted(rows, surfaceAdjustments(finish, height / (within?.height ?? 1), 1));
}

/** What a finish needs to know of the whole picture, from one reading of its film. */
async function takeAround(light: LightSource, { width, height, white }: FilmView, finish: Finish): Promise<Around> {
  const factor = shrinkFactor(width, height, AROUND_PX);
  const [w, h] = [Math.ceil(width / factor), Math.ceil(height / factor)];
  const copy = { data: new Float32Array(w * h * 3), width: w, height: h };
  for (const tile of tilesOf(width, height)) {
    const of = await light.read(tile);
    if (!of) continue;
    const small = shrink(of, tile.width, tile.height, LIGHT, factor);
    for (let y = 0; y < small.height; y++)
      for (let x = 0; x < small.width; x++)
        for (let c = 0; c < 3; c++)
          copy.data[((tile.y / factor + y) * w + tile.x / factor + x) * 3 + c] =
            small.data[(y * small.width + x) * LIGHT + c]!;
  }
  return new AroundMaps(copy, white).of(finish);
}

export interface FilmFile extends FileOptions {
  finish: Finish;
  ppi: number | null;
  /** The picture of a background that is one. */
  backdrop?: BackdropImage | null;
  /** Px of bleed that the picture has; crop marks are drawn round it where they are wanted. */
  bleedPx?: number;
  marks?: boolean;
  /** Told what share of it is written, 0 to 1. */
  onShare?: ((share: number) => void) | undefined;
}

// Of the whole time; the rest is what the encoder does when it has all rows.
const ROWS_SHARE = 0.85;
const LEAST_STEP = 0.01;

/** The same rows; it is told how many of them were asked for. */
export function counted<R extends { height: number; read(y: number, count: number): Promise<unknown> }>(
  rows: R,
  onShare?: (share: number) => void
): R {
  if (!onShare) return rows;
  let told = 0;
  return {
    ...rows,
    async read(y: number, count: number) {
      const read = await rows.read(y, count);
      const share = (ROWS_SHARE * (y + count)) / rows.height;
      if (share >= told + LEAST_STEP) {
        told = share;
        onShare(share);
      }
      return read;
    }
  };
}

/** A smaller copy of a picture, and how much smaller; `long_px` of at least its long side, or null, is the picture. */
export function copyOf(rows: FloatRows, long_px: number | null): { rows: FloatRows; scale: number } {
  const scale = long_px === null ? 1 : Math.min(1, long_px / Math.max(rows.width, rows.height));
  const size = (px: number) => Math.max(1, Math.round(px * scale));
  return { rows: smaller(rows, size(rows.width), size(rows.height)), scale };
}

/** Tiles by the row that they begin at, from the top down. */
export function tilesByRow(width: number, height: number): Map<number, TileRect[]> {
  const rows = new Map<number, TileRect[]>();
  for (const tile of tilesOf(width, height)) {
    const row = rows.get(tile.y);
    if (row) row.push(tile);
    else rows.set(tile.y, [tile]);
  }
  return rows;
}
