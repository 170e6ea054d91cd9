/**
 * The film's shape: tiles of TILE x TILE pixels, each with the sums of its samples. Channels of a pixel, f32:
 * the sums of the even and of the odd samples (two independent halves), what came straight from the surroundings and its
 * share,
 * and features that guide the denoiser, followed through mirror and glass: reflectance and normal. Named below.
 * Radiances are scene-referred, linear Rec. 709, cd/m2. 64 bytes a pixel.
 */
export const TILE_PX = 64;
export const CHANNELS = 16;
/** Sums of the even and of the odd samples: two independent halves. rgb. */
export const EVEN = 0;
export const ODD = 3;
/** What came straight from the surroundings, rgb, and the share of samples that it has. */
export const BACKDROP = 6;
export const BACKDROP_SHARE = 9;
/** Where a pixel's features begin: reflectance, then normal. */
export const FEATURES = 10;
export const REFLECTANCE = 10;
export const NORMAL = 13;
/** Of the reflectance and the normal together. */
export const FEATURE_CHANNELS = 6;
/** What a film holds beside the picture. */
export interface FilmLayers {
  /** Names of the light groups that have a layer each. */
  groups: string[];
  /** Names of parts and materials, when there are masks of them, depth and light studies. */
  aovs: { objects: string[]; materials: string[] } | null;
}
export const NO_LAYERS: FilmLayers = { groups: [], aovs: null };
/** Layers of three floats that the AOVs of a pixel take together; where each begins, in floats. */
export const AOV_LAYERS = 10;
export const AOV_DIRECT = 0;
export const AOV_SPECULAR = 3;
export const AOV_TRANSMITTED = 6;
/** Samples of the hits that are occluded nearby. */
export const AOV_OCCLUDED = 9;
export const AOV_DEPTH = 10;
export const AOV_HITS = 11;
/** Four places of an object's id and its samples, then four of a material's. */
export const AOV_OBJECTS = 12;
export const AOV_MATERIALS = 20;
export const ID_PLACES = 4;
export const layerCount = ({ groups, aovs }: FilmLayers): number => groups.length + (aovs ? AOV_LAYERS : 0);
/** Where the layers of pixel `i` begin in a tile of `pixels`: three floats each, light groups first, then the AOVs. */
export const layersAt = (i: number, pixels: number, layers: number): number => pixels * CHANNELS + i * layers * 3;
/** Floats of a tile: its pixels, and behind them three a layer and pixel. */
export const tileFloats = (pixels: number, layers: number): number => pixels * (CHANNELS + 3 * layers);
export interface TileRect {
  index: number;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Tiles of a film, nearest to the middle first, so that what matters most appears first. The index is row-major. */
export function tilesOf(width: number, height: number): TileRect[] {
  const columns = Math.ceil(width / TILE_PX);
  const rows = Math.ceil(height / TILE_PX);
  const tiles: TileRect[] = [];
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      const x = c * TILE_PX;
      const y = r * TILE_PX;
      tiles.push({
        index: r * columns + c,
        x,
        y,
        width: Math.min(TILE_PX, width - x),
        height: Math.min(TILE_PX, height - y)
      });
    }
  }
  const away = (t: TileRect) => (t.x + t.width / 2 - width / 2) ** 2 + (t.y + t.height / 2 - height / 2) ** 2;
  return tiles.sort((a, b) => away(a) - away(b) || a.index - b.index);
}

/** Samples of the first whole pass; from there on counts double. */
export const SPAN = 16;

/**
 * Cumulative sample counts at which a tile is handed on, checked for grain and saved: two quick looks at the whole
 * picture, a span, then doublings, then the limit. A limit below or between them is its own last step.
 */
export function passEnds(samples: number): number[] {
  const ends = [1, 4].filter((end) => end < samples);
  for (let end = SPAN; end < samples; end *= 2) ends.push(end);
  ends.push(samples);
  return ends;
}

/** Grain of fewer samples says too little to stop by. */
export const FIRST_DECISION = 16;

/** Even and odd samples among the first n. */
export const halves = (n: number): [number, number] => [Math.ceil(n / 2), Math.floor(n / 2)];
