/**
 * Film to files: developed pixels as PNG or JPEG, linear values as OpenEXR. Works strip by strip over the film's tiles.
 */
import type { Finish } from '../../core/brief/brief';
import { type FileOptions, holdsClear, isLinear } from '../../core/catalogue/file-kinds';
import { type Cleaned, FinishedLight, type LightSource, NOT_CLEANED } from '../../core/film/finished-light';
import { LIGHT, shrink, shrinkFactor } from '../../core/film/light';
import { AROUND_PX } from '../../core/film/stage-film';
import { type FilmLayers, layerCount, TILE_PX, tileFloats, type TileRect, tilesOf } from '../../core/film/film';
import { extraChannels, readExtra } from './extra-channels';
import { type Around, AroundMaps, needsAround, NOTHING_AROUND } from '../../core/finishing/around';
import type { BackdropImage } from '../../core/finishing/background';
import { withCropMarks } from '../../core/finishing/crop-marks';
import { createDeveloper, linearTile } from '../../core/finishing/develop';
import { encodeRows } from '../../core/finishing/encode-rows';
import { adjusted, type FloatRows } from '../../core/finishing/float-rows';
import { surfaceAdjustments } from '../../core/finishing/surface';
import type { Codes, ImageRows } from '../../core/finishing/image-rows';
import type { SheetShare } from '../../core/output/size';
import { type ExrOptions, packBlock, ROWS_PER_BLOCK, writeExr } from '../../formats/exr/write-exr';
import { writeHdr } from '../../formats/hdr/write-hdr';
import { type RgbaImage, writeImage } from '../../formats/image/encode';
import { asciiJson } from '../../core/film/ascii-json';
import type { FilmPicture } from '../../core/film/store';

export interface FilmView extends FilmPicture {
  layers: FilmLayers;
  /** What it shows of its sheet; all of it when that is not said. */
  within?: SheetShare;
  /** What a filter made of it; nothing when that is not said. */
  cleaned?: Cleaned;
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

/** The picture of a film as linear rows; strips of tiles are developed as they are asked for. */
export async function filmRows(view: FilmView, finish: Finish, backdrop: BackdropImage | null): Promise<FloatRows> {
  const { film, width, height, white, within, layers, cleaned = NOT_CLEANED } = view;
  const light = new FinishedLight(film, layers, finish, cleaned);
  const around = needsAround(finish) ? await takeAround(light, view, finish) : NOTHING_AROUND;
  const develop = createDeveloper({ width, height, white, finish, ...(within ? { within } : {}), backdrop, around });
  const tilesAt = tilesByRow(width, height);
  let strip = { y: -1, pixels: new Float32Array(0) };
  const load = async (y: number) => {
    const pixels = new Float32Array(Math.min(TILE_PX, height - y) * width * 4);
    for (const tile of tilesAt.get(y)!) {
      const of = await light.read(tile);
      if (of) develop({ ...tile, light: of }, pixels, y);
    }
    strip = { y, pixels };
  };
  const rows: FloatRows = {
    width,
    height,
    async read(from, count) {
      const out = new Float32Array(count * width * 4);
      for (let y = from; y < from + count; ) {
        const top = Math.floor(y / TILE_PX) * TILE_PX;
        if (strip.y !== top) await load(top);
        const end = Math.min(from + count, top + TILE_PX);
        out.set(strip.pixels.subarray((y - top) * width * 4, (end - top) * width * 4), (y - from) * width * 4);
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
}

/** Writes it at `path`, where part of it lies when it fails. */
export async function writeFilm(
  path: string,
  view: FilmView,
  { kind, bits, quality, about, finish, ppi, backdrop = null, marks = false, bleedPx = 0 }: FilmFile
): Promise<void> {
  if (isLinear(kind)) {
    const image = linearImage(view, finish, ppi);
    return kind === 'exr' ? writeExr(path, image) : writeHdr(path, image);
  }
  const keepAlpha = holdsClear(kind) && finish.background.kind === 'clear';
  const options = { kind, bits, quality, about, ppi, keepAlpha };
  const film = await filmRows(view, finish, backdrop);
  // on a page they are lines, else pixels
  if (kind === 'pdf') {
    const page = { bleedPx, marks: marks && ppi !== null };
    return writeImage(path, encodeRows(film, '8 bit'), { ...options, kind, page });
  }
  const marked = <C extends Codes>(rows: ImageRows<C>): ImageRows<C> =>
    marks && ppi !== null ? withCropMarks(rows, bleedPx, ppi, bits) : rows;
  if (bits === 16) await writeImage(path, marked(encodeRows(film, '16 bit')), { ...options, kind });
  else await writeImage(path, marked(encodeRows(film, '8 bit')), { ...options, kind });
}

/**
 * The film as it is: rgb (and alpha when clear), and with layers each group's share, reflectance and normal, masks,
 * depth and light studies.
 */
function linearImage({ film, width, height, layers }: FilmView, finish: Finish, ppi: number | null): ExrOptions {
  const clear = finish.background.kind === 'clear';
  const channels = ['R', 'G', 'B', 'A', ...extraChannels(layers)];
  const n = channels.length;
  const tilesAt = tilesByRow(width, height);
  let stripY = -1;
  let strip = new Float32Array(0);
  const loadStrip = async (y: number) => {
    stripY = y;
    strip = new Float32Array(TILE_PX * width * n);
    for (const tile of tilesAt.get(y) ?? []) {
      const state = film.state(tile.index);
      if (!state) continue;
      const pixels = tile.width * tile.height;
      const data = await film.read(tile.index, tileFloats(pixels, layerCount(layers)));
      const rgba = new Float32Array(pixels * 4);
      linearTile(data, pixels, state.samples, clear, rgba);
      const k = 1 / state.samples;
      for (let i = 0; i < pixels; i++) {
        const to = (Math.floor(i / tile.width) * width + tile.x + (i % tile.width)) * n;
        strip.set(rgba.subarray(i * 4, i * 4 + 4), to);
        if (n > 4) readExtra(data, i, pixels, layers, k, strip, to + 4);
      }
    }
  };
  return {
    width,
    height,
    ppi,
    attributes: layers.aovs
      ? { materialNames: asciiJson(layers.aovs.materials), objectNames: asciiJson(layers.aovs.objects) }
      : {},
    channels: channels.map((name, at) => ({ name, at })).filter(({ name }) => clear || name !== 'A'),
    stride: n,
    // blocks of 16 rows never straddle a strip of 64, which is kept
    async readRows(y, rows) {
      const top = Math.floor(y / TILE_PX) * TILE_PX;
      if (top !== stripY) await loadStrip(top);
      return strip.subarray((y - top) * width * n, (y - top + rows) * width * n);
    }
  };
}

const STRIPS_WEIGHED = 6;

/** What an EXR of it weighs, bytes a pixel, by strips strewn from top to bottom. */
export async function linearBytesPerPixel(view: FilmView, finish: Finish): Promise<number> {
  const image = linearImage(view, finish, null);
  const strips = [...tilesByRow(view.width, view.height).keys()];
  const picked = Array.from(
    { length: Math.min(STRIPS_WEIGHED, strips.length) },
    (_, i) => strips[Math.floor(((i + 0.5) * strips.length) / Math.min(STRIPS_WEIGHED, strips.length))]!
  );
  let [bytes, rows] = [0, 0];
  for (const top of picked) {
    const end = Math.min(view.height, top + TILE_PX);
    for (let y = top; y < end; y += ROWS_PER_BLOCK) bytes += (await packBlock(image, y)).length;
    rows += end - top;
  }
  return bytes / (rows * view.width);
}

/** Tiles by the row that they begin at, from the top down. */
function tilesByRow(width: number, height: number): Map<number, TileRect[]> {
  const rows = new Map<number, TileRect[]>();
  for (const tile of tilesOf(width, height)) {
    const row = rows.get(tile.y);
    if (row) row.push(tile);
    else rows.set(tile.y, [tile]);
  }
  return rows;
}
