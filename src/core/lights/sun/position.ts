/**
 * Where the sun stands. Azimuth clockwise from north, elevation above the true horizon without refraction, radians.
 * Source: Meeus, Astronomical Algorithms (2nd ed., 1998), chapters 12, 13, 22 and 25, the lower-accuracy solar theory.
 * Accuracy: 0.01 degrees from 1950 to 2050; held within 0.02 by the tests. Not for eclipses.
 */
import { daysSinceJ2000, overHorizon, type OverHorizon, siderealTime } from '../sky/celestial';
import { type Radians, radians } from '../../units/units';

const DAY_MS = 86_400_000;
/** Terrestrial minus universal time; changes by a second in a few years, the sun moves 0.00001 degrees in one. */
const DELTA_T_SECONDS = 69;
const LOWEST_DEG = -1;
const EARTH_RADIUS_M = 6_378_137;
const ASTRONOMICAL_UNIT_M = 1.495978707e11;

export function sunPosition(timeMs: number, latitudeDeg: number, longitudeDeg: number): OverHorizon {
  const days = daysSinceJ2000(timeMs);
  const centuries = (days + DELTA_T_SECONDS / 86_400) / 36_525;
  const meanLongitude = 280.46646 + centuries * (36_000.76983 + centuries * 0.0003032);
  const anomaly = radians(357.52911 + centuries * (35_999.05029 - centuries * 0.0001537));
  const center =
    (1.914602 - centuries * (0.004817 + centuries * 0.000014)) * Math.sin(anomaly) +
    (0.019993 - centuries * 0.000101) * Math.sin(2 * anomaly) +
    0.000289 * Math.sin(3 * anomaly);
  const node = radians(125.04 - 1934.136 * centuries);
  const longitude = radians(meanLongitude + center - 0.00569 - 0.00478 * Math.sin(node));
  const obliquity = radians(
    23.43929111 - centuries * (0.013004167 + centuries * 0.00000016389) + 0.00256 * Math.cos(node)
  );
  const rightAscension = Math.atan2(Math.cos(obliquity) * Math.sin(longitude), Math.cos(longitude));
  const declination = Math.asin(Math.sin(obliquity) * Math.sin(longitude));
  const { azimuth, elevation: geocentric } = overHorizon(
    siderealTime(days, longitudeDeg) - rightAscension,
    declination,
    radians(latitudeDeg)
  );
  // seen from the surface the sun stands lower by its parallax, up to 0.0024 degrees
  return {
    azimuth,
    elevation: (geocentric - (EARTH_RADIUS_M / ASTRONOMICAL_UNIT_M) * Math.cos(geocentric)) as Radians
  };
}

/**
 * How much the air lifts a body at a true elevation, in radians. Source: Saemundsson 1986 in Meeus, chapter 16, scaled
 * by pressure (mbar) and temperature (C).
 */
export function refraction(elevation: Radians, pressure = 1010, temperature = 10): Radians {
  // its formula ends a little below the horizon; from there it is led to nothing, for nobody sees it
  const h = Math.max(LOWEST_DEG, (elevation * 180) / Math.PI);
  const fade = Math.max(0, Math.min(1, 1 + (elevation * 180) / Math.PI - LOWEST_DEG));
  const minutes = 1.02 / Math.tan(((h + 10.3 / (h + 5.11)) * Math.PI) / 180);
  return radians((fade * ((minutes / 60) * (pressure / 1010) * 283)) / (273 + temperature));
}

/** As it is seen: lifted by air of ordinary pressure and warmth. */
export const seenThroughAir = ({ azimuth, elevation }: OverHorizon): OverHorizon => ({
  azimuth,
  elevation: (elevation + refraction(elevation)) as Radians
});

/**
 * World direction towards a point of the sky. North lies `northDeg` to the left (counterclockwise) of -Z, seen from
 * above; +Y is up.
 */
export function skyDirection(azimuth: number, elevation: number, northDeg: number): [number, number, number] {
  const turn = azimuth - radians(northDeg);
  return [Math.cos(elevation) * Math.sin(turn), Math.sin(elevation), -Math.cos(elevation) * Math.cos(turn)];
}

/**
 * Sunrise and sunset of the local day that contains `timeMs`, as ms, by the standard altitude -0.8333 degrees; null
 * when it does not rise or set.
 */
export function sunTimes(
  timeMs: number,
  latitudeDeg: number,
  longitudeDeg: number,
  utcOffsetMs: number
): { up: number; down: number } | null {
  const start = Math.floor((timeMs + utcOffsetMs) / DAY_MS) * DAY_MS - utcOffsetMs;
  const height = (at: number) => sunPosition(at, latitudeDeg, longitudeDeg).elevation - radians(-0.8333);
  let up: number | null = null;
  let down: number | null = null;
  const step = DAY_MS / 96;
  for (let at = start; at < start + DAY_MS; at += step) {
    const before = height(at);
    const after = height(at + step);
    if (before < 0 === after < 0) continue;
    let low = at;
    let high = at + step;
    while (high - low > 1000) {
      const middle = (low + high) / 2;
      if (height(middle) < 0 === before < 0) low = middle;
      else high = middle;
    }
    if (before < 0) up = low;
    else down = low;
  }
  return up !== null && down !== null ? { up, down } : null;
}
