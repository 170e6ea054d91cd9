/** Film to files: developed pixels as PNG or JPEG, linear values as OpenEXR. Works strip by strip over the film's tiles. */
import type { Finish } from '../../core/brief/brief';
import { CHANNELS, TILE_PX, type TileRect, tilesOf } from '../../core/film/film';
import { developTile, linearTile } from '../../core/finishing/develop';
import { writeExr } from '../../formats/exr/write-exr';
import { encodeJpeg, encodePng, type RgbaImage } from '../../formats/image/encode';
import type { FilmSource } from '../files/film-store';

export interface FilmView {
  film: FilmSource;
  width: number;
  height: number;
  white: number;
}

export type FileKind = 'png' | 'jpg' | 'exr';

export async function developFilm({ film, width, height, white }: FilmView, finish: Finish): Promise<RgbaImage> {
  const pixels = new Uint8Array(width * height * 4);
  for (const tile of tilesOf(width, height)) {
    const state = film.state(tile.index);
    if (!state) continue;
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    developTile(data, tile.width, tile.height, state.samples, white, finish, pixels, (tile.y * width + tile.x) * 4, width * 4);
  }
  return { width, height, pixels };
}

export async function* encodeFilm(view: FilmView, kind: FileKind, finish: Finish, ppi: number | null): AsyncGenerator<Uint8Array> {
  if (kind === 'exr') {
    yield* linearFile(view, finish, ppi);
    return;
  }
  const image = await developFilm(view, finish);
  yield kind === 'png' ? await encodePng(image, ppi, finish.background.kind === 'clear') : await encodeJpeg(image, ppi);
}

async function* linearFile({ film, width, height }: FilmView, finish: Finish, ppi: number | null): AsyncGenerator<Uint8Array> {
  const clear = finish.background.kind === 'clear';
  const byRow = new Map<number, TileRect[]>();
  for (const tile of tilesOf(width, height)) byRow.set(tile.y, [...(byRow.get(tile.y) ?? []), tile]);
  let stripY = -1;
  let strip = new Float32Array(0);
  const loadStrip = async (y: number) => {
    stripY = y;
    strip = new Float32Array(TILE_PX * width * 4);
    for (const tile of byRow.get(y) ?? []) {
      const state = film.state(tile.index);
      if (!state) continue;
      const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
      const rgba = new Float32Array(tile.width * tile.height * 4);
      linearTile(data, tile.width * tile.height, state.samples, clear, rgba);
      for (let r = 0; r < tile.height; r++) strip.set(rgba.subarray(r * tile.width * 4, (r + 1) * tile.width * 4), (r * width + tile.x) * 4);
    }
  };
  yield* writeExr({
    width,
    height,
    ppi,
    alpha: clear,
    // blocks of 16 rows never straddle a strip of 64
    async readRows(y, rows) {
      const top = Math.floor(y / TILE_PX) * TILE_PX;
      if (top !== stripY) await loadStrip(top);
      return strip.subarray((y - top) * width * 4, (y - top + rows) * width * 4);
    }
  });
}
