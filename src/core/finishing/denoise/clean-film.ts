/**
 * Runs the denoising filter over a film, piece by piece, so that a sheet of any size needs the memory of one piece; and measures
 * what grain is left, by filtering both halves of the middle piece alike.
 */
import { luminanceAt } from '../../color/spaces';
import { CHANNELS, FEATURES, halves, type TileRect, tilesOf } from '../../film/film';
import type { CleanSink } from '../../film/clean';
import type { FilmPicture } from '../../film/store';
import { fromCurve, InputScale, toCurve } from './curve';
import type { Filter } from './filter';
import { cropPlanes, grown, mirrored, type Piece, piecesOf } from './pieces';
import { displayedLightness } from '../../quality/grain';

type Part = 'all' | 'even' | 'odd';

// Planes of a filter's input.
const COLOUR = 3;
const GUIDES = 6;

export interface CleanResult {
  /** Root mean square over the middle piece of the standard error of displayed lightness, L*; null when some tile has but one sample. */
  grain: number | null;
  /** Mean luminance after over before. */
  luminanceRatio: number;
}

/** `measure`: whether the grain that is left is wanted, which costs two pieces more. `piecePixels`: of a piece, at most. */
export async function cleanFilm(view: FilmPicture, filter: Filter, out: CleanSink, onShare: (share: number) => void, measure = true, piecePixels?: number): Promise<CleanResult> {
  const { film, width, height } = view;
  const tiles = tilesOf(width, height);
  const scale = new InputScale();
  let before = 0;
  let after = 0;
  for (const tile of tiles) {
    const state = film.state(tile.index);
    if (!state) continue;
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    scale.add(tile.width, tile.height, (i) => {
      const l = pixelLuminance(data, i, state.samples);
      before += l;
      return l;
    });
  }
  const pieces = piecesOf(width, height, filter.reachPx, piecePixels);
  const middle = pieces.reduce((best, p) => (away(p, view) < away(best, view) ? p : best));
  const measurable = measure && tiles.every((tile) => !inside(tile, middle) || (film.state(tile.index)?.samples ?? 0) >= 2);
  const steps = pieces.length + (measurable ? 2 : 0);
  let step = 0;
  const guidesOf = async (piece: Piece) => {
    const { clarify } = filter;
    if (!clarify) return loadPlanes(view, tiles, piece, GUIDES, guides);
    const around = grown(piece, clarify.reachPx, view);
    return cropPlanes(await clarify.run(await loadPlanes(view, tiles, around, GUIDES, guides), around.height, around.width), GUIDES, around, piece);
  };
  const filtered = async (piece: Piece, guided: Float32Array, part: Part) => {
    const plane = piece.width * piece.height;
    const light = await loadPlanes(view, tiles, piece, filter.channels - GUIDES, lightOf(part, scale.value, filter));
    const planes = new Float32Array(filter.channels * plane);
    planes.set(light.subarray(0, COLOUR * plane));
    planes.set(guided, COLOUR * plane);
    planes.set(light.subarray(COLOUR * plane), (COLOUR + GUIDES) * plane);
    const result = await filter.run(planes, piece.height, piece.width);
    onShare(++step / steps);
    return result;
  };
  let middleGuides: Float32Array | null = null;
  for (const piece of pieces) {
    const guided = await guidesOf(piece);
    if (piece === middle) middleGuides = guided;
    const result = await filtered(piece, guided, 'all');
    const plane = piece.width * piece.height;
    for (const tile of tiles) {
      if (!inside(tile, piece)) continue;
      const rgb = new Float32Array(tile.width * tile.height * 3);
      for (let y = 0; y < tile.height; y++) {
        for (let x = 0; x < tile.width; x++) {
          const from = (tile.y + y - piece.y) * piece.width + tile.x + x - piece.x;
          const to = (y * tile.width + x) * 3;
          for (let c = 0; c < 3; c++) rgb[to + c] = (filter.linear ? result[c * plane + from]! : fromCurve(result[c * plane + from]!)) / scale.value;
          after += luminanceAt(rgb, to);
        }
      }
      await out.write(tile, rgb);
    }
  }
  const grain = measurable ? grainLeft(await filtered(middle, middleGuides!, 'even'), await filtered(middle, middleGuides!, 'odd'), middle, 1 / (scale.value * view.white), filter.linear ? (v) => v : fromCurve) : null;
  return { grain, luminanceRatio: before > 0 ? after / before : 1 };
}

const inside = (tile: TileRect, { core }: Piece) => tile.x >= core.x && tile.x < core.x + core.width && tile.y >= core.y && tile.y < core.y + core.height;
const away = ({ core }: Piece, { width, height }: FilmPicture) => Math.hypot(core.x + core.width / 2 - width / 2, core.y + core.height / 2 - height / 2);

function pixelLuminance(data: Float32Array, i: number, samples: number): number {
  return (luminanceAt(data, i * CHANNELS) + luminanceAt(data, i * CHANNELS + 3)) / samples;
}

/** Writes what a pixel at `p` of a tile's data says to place `q` of the planes, `plane` floats each. */
type Put = (data: Float32Array, samples: number) => (planes: Float32Array, plane: number, p: number, q: number) => void;

/** Reflectance and normal. */
const guides: Put = (data, samples) => {
  const k = 1 / samples;
  return (planes, plane, p, q) => {
    for (let c = 0; c < 3; c++) {
      planes[c * plane + q] = Math.min(1, Math.max(0, data[p + FEATURES + c]! * k));
      planes[(3 + c) * plane + q] = Math.min(1, Math.max(-1, data[p + FEATURES + 3 + c]! * k)) * 0.5 + 0.5;
    }
  };
};

/** Colour, and its luminance's squared standard error if the filter wants it. */
const lightOf = (part: Part, scale: number, { channels, linear }: Filter): Put => (data, samples) => {
  const [even, odd] = halves(samples);
  const [we, wo] = part === 'all' ? [1 / samples, 1 / samples] : part === 'even' ? [1 / even, 0] : [0, 1 / odd];
  // a half by itself has twice the squared error
  const halved = part === 'all' ? 4 : 2;
  return (planes, plane, p, q) => {
    for (let c = 0; c < 3; c++) {
      const value = (data[p + c]! * we + data[p + 3 + c]! * wo) * scale;
      planes[c * plane + q] = linear ? Math.max(0, value) : toCurve(value);
    }
    if (channels > COLOUR + GUIDES) planes[COLOUR * plane + q] = odd === 0 ? -1 : ((luminanceAt(data, p) / even - luminanceAt(data, p + 3) / odd) * scale) ** 2 / halved;
  };
};

/** Planes of a piece from the film's tiles; what lies beyond the image is its mirror. */
async function loadPlanes({ film, width, height }: FilmPicture, tiles: readonly TileRect[], piece: Piece, channels: number, put: Put): Promise<Float32Array> {
  const plane = piece.width * piece.height;
  const planes = new Float32Array(channels * plane);
  const right = Math.min(width, piece.x + piece.width);
  const bottom = Math.min(height, piece.y + piece.height);
  for (const tile of tiles) {
    if (tile.x >= right || tile.y >= bottom || tile.x + tile.width <= piece.x || tile.y + tile.height <= piece.y) continue;
    const state = film.state(tile.index);
    if (!state) continue;
    const write = put(await film.read(tile.index, tile.width * tile.height * CHANNELS), state.samples);
    for (let y = Math.max(tile.y, piece.y); y < Math.min(tile.y + tile.height, bottom); y++) {
      for (let x = Math.max(tile.x, piece.x); x < Math.min(tile.x + tile.width, right); x++) write(planes, plane, ((y - tile.y) * tile.width + x - tile.x) * CHANNELS, (y - piece.y) * piece.width + x - piece.x);
    }
  }
  for (let c = 0; c < channels; c++) {
    const at = c * plane;
    for (let y = 0; y < bottom - piece.y; y++) for (let x = right - piece.x; x < piece.width; x++) planes[at + y * piece.width + x] = planes[at + y * piece.width + mirrored(x, right - piece.x)]!;
    for (let y = bottom - piece.y; y < piece.height; y++) planes.copyWithin(at + y * piece.width, at + mirrored(y, bottom - piece.y) * piece.width, at + (mirrored(y, bottom - piece.y) + 1) * piece.width);
  }
  return planes;
}

function grainLeft(a: Float32Array, b: Float32Array, { x, y, width, height, core }: Piece, scale: number, toLight: (value: number) => number): number {
  const plane = width * height;
  let sum = 0;
  for (let v = core.y - y; v < core.y - y + core.height; v++) {
    for (let u = core.x - x; u < core.x - x + core.width; u++) {
      const i = v * width + u;
      const shown = (planes: Float32Array) => displayedLightness(toLight(planes[i]!) * scale, toLight(planes[plane + i]!) * scale, toLight(planes[2 * plane + i]!) * scale);
      sum += (shown(a) - shown(b)) ** 2 / 4;
    }
  }
  return Math.sqrt(sum / (core.width * core.height));
}
