/**
 * What the denoising filter made of a film, beside it: rgb means, a slot a film tile, so any tile is read by itself. Of
 * light layers a slot has a plane each, one after the other.
 */
import { type FileHandle, open, rename } from 'node:fs/promises';
import type { DenoisedSink, DenoisedSource } from '../../core/film/denoised';
import { TILE_PX, type TileRect } from '../../core/film/film';
import { Refusal } from '../../core/result/result';
import { isWhole, keepSum, keptSum, sumOfFile } from './checksum';
import { DAMAGED_FILM } from './film-store';

const PLANE_BYTES = TILE_PX * TILE_PX * 3 * 4;

export class DenoisedFile implements DenoisedSource, DenoisedSink {
  private constructor(
    private readonly path: string,
    private readonly part: string,
    private readonly file: FileHandle,
    private readonly planes: number
  ) {}

  /**
   * Begins one; it takes its place when it is sealed, so a reader never meets half a one. `fence` is that of the job that
   * writes it, or another mark of its own, so that two workers never write one file.
   */
  static async begin(path: string, fence: number | string, planes = 1): Promise<DenoisedFile> {
    const part = `${path}.${fence}.part`;
    return new DenoisedFile(path, part, await open(part, 'w+'), planes);
  }

  /** Null when there is none; refuses one that is not what was kept. Those from before have no checksum. */
  static async open(path: string, planes = 1): Promise<DenoisedFile | null> {
    if ((await keptSum(path)) !== null && !(await isWhole(path)))
      throw new Refusal(
        DAMAGED_FILM,
        'the denoised film of this proof was damaged on the disk. Render the picture again'
      );
    const file = await open(path, 'r').catch(() => null);
    return file && new DenoisedFile(path, path, file, planes);
  }

  async write(tile: TileRect, rgb: Float32Array, plane = 0): Promise<void> {
    const at = (tile.index * this.planes + plane) * PLANE_BYTES;
    await this.file.write(new Uint8Array(rgb.buffer, rgb.byteOffset, rgb.byteLength), 0, rgb.byteLength, at);
  }

  /** rgb a plane and pixel. */
  async read(tile: TileRect): Promise<Float32Array> {
    const { planes } = this;
    const pixels = tile.width * tile.height;
    const out = new Float32Array(pixels * planes * 3);
    const rgb = planes === 1 ? out : new Float32Array(pixels * 3);
    for (let plane = 0; plane < planes; plane++) {
      const at = (tile.index * planes + plane) * PLANE_BYTES;
      await this.file.read(new Uint8Array(rgb.buffer), 0, rgb.byteLength, at);
      if (planes === 1) break;
      for (let i = 0; i < pixels; i++) for (let c = 0; c < 3; c++) out[(i * planes + plane) * 3 + c] = rgb[i * 3 + c]!;
    }
    return out;
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
