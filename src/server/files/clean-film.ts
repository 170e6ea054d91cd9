/** What the denoising filter made of a film, beside it: rgb means, a slot a film tile, so any tile is read by itself. */
import { type FileHandle, open, rename, rm } from 'node:fs/promises';
import { mixClean, TILE_PX, type TileRect } from '../../core/film/film';
import type { FilmSource, TileState } from './film-store';

const SLOT_BYTES = TILE_PX * TILE_PX * 3 * 4;

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

export class CleanFile implements CleanSource, CleanSink {
  private constructor(
    private readonly path: string,
    private readonly file: FileHandle
  ) {}

  /** Begins one; it takes its place when it is sealed, so a reader never meets half a one. */
  static async begin(path: string): Promise<CleanFile> {
    return new CleanFile(path, await open(`${path}.part`, 'w+'));
  }

  static async open(path: string): Promise<CleanFile | null> {
    const file = await open(path, 'r').catch(() => null);
    return file && new CleanFile(path, file);
  }

  async write(tile: TileRect, rgb: Float32Array): Promise<void> {
    await this.file.write(new Uint8Array(rgb.buffer, rgb.byteOffset, rgb.byteLength), 0, rgb.byteLength, tile.index * SLOT_BYTES);
  }

  async read(tile: TileRect): Promise<Float32Array> {
    const rgb = new Float32Array(tile.width * tile.height * 3);
    await this.file.read(new Uint8Array(rgb.buffer), 0, rgb.byteLength, tile.index * SLOT_BYTES);
    return rgb;
  }

  async seal(): Promise<void> {
    await this.file.sync();
    await this.file.close();
    await rename(`${this.path}.part`, this.path);
  }

  async discard(): Promise<void> {
    await this.file.close();
    await rm(`${this.path}.part`, { force: true });
  }

  async close(): Promise<void> {
    await this.file.close();
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
