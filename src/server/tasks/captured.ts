/** Reads a captured image: whether it can be used, its sun, its strip, and the image itself when it had to be reduced. */
import { readFile, writeFile } from 'node:fs/promises';
import { luminance, rec709ToXyz } from '../../core/color/spaces';
import { correlatedKelvin } from '../../core/color/spectrum';
import { developStrip } from '../../core/finishing/captured-strip';
import { findSun } from '../../core/lights/captured/find-sun';
import { LARGEST_PX, reduceImage } from '../../core/lights/captured/reduce';
import { Refusal } from '../../core/result/result';
import { degrees } from '../../core/units/units';
import { writeExr } from '../../formats/exr/write-exr';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { encodePng } from '../../formats/image/encode';
import { ImageRefused } from '../../formats/image/refused';
import { serveTask } from '../jobs/serve-task';
import type { CapturedSun } from '../jobs/tasks';
import { capturedSize, decodeCaptured } from '../render/captured-file';

serveTask('captured', async ({ path, name, reduce, out }) => {
  const bytes = new Uint8Array(await readFile(path));
  // the header says whether it is worth decoding
  const { width, height } = named(name, () => capturedSize(bytes));
  if (Math.abs(width / height - 2) > 0.02)
    throw new Refusal(
      'refused',
      `"${name}" is ${width} × ${height} px; surroundings must be a full 360° image, twice as wide as high`
    );
  const reduced = width > LARGEST_PX;
  if (reduced && !reduce)
    throw new Refusal(
      'too_large',
      `"${name}" is ${width.toLocaleString('en')} × ${height.toLocaleString('en')} px; Sphaera keeps at most ` +
        `${LARGEST_PX.toLocaleString('en')} px across, which is finer than any picture of it shows. It can be brought ` +
        'in reduced, its light unchanged'
    );
  const image = named(name, () => decodeCaptured(bytes));
  const kept = reduced ? reduceImage(image, LARGEST_PX) : image;
  if (reduced) await writeReduced(`${out}.exr`, kept);
  await writeFile(`${out}.png`, await encodePng(developStrip(kept), null, false));
  return { width: kept.width, height: kept.height, reduced, sun: describeSun(kept) };
});

/** A refusal begins with the file's name. */
function named<T>(name: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof ImageRefused) throw new Refusal('refused', `"${name}" ${error.message}`);
    throw error;
  }
}

function writeReduced(path: string, { width, height, pixels }: FloatImage): Promise<void> {
  return writeExr(path, {
    width,
    height,
    ppi: null,
    channels: ['R', 'G', 'B'].map((name, at) => ({ name, at })),
    stride: 3,
    readRows: (y, n) => pixels.subarray(y * width * 3, (y + n) * width * 3)
  });
}

function describeSun(image: FloatImage): CapturedSun | null {
  const sun = findSun(image);
  if (!sun) return null;
  return {
    height_deg: degrees(Math.asin(sun.direction[1])),
    lux: luminance(sun.irradiance),
    kelvin: Math.round(correlatedKelvin(rec709ToXyz(sun.irradiance))),
    radius_deg: degrees(sun.radius)
  };
}
