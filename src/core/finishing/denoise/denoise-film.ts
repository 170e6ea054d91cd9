/**
 * Runs the denoising filter over a film, piece by piece, so that a sheet of any size needs the memory of one piece; and
 * measures what grain is left, by filtering both halves of the middle piece alike.
 */
import { luminanceAt } from '../../color/spaces';
import { CHANNELS, EVEN, FEATURES, halves, ODD, type TileRect, tilesOf } from '../../film/film';
import type { DenoisedSink } from '../../film/denoised';
import type { FilmPicture } from '../../film/store';
import { fromCurve, InputScale, toCurve } from './curve';
import type { Filter } from './filter';
import { cropPlanes, grown, mirrored, type Piece, piecesOf } from './pieces';
import { displayedLightness } from '../../quality/grain';

type Part = 'all' | 'even' | 'odd';

// Planes of a filter's input.
const COLOUR = 3;
const GUIDES = 6;

export interface DenoiseResult {
  /**
   * Root mean square over the middle piece of the standard error of displayed lightness, L*; null when some tile has
   * but one sample.
   */
  grain: number | null;
  /** Mean luminance after over before. */
  luminanceRatio: number;
}

/**
 * `measure`: whether the grain that is left is wanted, which costs two pieces more. `piecePixels`: of a piece, at most.
 */
export async function denoiseFilm(
  view: FilmPicture,
  filter: Filter,
  out: DenoisedSink,
  onShare: (share: number) => void,
  measure = true,
  piecePixels?: number
): Promise<DenoiseResult> {
  const { film, width, height } = view;
  const { linear } = filter;
  const tiles = tilesOf(width, height);
  const scale = new InputScale();
  let before = 0;
  let after = 0;
  for (const tile of tiles) {
    const state = film.state(tile.index);
    if (!state) continue;
    const luminances = luminancesOf(
      await film.read(tile.index, tile.width * tile.height * CHANNELS),
      tile.width * tile.height,
      state.samples
    );
    before += sumOf(luminances);
    scale.add(tile.width, tile.height, luminances);
  }
  const toMiddle = scale.value;
  const fromMiddle = 1 / toMiddle;
  const pieces = piecesOf(width, height, filter.reachPx, piecePixels);
  const middle = pieces.reduce((best, p) => (away(p, view) < away(best, view) ? p : best));
  const measurable =
    measure && tiles.every((tile) => !inside(tile, middle) || (film.state(tile.index)?.samples ?? 0) >= 2);
  // the halves are looked at once, which tells the grain of both looks to some 6 %, never too little
  const looks = filter.once ? 2 : 1;
  const steps = looks * pieces.length + (measurable ? 2 : 0);
  let step = 0;
  const guidesOf = async (piece: Piece) => {
    const { clarify } = filter;
    if (!clarify) return loadPlanes(view, tiles, piece, GUIDES, guides);
    const around = grown(piece, clarify.reachPx, view);
    return cropPlanes(
      await clarify.run(await loadPlanes(view, tiles, around, GUIDES, guides), around.height, around.width),
      GUIDES,
      around,
      piece
    );
  };
  const filtered = async (piece: Piece, guided: Float32Array, part: Part) => {
    const plane = piece.width * piece.height;
    const light = await loadPlanes(view, tiles, piece, filter.channels - GUIDES, lightOf(part, toMiddle, filter));
    const planes = new Float32Array(filter.channels * plane);
    planes.set(light.subarray(0, COLOUR * plane));
    planes.set(guided, COLOUR * plane);
    planes.set(light.subarray(COLOUR * plane), (COLOUR + GUIDES) * plane);
    const whole = part === 'all';
    const look = (whole ? null : filter.once) ?? filter.run;
    const result = await look(planes, piece.height, piece.width);
    step += whole ? looks : 1;
    onShare(step / steps);
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
      for (let y = 0; y < tile.height; y++)
        after += takeRow(
          result,
          plane,
          (tile.y + y - piece.y) * piece.width + tile.x - piece.x,
          rgb,
          y * tile.width * 3,
          tile.width,
          linear,
          fromMiddle
        );
      await out.write(tile, rgb);
    }
  }
  const grain = measurable
    ? grainLeft(
        await filtered(middle, middleGuides!, 'even'),
        await filtered(middle, middleGuides!, 'odd'),
        middle,
        fromMiddle / view.white,
        linear ? (v) => v : fromCurve
      )
    : null;
  return { grain, luminanceRatio: before > 0 ? after / before : 1 };
}

const inside = (tile: TileRect, { core }: Piece) =>
  tile.x >= core.x && tile.x < core.x + core.width && tile.y >= core.y && tile.y < core.y + core.height;
const away = ({ core }: Piece, { width, height }: FilmPicture) =>
  Math.hypot(core.x + core.width / 2 - width / 2, core.y + core.height / 2 - height / 2);

// Rows and tiles have functions of their own: called often, they are soon good code, which a loop over all pixels
// within an async function becomes late.

function luminancesOf(data: Float32Array, pixels: number, samples: number): Float32Array {
  const out = new Float32Array(pixels);
  for (let i = 0; i < pixels; i++)
    out[i] = (luminanceAt(data, i * CHANNELS + EVEN) + luminanceAt(data, i * CHANNELS + ODD)) / samples;
  return out;
}

function sumOf(values: Float32Array): number {
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += values[i]!;
  return sum;
}

/** Copies a row from a filter's planes as rgb; gives the sum of its luminance. */
function takeRow(
  planes: Float32Array,
  plane: number,
  from: number,
  rgb: Float32Array,
  to: number,
  count: number,
  linear: boolean,
  times: number
): number {
  let sum = 0;
  for (let i = 0; i < count; i++) {
    const at = to + i * 3;
    for (let c = 0; c < 3; c++) {
      const value = planes[c * plane + from + i]!;
      rgb[at + c] = (linear ? value : fromCurve(value)) * times;
    }
    sum += luminanceAt(rgb, at);
  }
  return sum;
}

/** Writes what `count` pixels from `p` of a tile's data say to the planes from `q` on, `plane` floats each. */
type PutRow = (
  data: Float32Array,
  samples: number,
  planes: Float32Array,
  plane: number,
  p: number,
  q: number,
  count: number
) => void;

/** Reflectance and normal. */
const guides: PutRow = (data, samples, planes, plane, p, q, count) => {
  const k = 1 / samples;
  for (let i = 0; i < count; i++) {
    const from = p + i * CHANNELS + FEATURES;
    for (let c = 0; c < 3; c++) {
      planes[c * plane + q + i] = Math.min(1, Math.max(0, data[from + c]! * k));
      planes[(3 + c) * plane + q + i] = Math.min(1, Math.max(-1, data[from + 3 + c]! * k)) * 0.5 + 0.5;
    }
  }
};

/** Colour, and its luminance's squared standard error if the filter wants it. */
const lightOf =
  (part: Part, scale: number, { channels, linear }: Filter): PutRow =>
  (data, samples, planes, plane, p, q, count) => {
    const [even, odd] = halves(samples);
    const we = part === 'all' ? 1 / samples : part === 'even' ? 1 / even : 0;
    const wo = part === 'all' ? 1 / samples : part === 'even' ? 0 : 1 / odd;
    // a half by itself has twice the squared error
    const halved = part === 'all' ? 4 : 2;
    for (let i = 0; i < count; i++) {
      const from = p + i * CHANNELS;
      for (let c = 0; c < 3; c++) {
        const value = (data[from + EVEN + c]! * we + data[from + ODD + c]! * wo) * scale;
        planes[c * plane + q + i] = linear ? Math.max(0, value) : toCurve(value);
      }
      if (channels > COLOUR + GUIDES)
        planes[COLOUR * plane + q + i] =
          odd === 0
            ? -1
            : ((luminanceAt(data, from + EVEN) / even - luminanceAt(data, from + ODD) / odd) * scale) ** 2 / halved;
    }
  };

/** Planes of a piece from the film's tiles; what lies beyond the image is its mirror. */
async function loadPlanes(
  { film, width, height }: FilmPicture,
  tiles: readonly TileRect[],
  piece: Piece,
  channels: number,
  put: PutRow
): Promise<Float32Array> {
  const plane = piece.width * piece.height;
  const planes = new Float32Array(channels * plane);
  const right = Math.min(width, piece.x + piece.width);
  const bottom = Math.min(height, piece.y + piece.height);
  for (const tile of tiles) {
    if (tile.x >= right || tile.y >= bottom || tile.x + tile.width <= piece.x || tile.y + tile.height <= piece.y)
      continue;
    const state = film.state(tile.index);
    if (!state) continue;
    const data = await film.read(tile.index, tile.width * tile.height * CHANNELS);
    const left = Math.max(tile.x, piece.x);
    const count = Math.min(tile.x + tile.width, right) - left;
    for (let y = Math.max(tile.y, piece.y); y < Math.min(tile.y + tile.height, bottom); y++)
      put(
        data,
        state.samples,
        planes,
        plane,
        ((y - tile.y) * tile.width + left - tile.x) * CHANNELS,
        (y - piece.y) * piece.width + left - piece.x,
        count
      );
  }
  for (let c = 0; c < channels; c++) {
    const at = c * plane;
    for (let y = 0; y < bottom - piece.y; y++)
      for (let x = right - piece.x; x < piece.width; x++)
        planes[at + y * piece.width + x] = planes[at + y * piece.width + mirrored(x, right - piece.x)]!;
    for (let y = bottom - piece.y; y < piece.height; y++)
      planes.copyWithin(
        at + y * piece.width,
        at + mirrored(y, bottom - piece.y) * piece.width,
        at + (mirrored(y, bottom - piece.y) + 1) * piece.width
      );
  }
  return planes;
}

function grainLeft(
  a: Float32Array,
  b: Float32Array,
  { x, y, width, height, core }: Piece,
  scale: number,
  toLight: (value: number) => number
): number {
  const plane = width * height;
  let sum = 0;
  for (let v = core.y - y; v < core.y - y + core.height; v++) {
    for (let u = core.x - x; u < core.x - x + core.width; u++) {
      const i = v * width + u;
      const shown = (planes: Float32Array) =>
        displayedLightness(
          toLight(planes[i]!) * scale,
          toLight(planes[plane + i]!) * scale,
          toLight(planes[2 * plane + i]!) * scale
        );
      sum += (shown(a) - shown(b)) ** 2 / 4;
    }
  }
  return Math.sqrt(sum / (core.width * core.height));
}
