/** Film to files: developed pixels as PNG or JPEG, linear values as OpenEXR. Works strip by strip over the film's tiles. */
import type { Finish } from '../../core/brief/brief';
import type { FileKind } from '../../core/catalogue/file-kinds';
import { CHANNELS, type FilmLayers, layerCount, TILE_PX, tileFloats, type TileRect, tilesOf } from '../../core/film/film';
import { extraChannels, readExtra } from './extra-channels';
import { withCropMarks } from '../../core/finishing/crop-marks';
import { developTile, linearTile } from '../../core/finishing/develop';
import type { SheetShare } from '../../core/output/size';
import { writeExr } from '../../formats/exr/write-exr';
import { encodeJpeg, encodePng, type RgbaImage } from '../../formats/image/encode';
import type { FilmPicture } from '../../core/film/store';

export interface FilmView extends FilmPicture {
  layers: FilmLayers;
  /** What it shows of its sheet; all of it when that is not said. */
  within?: SheetShare;
}

export async function developFilm({ film, width, height, white, within }: FilmView, finish: Finish): Promise<RgbaImage> {
  const pixels = new Uint8Array(width * height * 4);
  for (const tile of tilesOf(width, height)) {
    const state = film.state(tile.index);
    if (!state) continue;
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    developTile(data, tile.width, tile.height, state.samples, white, finish, pixels, { x: tile.x, y: tile.y, pictureWidth: width, pictureHeight: height }, within);
  }
  return { width, height, pixels };
}

/** `marks`: px of bleed round which crop marks are drawn, null for none. */
export async function* encodeFilm(view: FilmView, kind: FileKind, finish: Finish, ppi: number | null, marks: number | null = null): AsyncGenerator<Uint8Array> {
  if (kind === 'exr') {
    yield* linearFile(view, finish, ppi);
    return;
  }
  const developed = await developFilm(view, finish);
  const image = marks === null || ppi === null ? developed : withCropMarks(developed, marks, ppi);
  yield kind === 'png' ? await encodePng(image, ppi, finish.background.kind === 'clear') : await encodeJpeg(image, ppi);
}

/** The film as it is: rgb (and alpha when clear), and with layers each group's share, reflectance and normal, masks, depth and light studies. */
async function* linearFile({ film, width, height, layers }: FilmView, finish: Finish, ppi: number | null): AsyncGenerator<Uint8Array> {
  const clear = finish.background.kind === 'clear';
  const channels = ['R', 'G', 'B', 'A', ...extraChannels(layers)];
  const n = channels.length;
  const byRow = new Map<number, TileRect[]>();
  for (const tile of tilesOf(width, height)) byRow.set(tile.y, [...(byRow.get(tile.y) ?? []), tile]);
  let stripY = -1;
  let strip = new Float32Array(0);
  const loadStrip = async (y: number) => {
    stripY = y;
    strip = new Float32Array(TILE_PX * width * n);
    for (const tile of byRow.get(y) ?? []) {
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
  yield* writeExr({
    width,
    height,
    ppi,
    attributes: layers.aids ? { materialNames: asciiJson(layers.aids.materials), objectNames: asciiJson(layers.aids.objects) } : {},
    channels: channels.map((name, at) => ({ name, at })).filter(({ name }) => clear || name !== 'A'),
    stride: n,
    // blocks of 16 rows never straddle a strip of 64
    async readRows(y, rows) {
      const top = Math.floor(y / TILE_PX) * TILE_PX;
      if (top !== stripY) await loadStrip(top);
      return strip.subarray((y - top) * width * n, (y - top + rows) * width * n);
    }
  });
}

/** JSON with every sign beyond ASCII escaped. */
const asciiJson = (names: readonly string[]) => JSON.stringify(names).replace(/[^\x20-\x7e]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`);
