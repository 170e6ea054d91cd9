/**
 * A film on disk. Each tile has two slots used in turn: a tile is written to the slot that its committed state does not
 * point at, so a kill in the middle of a write loses that write and nothing else.
 */
import { createHash } from 'node:crypto';
import { type FileHandle, open, readFile, rename } from 'node:fs/promises';
import { dirname } from 'node:path';
import { crc32 } from 'node:zlib';
import { TILE_PX, tileFloats } from '../../core/film/film';
import { filmBytes } from '../../core/film/film-bytes';
import type { FilmSource, FilmStore, TileState } from '../../core/film/store';
import { Refusal } from '../../core/result/result';

interface Slot extends TileState {
  slot: 0 | 1;
  /** Length and checksum of what was written there; films from before have none. */
  bytes?: number;
  crc?: number;
}

export class DiskFilm implements FilmStore {
  /** Written, but not yet in the state on disk. */
  private readonly pending = new Map<number, Slot>();
  /** Tiles whose slot is being written: not to be committed before they are whole. */
  private readonly writing = new Set<number>();
  /** Tiles of the commit under way: until it is on disk neither of their slots may be written. */
  private committing: { tiles: Set<number>; end: Promise<void> } | null = null;

  private constructor(
    private readonly path: string,
    private readonly file: FileHandle,
    private readonly tiles: (Slot | null)[],
    private readonly slotBytes: number,
    private readonly guard: () => void
  ) {}

  /**
   * Opens a film, or begins one, of so many layers. `path`.film holds the slots, `path`.state.json which of them count.
   * Tiles that are not what was written count as not rendered.
   * `guard` is called before every write and throws when this process may no longer write.
   */
  static async open(path: string, tileCount: number, layers = 0, guard = () => {}): Promise<DiskFilm> {
    const file = await open(`${path}.film`, 'r+').catch(() => open(`${path}.film`, 'w+'));
    const tiles = (await readState(path, tileCount)) ?? Array.from({ length: tileCount }, () => null);
    const slotBytes = tileFloats(TILE_PX * TILE_PX, layers) * 4;
    for (const [tile, slot] of tiles.entries())
      if (slot && !(await isWhole(file, slot, (tile * 2 + slot.slot) * slotBytes))) tiles[tile] = null;
    return new DiskFilm(path, file, tiles, slotBytes, guard);
  }

  /** Opens a film that is there, for reading alone. */
  static async openToRead(path: string, tileCount: number, layers = 0): Promise<DiskFilm> {
    const file = await open(`${path}.film`, 'r').catch(() => null);
    const tiles = await readState(path, tileCount);
    if (!file || !tiles) {
      await file?.close();
      throw new Refusal(DAMAGED_FILM, 'the film of this proof is missing on the disk. Render the picture again');
    }
    return new DiskFilm(path, file, tiles, tileFloats(TILE_PX * TILE_PX, layers) * 4, () => {
      throw new Error('DiskFilm: a film that was opened for reading was written to');
    });
  }

  state(tile: number): TileState | null {
    return this.pending.get(tile) ?? this.tiles[tile] ?? null;
  }

  async read(tile: number, floats: number): Promise<Float32Array> {
    const slot = (this.pending.get(tile) ?? this.tiles[tile])!.slot;
    const data = new Float32Array(floats);
    await this.file.read(new Uint8Array(data.buffer), 0, floats * 4, (tile * 2 + slot) * this.slotBytes);
    return data;
  }

  /** Writes of one tile must follow each other; those of different tiles need not. */
  async write(tile: number, data: Float32Array, state: TileState): Promise<void> {
    while (this.committing?.tiles.has(tile)) await this.committing.end;
    this.guard();
    this.writing.add(tile);
    try {
      const slot: 0 | 1 = this.tiles[tile]?.slot === 0 ? 1 : 0;
      const bytes = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
      await this.file.write(bytes, 0, bytes.length, (tile * 2 + slot) * this.slotBytes);
      this.pending.set(tile, { ...state, slot, bytes: bytes.length, crc: crc32(bytes) });
    } catch (error) {
      this.pending.delete(tile); // its slot may be torn
      throw error;
    } finally {
      this.writing.delete(tile);
    }
  }

  async commit(): Promise<void> {
    while (this.committing) await this.committing.end;
    const taken = [...this.pending].filter(([tile]) => !this.writing.has(tile));
    if (taken.length === 0) return;
    const end = this.makeDurable(taken).finally(() => {
      this.committing = null;
    });
    this.committing = { tiles: new Set(taken.map(([tile]) => tile)), end };
    await end;
  }

  private async makeDurable(taken: readonly (readonly [number, Slot])[]): Promise<void> {
    await this.file.sync();
    this.guard();
    const tiles = [...this.tiles];
    for (const [tile, slot] of taken) tiles[tile] = slot;
    const state = await open(`${this.path}.state.tmp`, 'w');
    try {
      await state.writeFile(JSON.stringify(tiles));
      await state.sync();
    } finally {
      await state.close();
    }
    await rename(`${this.path}.state.tmp`, `${this.path}.state.json`);
    const folder = await open(dirname(this.path), 'r');
    try {
      await folder.sync();
    } finally {
      await folder.close();
    }
    for (const [tile, slot] of taken) {
      this.tiles[tile] = slot;
      this.pending.delete(tile);
    }
  }

  /** Commits what was written, unless the guard forbids it, and closes the file. */
  async close(): Promise<void> {
    try {
      await this.commit();
    } finally {
      await this.file.close();
    }
  }
}

async function isWhole(file: FileHandle, { bytes, crc }: Slot, at: number): Promise<boolean> {
  if (bytes === undefined || crc === undefined) return true;
  const { buffer, bytesRead } = await file.read(Buffer.allocUnsafe(bytes), 0, bytes, at);
  return bytesRead === bytes && crc32(buffer) === crc;
}

/** Which slot of each tile counts; null when there is none, or it is of another film. */
async function readState(path: string, tileCount: number): Promise<(Slot | null)[] | null> {
  try {
    const saved = JSON.parse(await readFile(`${path}.state.json`, 'utf8')) as (Slot | null)[];
    return saved.length === tileCount ? saved : null;
  } catch {
    return null;
  }
}

/** The hash of a film: of its filmBytes. */
export async function hashFilm(
  film: FilmSource,
  width: number,
  height: number,
  tiles: readonly { index: number; width: number; height: number }[]
): Promise<string> {
  const hash = createHash('sha256');
  for await (const part of filmBytes(film, width, height, tiles)) hash.update(part);
  return hash.digest('hex');
}

/** Code of the refusal of a film that is not what was rendered. */
export const DAMAGED_FILM = 'damaged_film';

/** Refuses a film whose hash is not the one that was kept at its end; one without a hash has not ended. */
export async function refuseDamaged(
  film: FilmSource,
  kept: string | null,
  width: number,
  height: number,
  tiles: readonly { index: number; width: number; height: number }[]
): Promise<void> {
  if (kept !== null && (await hashFilm(film, width, height, tiles)) !== kept)
    throw new Refusal(DAMAGED_FILM, 'the film of this proof was damaged on the disk. Render the picture again');
}
