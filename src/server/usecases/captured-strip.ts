/** A captured image as a strip to turn it by: the whole circle, from 40 degrees below the horizon to 40 above. */
import { access, mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { encodeSrgb } from '../../core/color/srgb';
import { toneColor } from '../../core/color/tone';
import { evOfLuminance, whiteLuminance } from '../../core/brief/exposure';
import { encodePng } from '../../formats/image/encode';
import { config } from '../config';
import { contentPath } from '../files/content-store';
import { readCaptured } from '../render/captured-file';
import { findCaptured } from '../store/projects';

const WIDTH = 592;
const HEIGHT = 132;
const BAND = 80 / 180; // of the image's height

/** Path of the PNG; null when there is no such image. */
export async function capturedStrip(sha256: string): Promise<string | null> {
  if (!findCaptured(sha256)) return null;
  const path = join(config.dataDir, 'previews', `strip-${sha256}.png`);
  if (await access(path).then(() => true, () => false)) return path;
  const image = await readCaptured(contentPath('captured', sha256), 'the captured image');
  const means = new Float32Array(WIDTH * HEIGHT * 3);
  const logs: number[] = [];
  for (let y = 0; y < HEIGHT; y++) {
    const top = ((1 - BAND) / 2 + (BAND * y) / HEIGHT) * image.height;
    const rows = [Math.floor(top), Math.max(Math.floor(top) + 1, Math.floor(top + (BAND * image.height) / HEIGHT))] as const;
    for (let x = 0; x < WIDTH; x++) {
      const columns = [Math.floor((x * image.width) / WIDTH), Math.max(Math.floor((x * image.width) / WIDTH) + 1, Math.floor(((x + 1) * image.width) / WIDTH))] as const;
      const at = (y * WIDTH + x) * 3;
      let n = 0;
      for (let j = rows[0]; j < rows[1]; j++) {
        for (let i = columns[0]; i < columns[1]; i++, n++) for (let c = 0; c < 3; c++) means[at + c] = means[at + c]! + image.pixels[(j * image.width + i) * 3 + c]!;
      }
      for (let c = 0; c < 3; c++) means[at + c] = means[at + c]! / n;
      logs.push(Math.log2(Math.max(1e-9, 0.2126 * means[at]! + 0.7152 * means[at + 1]! + 0.0722 * means[at + 2]!)));
    }
  }
  const white = whiteLuminance(evOfLuminance(2 ** (logs.reduce((sum, v) => sum + v, 0) / logs.length)));
  const pixels = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  const rgb = [0, 0, 0];
  for (let i = 0; i < WIDTH * HEIGHT; i++) {
    toneColor(rgb, means[i * 3]! / white, means[i * 3 + 1]! / white, means[i * 3 + 2]! / white);
    for (let c = 0; c < 3; c++) pixels[i * 4 + c] = Math.round(255 * encodeSrgb(rgb[c]!));
  }
  await mkdir(join(config.dataDir, 'previews'), { recursive: true });
  const part = `${path}.${process.pid}.part`;
  await writeFile(part, await encodePng({ pixels, width: WIDTH, height: HEIGHT }, null, false));
  await rename(part, path);
  return path;
}
