/**
 * The picture of a film for the screen, kept up to date tile by tile. Shrunk by a power of two in linear light before
 * it is developed, so that it shows what the sheet will look like, not what its pixels do.
 */
import { rename, writeFile } from 'node:fs/promises';
import sharp, { type Sharp } from 'sharp';
import { TILE_PX, type TileRect } from '../../core/film/film';
import { LIGHT, shrink, shrinkFactor } from '../../core/film/light';
import { encodeSrgb8 } from '../../core/finishing/encode-rows';
import { createDeveloper, type Development, type DevelopTile } from '../../core/finishing/develop';
import { encodeJpeg, encodePng } from '../../formats/image/encode';

export class ScreenPicture {
  readonly width: number;
  readonly height: number;
  private readonly factor: number;
  private readonly develop: DevelopTile;
  readonly pixels: Uint8Array;
  /** Rows of one tile, as linear light. */
  private readonly strip: Float32Array;
  /** 255 where a tile has come; elsewhere the picture is clear, so that what lies under it is seen. */
  private readonly arrived: Uint8Array;
  private missing: number;
  private dirty = false;

  constructor(
    /** Of the whole film. */
    development: Development,
    largest: number
  ) {
    const { width: filmWidth, height: filmHeight } = development;
    const factor = shrinkFactor(filmWidth, filmHeight, largest);
    this.factor = factor;
    this.width = Math.ceil(filmWidth / factor);
    this.height = Math.ceil(filmHeight / factor);
    this.develop = createDeveloper({ ...development, width: this.width, height: this.height });
    this.strip = new Float32Array(Math.min(TILE_PX, this.height) * this.width * 4);
    this.pixels = new Uint8Array(this.width * this.height * 4).fill(255);
    this.arrived = new Uint8Array(this.width * this.height);
    this.missing = this.arrived.length;
  }

  /** `light`: LIGHT floats a pixel. */
  add(tile: TileRect, light: Float32Array): void {
    const f = this.factor;
    const { data, width, height } = shrink(light, tile.width, tile.height, LIGHT, f);
    const [x, y] = [tile.x / f, tile.y / f];
    const strip = this.strip.subarray(0, height * this.width * 4);
    this.develop({ x, y, width, height, light: data }, strip, y);
    encodeSrgb8(strip, this.width, y, this.pixels.subarray(y * this.width * 4), x, x + width);
    if (this.missing > 0) this.note(x, y, width, height);
    this.dirty = true;
  }

  /** Takes a picture that was made of the whole film. */
  replace(pixels: Uint8Array): void {
    this.pixels.set(pixels);
    this.arrived.fill(255);
    this.missing = 0;
    this.dirty = true;
  }

  private note(x: number, y: number, width: number, height: number): void {
    for (let row = y; row < y + height; row++)
      for (let at = row * this.width + x; at < row * this.width + x + width; at++) {
        if (this.arrived[at] === 0) this.missing--;
        this.arrived[at] = 255;
      }
  }

  /** Pixels without transparency once every tile has come. */
  private image(): Sharp {
    const raw = { width: this.width, height: this.height, channels: 4 as const };
    if (this.missing === 0) return sharp(Buffer.from(this.pixels), { raw }).removeAlpha();
    const pixels = Buffer.from(this.pixels);
    for (let i = 0; i < this.arrived.length; i++) pixels[4 * i + 3] = this.arrived[i]!;
    return sharp(pixels, { raw });
  }

  /** Whether something has come since the last write of picture and thumbnail. */
  get changed(): boolean {
    return this.dirty;
  }

  /** What it weighs as a file to hand over, bytes a pixel. */
  async bytesPerPixel(): Promise<{ png: number; jpg: number }> {
    const pixels = this.width * this.height;
    const [png, jpg] = await Promise.all([encodePng(this, null, false), encodeJpeg(this, null)]);
    return { png: png.byteLength / pixels, jpg: jpg.byteLength / pixels };
  }

  /** Writes the picture and, unless null, its thumbnail. */
  async write(path: string, thumbnail: { path: string; px: number } | null): Promise<void> {
    if (thumbnail) this.dirty = false;
    const image = this.image();
    const files = [{ name: path, bytes: image.clone().png({ compressionLevel: 3 }).toBuffer() }];
    if (thumbnail)
      files.push({
        name: thumbnail.path,
        bytes: image.clone().resize({ width: thumbnail.px, height: thumbnail.px, fit: 'inside' }).png().toBuffer()
      });
    for (const { name, bytes } of files) {
      await writeFile(`${name}.part`, await bytes);
      await rename(`${name}.part`, name);
    }
  }
}
