/** What a denoising filter made of a film, and the film as its finish shows it. */
import { mixClean, type TileRect } from './film';
import type { FilmSource, TileState } from './store';

export interface CleanSource {
  /** rgb means of a tile, row by row. */
  read(tile: TileRect): Promise<Float32Array>;
}

export interface CleanSink {
  write(tile: TileRect, rgb: Float32Array): Promise<void>;
}

export class MemoryClean implements CleanSource, CleanSink {
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
    private readonly clean: CleanSource,
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
    const [data, clean] = await Promise.all([this.film.read(tile, floats), this.clean.read(rect)]);
    return mixClean(data, rect.width * rect.height, this.film.state(tile)!.samples, clean, this.amount);
  }
}
