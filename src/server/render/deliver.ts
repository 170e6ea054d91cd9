/**
 * Film to files: developed pixels as images, pages and layered files, linear values as OpenEXR and HDR. Works strip by
 * strip over the film's tiles.
 */
import type { Finish } from '../../core/brief/brief';
import { FILE_DEFAULTS, type FileOptions, holdsClear, isLinear } from '../../core/catalogue/file-kinds';
import { asciiJson } from '../../core/film/ascii-json';
import { layerCount, NO_LAYERS, TILE_PX, tileFloats } from '../../core/film/film';
import { withCropMarks } from '../../core/finishing/crop-marks';
import { linearTile } from '../../core/finishing/develop';
import { encodeRows } from '../../core/finishing/encode-rows';
import { inDisplayP3 } from '../../core/finishing/float-rows';
import type { Codes, ImageRows } from '../../core/finishing/image-rows';
import { type ExrOptions, packBlock, ROWS_PER_BLOCK, writeExr } from '../../formats/exr/write-exr';
import { writeHdr } from '../../formats/hdr/write-hdr';
import { writeImage } from '../../formats/image/encode';
import { writeLayered } from './deliver-layers';
import { extraChannels, readExtra } from './extra-channels';
import { copyOf, counted, type FilmFile, filmRows, type FilmView, tilesByRow } from './film-rows';

/** Writes it at `path`, where part of it lies when it fails. */
export async function writeFilm(path: string, view: FilmView, file: FilmFile): Promise<void> {
  const { kind, bits, finish, backdrop = null, marks = false } = file;
  if (kind === 'ora') return writeLayered(path, view, file);
  if (isLinear(kind)) {
    const image = linearImage(view, finish, file.ppi, file, file.onShare);
    return kind === 'exr' ? writeExr(path, image) : writeHdr(path, image);
  }
  const keepAlpha = holdsClear(kind) && finish.background.kind === 'clear';
  const wide = file.colors === 'p3';
  const developed = await filmRows(view, finish, backdrop, wide ? 'p3' : 'srgb');
  const { rows: copy, scale } = copyOf(developed, file.long_px);
  const film = counted(wide ? inDisplayP3(copy) : copy, file.onShare);
  const ppi = file.ppi === null ? null : file.ppi * scale;
  const bleedPx = Math.round((file.bleedPx ?? 0) * scale);
  const { quality, about, colors, press } = file;
  const options = { bits, quality, about, colors, press, ppi, keepAlpha };
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
function linearImage(
  { film, width, height, layers: kept }: FilmView,
  finish: Finish,
  ppi: number | null,
  { half, pictureOnly }: Pick<FileOptions, 'half' | 'pictureOnly'> = FILE_DEFAULTS,
  onShare?: (share: number) => void
): ExrOptions {
  const layers = pictureOnly ? NO_LAYERS : kept;
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
    // ids and depth want all their bits
    channels: channels
      .map((name, at) => ({ name, at, half: half && !/\.(id\d|Z)$/.test(name) }))
      .filter(({ name }) => clear || name !== 'A'),
    stride: n,
    // blocks of 16 rows never straddle a strip of 64, which is kept
    async readRows(y, rows) {
      const top = Math.floor(y / TILE_PX) * TILE_PX;
      if (top !== stripY) await loadStrip(top);
      onShare?.((y + rows) / height);
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
