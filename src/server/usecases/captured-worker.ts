/**
 * The isolated process that reads a captured image: a large one takes seconds and gigabytes, which the web server must
 * not. Takes a job as JSON from its argument and writes beside `out` what examine-captured.ts says.
 */
import { readFile, writeFile } from 'node:fs/promises';
import type { CapturedSunDto } from '../../contracts/dto';
import { luminance, rec709ToXyz } from '../../core/color/spaces';
import { correlatedKelvin } from '../../core/color/spectrum';
import { findSun } from '../../core/lights/captured/find-sun';
import { LARGEST_PX, reduceImage } from '../../core/lights/captured/reduce';
import { developStrip } from '../../core/finishing/captured-strip';
import { degrees } from '../../core/units/units';
import { writeExr } from '../../formats/exr/write-exr';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { encodePng } from '../../formats/image/encode';
import { decodeCaptured } from '../render/captured-file';
import type { CapturedJob, CapturedSaid } from './examine-captured';

const job = JSON.parse(process.argv[2]!) as CapturedJob;
const say = async (said: CapturedSaid) => writeFile(`${job.out}.json`, JSON.stringify(said));

async function read(): Promise<CapturedSaid> {
  const { name } = job;
  const image = decodeCaptured(new Uint8Array(await readFile(job.path)), name);
  const { width, height } = image;
  if (Math.abs(width / height - 2) > 0.02)
    return {
      ok: false,
      code: 'refused',
      message: `"${name}" is ${width} × ${height} px; surroundings must be a full 360° image, twice as wide as high`
    };
  if (width <= LARGEST_PX) return accept(image, false);
  if (!job.reduce)
    return {
      ok: false,
      code: 'too_large',
      message:
        `"${name}" is ${width.toLocaleString('en')} × ${height.toLocaleString('en')} px; Sphaera keeps ` +
        `at most ${LARGEST_PX.toLocaleString('en')} px across, which is finer than any picture of it ` +
        `shows. It can be brought in reduced, its light unchanged`
    };
  const small = reduceImage(image, LARGEST_PX);
  const { pixels } = small;
  const rows = (y: number, n: number) => pixels.subarray(y * small.width * 3, (y + n) * small.width * 3);
  await writeExr(`${job.out}.exr`, {
    width: small.width,
    height: small.height,
    ppi: null,
    channels: ['R', 'G', 'B'].map((channel, at) => ({ name: channel, at })),
    stride: 3,
    readRows: rows
  });
  return accept(small, true);
}

async function accept(image: FloatImage, reduced: boolean): Promise<CapturedSaid> {
  await writeFile(`${job.out}.png`, await encodePng(developStrip(image), null, false));
  return { ok: true, width: image.width, height: image.height, reduced, sun: describeSun(image) };
}

function describeSun(image: FloatImage): CapturedSunDto | null {
  const sun = findSun(image);
  if (!sun) return null;
  return {
    height_deg: degrees(Math.asin(sun.direction[1])),
    lux: luminance(sun.irradiance),
    kelvin: Math.round(correlatedKelvin(rec709ToXyz(sun.irradiance))),
    radius_deg: degrees(sun.radius)
  };
}

await say(
  await read().catch(
    (error: unknown): CapturedSaid => ({
      ok: false,
      code: 'refused',
      message: (error as Error).message.replace(/^surroundings\.file /, '')
    })
  )
);
process.exit(0);
