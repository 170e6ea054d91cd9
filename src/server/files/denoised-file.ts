/**
 * What the denoising filter made of a film, beside it: rgb means, a slot a film tile, so any tile is read by itself.
 */
import { type FileHandle, open, rename } from 'node:fs/promises';
import type { DenoisedSink, DenoisedSource } from '../../core/film/denoised';
import { TILE_PX, type TileRect } from '../../core/film/film';

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

  static async open(path: string): Promise<DenoisedFile | null> {
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
    await rename(this.part, this.path);
  }

  async close(): Promise<void> {
    await this.file.close();
  }
}
