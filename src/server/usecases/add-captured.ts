/** A captured 360 degree image into the library: read once to be sure that it can be used. */
import { readFile } from 'node:fs/promises';
import type { CapturedDto, CapturedSunDto } from '../../contracts/dto';
import { luminance, rec709ToXyz } from '../../core/color/spaces';
import { correlatedKelvin } from '../../core/color/spectrum';
import { findSun } from '../../core/lights/captured/find-sun';
import { degrees } from '../../core/units/units';
import type { FloatImage } from '../../formats/hdr/read-hdr';
import { contentPath, has, put } from '../files/content-store';
import { decodeCaptured } from '../render/captured-file';
import { insertCaptured } from '../store/projects';
import { done, type Outcome, refused } from './identify';

export async function addCaptured(upload: string, name: string): Promise<Outcome<Omit<CapturedDto, 'name'>>> {
  if (!(await has('incoming', upload))) return refused(`"${name}" did not arrive whole; bring it in again`, 'missing_upload');
  const bytes = new Uint8Array(await readFile(contentPath('incoming', upload)));
  try {
    const image = decodeCaptured(bytes, name);
    const { width, height } = image;
    if (Math.abs(width / height - 2) > 0.02) return refused(`"${name}" is ${width} × ${height} px; surroundings must be a full 360° image, twice as wide as high`);
    const sun = describeSun(image);
    const { sha256 } = await put('captured', bytes);
    insertCaptured({ sha256, name: name.replace(/\.[A-Za-z0-9]+$/, '').slice(0, 80), width_px: width, height_px: height, created_at_ms: Date.now(), sun_json: JSON.stringify(sun) });
    return done({ sha256, width_px: width, height_px: height, sun });
  } catch (error) {
    return refused((error as Error).message.replace(/^surroundings\.file /, ''));
  }
}

function describeSun(image: FloatImage): CapturedSunDto | null {
  const sun = findSun(image);
  if (!sun) return null;
  return { height_deg: degrees(Math.asin(sun.direction[1])), lux: luminance(sun.irradiance), kelvin: Math.round(correlatedKelvin(rec709ToXyz(sun.irradiance))), radius_deg: degrees(sun.radius) };
}
