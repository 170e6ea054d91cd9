/** What a denoising filter made of a film, and the film as its finish shows it. */
import { luminanceAt } from '../color/spaces';
import { evenBackdrop, isAlone } from './backdrop';
import { BACKDROP, BACKDROP_SHARE, CHANNELS, EVEN, ODD, type TileRect } from './film';
import type { FilmSource, TileState } from './store';

export interface DenoisedSource {
  /** rgb means of a tile, row by row. */
  read(tile: TileRect): Promise<Float32Array>;
}

export interface DenoisedSink {
  write(tile: TileRect, rgb: Float32Array): Promise<void>;
}

export class MemoryDenoised implements DenoisedSource, DenoisedSink {
  private readonly tiles = new Map<number, Float32Array>();
  async read(tile: TileRect): Promise<Float32Array> {
    return this.tiles.get(tile.index)!;
  }
  async write(tile: TileRect, rgb: Float32Array): Promise<void> {
    this.tiles.set(tile.index, rgb);
  }
}

/** A film as its finish shows it: with some of its grain taken away. */
export class FinishedFilm implements FilmSource {
  private readonly tiles = new Map<number, TileRect>();

  constructor(
    private readonly film: FilmSource,
    private readonly denoised: DenoisedSource,
    private readonly amount: number,
    tiles: readonly TileRect[]
  ) {
    for (const tile of tiles) this.tiles.set(tile.index, tile);
  }

  state(tile: number): TileState | null {
    return this.film.state(tile);
  }

  async read(tile: number, floats: number): Promise<Float32Array> {
    const rect = this.tiles.get(tile)!;
    const [data, denoised] = await Promise.all([this.film.read(tile, floats), this.denoised.read(rect)]);
    return mixDenoised(data, rect, this.film.state(tile)!.samples, denoised, this.amount);
  }
}

/**
 * A tile whose radiance is, by `amount` (0 to 1), what a filter made of it; `denoised` holds rgb means. The rest of the
 * film is as it was, but for the backdrop: evened out where it is seen by its share (backdrop.ts), and the shadow on a
 * ground, which has the picture's grain and loses it with the picture where nothing else is seen.
 * Both halves become alike, so a mixed tile is for looking at and not for measuring grain.
 */
export function mixDenoised(
  tile: Float32Array,
  { width, height }: Pick<TileRect, 'width' | 'height'>,
  samples: number,
  denoised: Float32Array,
  amount: number
): Float32Array {
  const out = tile.slice();
  if (amount > 0) evenBackdrop(tile, out, width, height, samples);
  for (let i = 0; i < width * height; i++) {
    const p = i * CHANNELS;
    for (let c = BACKDROP; c <= BACKDROP_SHARE; c++) out[p + c] = tile[p + c]! + (out[p + c]! - tile[p + c]!) * amount;
    for (let c = 0; c < 3; c++) {
      const sum = tile[p + EVEN + c]! + tile[p + ODD + c]!;
      const mixed = (sum + (denoised[i * 3 + c]! * samples - sum) * amount) / 2;
      out[p + EVEN + c] = mixed;
      out[p + ODD + c] = mixed;
    }
    // in the surroundings themselves the share is whole
    const share = tile[p + BACKDROP_SHARE]!;
    if (share === 0 || Math.abs(share - samples) < 1e-6 * samples) continue;
    if (!isAlone(tile, p)) continue;
    const k =
      (luminanceAt(out, p + EVEN) + luminanceAt(out, p + ODD)) /
      (luminanceAt(tile, p + EVEN) + luminanceAt(tile, p + ODD));
    for (let c = BACKDROP; c <= BACKDROP_SHARE; c++) out[p + c] = tile[p + c]! * k;
  }
  return out;
}
