/** Where a film's tiles live while it is rendered, and the simplest such place: memory. */
export interface TileState {
  samples: number;
  /** Whether the tile has reached its grain or the sample limit. */
  done: boolean;
  /** Sum over its pixels of the squared grain. */
  squaredGrain: number;
}

/** A film to read from. */
export interface FilmSource {
  state(tile: number): TileState | null;
  read(tile: number, floats: number): Promise<Float32Array>;
}

export interface FilmStore extends FilmSource {
  write(tile: number, data: Float32Array, state: TileState): Promise<void>;
  /** Makes everything written so far survive a kill. */
  commit(): Promise<void>;
  close(): Promise<void>;
}

/** A film with what its pixels mean: their number, and the luminance of displayed white in cd/m2. */
export interface FilmPicture {
  film: FilmSource;
  width: number;
  height: number;
  white: number;
}

export class MemoryFilm implements FilmStore {
  private readonly tiles = new Map<number, { data: Float32Array; state: TileState }>();
  state(tile: number): TileState | null {
    return this.tiles.get(tile)?.state ?? null;
  }
  async read(tile: number): Promise<Float32Array> {
    return this.tiles.get(tile)!.data;
  }
  async write(tile: number, data: Float32Array, state: TileState): Promise<void> {
    this.tiles.set(tile, { data, state });
  }
  async commit(): Promise<void> {}
  async close(): Promise<void> {}
}

/** Opens tiles that were done, so that a film can be taken to more samples. */
export async function reopen(film: MemoryFilm, tiles: readonly { index: number }[]): Promise<void> {
  for (const { index } of tiles) {
    const state = film.state(index);
    if (state) await film.write(index, await film.read(index), { ...state, done: false });
  }
}
