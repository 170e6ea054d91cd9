/**
 * The sky as a latitude-longitude image in cd/m2 (linear Rec. 709), and the sun that goes with it.
 * Clear air from atmosphere.ts, blended towards an overcast sky by the share of cloud; below the horizon a grey ground lit by both.
 * Sources: CIE S 011 type 16 (the traditional overcast sky, L(h) = Lz (1 + 2 sin h) / 3, Moon and Spencer 1942); Krochmann 1963
 * (overcast horizontal illuminance 300 + 21,000 sin h lx).
 */
import { xyzToRec709 } from '../../color/spaces';
import { SAMPLES, spectrumToXyz } from '../../color/spectrum';
import type { Vec3 } from '../../math/vec3';
import { createAir, hazePhase, moleculePhase, SUN_RADIUS_RAD, skyRow, sunTransmittance } from './atmosphere';

export interface SkyImage {
  width: number;
  height: number;
  /** rgb, row 0 looks up; column u looks along angle (u - 1/2) 2 pi from +X towards +Z. */
  pixels: Float32Array;
  /** Radiance of the disc in cd/m2; null below the horizon or behind full cloud. */
  sun: { direction: Vec3; radiance: Vec3; oneMinusCos: number; illuminance_lx: number } | null;
}

export interface SkyOptions {
  /** World direction towards the sun. */
  direction: Vec3;
  visibility_km: number;
  /** 0 clear to 1 overcast. */
  cloud: number;
  width?: number;
}

const GROUND_REFLECTANCE = 0.2;
const ROWS = 48;
const COLUMNS = 33;

/** CIE traditional overcast sky: luminance towards an elevation relative to the zenith. */
export const overcastRelative = (sinElevation: number): number => (1 + 2 * sinElevation) / 3;
/** Zenith luminance of an overcast sky with the sun at an elevation, cd/m2. */
export function overcastZenith(sunElevation: number): number {
  const illuminance = 300 + 21_000 * Math.max(0, Math.sin(sunElevation));
  return illuminance / ((7 * Math.PI) / 9);
}

/** Direct sunlight on a surface facing it, lx per channel. */
export function directSun(visibilityKm: number, elevation: number): Vec3 {
  const air = createAir(visibilityKm);
  const through = sunTransmittance(air, 0.02, Math.sin(elevation), new Float64Array(SAMPLES));
  const spectrum = air.sun.map((s, i) => s * through[i]!);
  return xyzToRec709(spectrumToXyz(spectrum)).map((c) => Math.max(0, c)) as unknown as Vec3;
}

export function makeSky(options: SkyOptions): SkyImage {
  const width = options.width ?? 512;
  const height = width / 2;
  const [sx, sy, sz] = options.direction;
  const elevation = Math.asin(Math.max(-1, Math.min(1, sy)));
  const clear = 1 - options.cloud;
  const pixels = new Float32Array(width * height * 3);
  const half = height / 2;

  // smooth terms on a coarse grid: elevation squared-spaced towards the horizon, azimuth from the sun over half a turn
  const air = createAir(options.visibility_km);
  const grid = new Float32Array(ROWS * COLUMNS * 9);
  const night = elevation < -0.1047; // 6 degrees: end of civil twilight
  if (!night && clear > 0) {
    const turns = Array.from({ length: COLUMNS }, (_, c) => (Math.PI * c) / (COLUMNS - 1));
    for (let r = 0; r < ROWS; r++) {
      for (const [c, terms] of skyRow(air, (Math.PI / 2) * (r / (ROWS - 1)) ** 2, turns, elevation).entries()) {
        [terms.molecules, terms.haze, terms.rest].forEach((xyz, k) => {
          const rgb = xyzToRec709(xyz);
          for (let i = 0; i < 3; i++) grid[(r * COLUMNS + c) * 9 + k * 3 + i] = rgb[i]!;
        });
      }
    }
  }
  const zenith = overcastZenith(elevation) * options.cloud;
  const azimuthOfSun = Math.atan2(sz, sx);
  let ground = [0, 0, 0];
  const terms = new Float64Array(9);
  for (let j = 0; j < half; j++) {
    const h = Math.PI / 2 - ((j + 0.5) / height) * Math.PI;
    const sin = Math.sin(h);
    const cos = Math.cos(h);
    const row = Math.sqrt(h / (Math.PI / 2)) * (ROWS - 1);
    const r0 = Math.min(ROWS - 2, Math.floor(row));
    const fr = row - r0;
    for (let i = 0; i < width; i++) {
      const azimuth = ((i + 0.5) / width - 0.5) * 2 * Math.PI;
      let turn = Math.abs(azimuth - azimuthOfSun) % (2 * Math.PI);
      if (turn > Math.PI) turn = 2 * Math.PI - turn;
      const column = (turn / Math.PI) * (COLUMNS - 1);
      const c0 = Math.min(COLUMNS - 2, Math.floor(column));
      const fc = column - c0;
      for (let k = 0; k < 9; k++) {
        const a = grid[(r0 * COLUMNS + c0) * 9 + k]! * (1 - fc) + grid[(r0 * COLUMNS + c0 + 1) * 9 + k]! * fc;
        const b = grid[((r0 + 1) * COLUMNS + c0) * 9 + k]! * (1 - fc) + grid[((r0 + 1) * COLUMNS + c0 + 1) * 9 + k]! * fc;
        terms[k] = a * (1 - fr) + b * fr;
      }
      const toSun = cos * Math.cos(azimuth) * sx + sin * sy + cos * Math.sin(azimuth) * sz;
      const m = moleculePhase(toSun);
      const z = hazePhase(toSun);
      const grey = zenith * overcastRelative(sin);
      const angle = (cos * 2 * Math.PI * Math.PI) / (width * height);
      for (let k = 0; k < 3; k++) {
        const value = Math.max(0, clear * (terms[k]! * m + terms[3 + k]! * z + terms[6 + k]!)) + grey;
        pixels[(j * width + i) * 3 + k] = value;
        ground[k] = ground[k]! + value * sin * angle;
      }
    }
  }

  // a cloud of share c lets 1 - c of the disc through; the rest is in the overcast sky
  const direct = directSun(options.visibility_km, elevation);
  const oneMinusCos = 2 * Math.sin(SUN_RADIUS_RAD / 2) ** 2;
  const solidAngle = 2 * Math.PI * oneMinusCos;
  const up = elevation > -SUN_RADIUS_RAD && clear > 0.02;
  const lux = direct.map((c) => c * clear) as unknown as Vec3;
  const sun = up && lux[0] > 0 ? { direction: options.direction, radiance: lux.map((c) => c / solidAngle) as unknown as Vec3, oneMinusCos, illuminance_lx: 0.2126 * lux[0] + 0.7152 * lux[1] + 0.0722 * lux[2] } : null;
  if (sun) ground = ground.map((g, k) => g + lux[k]! * Math.max(0, sy));
  for (let j = half; j < height; j++) {
    for (let i = 0; i < width; i++) {
      for (let k = 0; k < 3; k++) pixels[(j * width + i) * 3 + k] = (ground[k]! * GROUND_REFLECTANCE) / Math.PI;
    }
  }
  return { width, height, pixels, sun };
}
