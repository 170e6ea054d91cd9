/**
 * What the denoising filter made of a film, beside it: rgb means, a slot a film tile, so any tile is read by itself.
 */
import { type FileHandle, open, rename } from 'node:fs/promises';
import type { DenoisedSink, DenoisedSource } from '../../core/film/denoised';
import { TILE_PX, type TileRect } from '../../core/film/film';
import { Refusal } from '../../core/result/result';
import { isWhole, keepSum, keptSum, sumOfFile } from './checksum';
import { DAMAGED_FILM } from './film-store';

const SLOT_BYTES = TILE_PX * TILE_PX * 3 * 4;

export class DenoisedFile implements DenoisedSource, DenoisedSink {
  private constructor(
    private readonly path: string,
    private readonly part: string,
    private readonly file: FileHandle
  ) {}

  /**
   * Begins one; it takes its place when it is sealed, so a reader never meets half a one. `fence` is that of the job that
   * writes it, so that two workers never write one file.
   */
  static async begin(path: string, fence: number): Promise<DenoisedFile> {
    const part = `${path}.${fence}.part`;
    return new DenoisedFile(path, part, await open(part, 'w+'));
  }

  /** Null when there is none; refuses one that is not what was kept. Those from before have no checksum. */
  static async open(path: string): Promise<DenoisedFile | null> {
    if ((await keptSum(path)) !== null && !(await isWhole(path)))
      throw new Refusal(
        DAMAGED_FILM,
        'the denoised film of this proof was damaged on the disk. Render the picture again'
      );
    const file = await open(path, 'r').catch(() => null);
    return file && new DenoisedFile(path, path, file);
  }

  async write(tile: TileRect, rgb: Float32Array): Promise<void> {
    await this.file.write(
      new Uint8Array(rgb.buffer, rgb.byteOffset, rgb.byteLength),
      0,
      rgb.byteLength,
      tile.index * SLOT_BYTES
    );
  }

  async read(tile: TileRect): Promise<Float32Array> {
    const rgb = new Float32Array(tile.width * tile.height * 3);
    await this.file.read(new Uint8Array(rgb.buffer), 0, rgb.byteLength, tile.index * SLOT_BYTES);
    return rgb;
  }

  async seal(): Promise<void> {
    await this.file.sync();
    await this.file.close();
    await keepSum(this.path, await sumOfFile(this.part));
    await rename(this.part, this.path);
  }

  async close(): Promise<void> {
    await this.file.close();
  }
}
