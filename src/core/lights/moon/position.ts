/**
 * Where the moon stands, how much of it is lit and how much light it gives. Azimuth clockwise from north, elevation
 * above the true horizon without refraction, radians, seen from the surface.
 * Sources: The Astronomical Almanac, section D, low-precision formulae for the Moon (0.3 degrees in longitude, 0.2 in
 * latitude), coefficients from memory, held within 0.5 degrees of astronomy-engine by the tests; Krisciunas and
 * Schaefer 1991, A model of the brightness of moonlight, PASP 103, eq. 9 (magnitude over phase angle), in lux by the
 * definition of the visual magnitude (0 is 2.54e-6 lx).
 */
import { daysSinceJ2000, overHorizon, type OverHorizon, siderealTime } from '../sky/celestial';
import { degrees, type Radians, radians } from '../../units/units';

const OBLIQUITY = radians(23.439);
const ZERO_MAGNITUDE_LX = 2.54e-6;
/** Angular radius at the mean distance. */
export const MOON_RADIUS_RAD = 1737.4 / 384_400;

export interface MoonPosition extends OverHorizon {
  /** Angle at the moon between sun and Earth: 0 full, pi new. */
  phase: Radians;
}

const sin = (degreesOf: number) => Math.sin(radians(degreesOf));
const cos = (degreesOf: number) => Math.cos(radians(degreesOf));

/** `sun`: where that stands at the same time and place. */
export function moonPosition(
  timeMs: number,
  latitudeDeg: number,
  longitudeDeg: number,
  sun: OverHorizon
): MoonPosition {
  const days = daysSinceJ2000(timeMs);
  const t = days / 36_525;
  const longitude = radians(
    218.32 +
      481_267.881 * t +
      6.29 * sin(135 + 477_198.87 * t) -
      1.27 * sin(259.3 - 413_335.36 * t) +
      0.66 * sin(235.7 + 890_534.22 * t) +
      0.21 * sin(269.9 + 954_397.74 * t) -
      0.19 * sin(357.5 + 35_999.05 * t) -
      0.11 * sin(186.5 + 966_404.03 * t)
  );
  const latitude = radians(
    5.13 * sin(93.3 + 483_202.02 * t) +
      0.28 * sin(228.2 + 960_400.89 * t) -
      0.28 * sin(318.3 + 6003.15 * t) -
      0.17 * sin(217.6 - 407_332.21 * t)
  );
  const parallax = radians(
    0.9508 +
      0.0518 * cos(135 + 477_198.87 * t) +
      0.0095 * cos(259.3 - 413_335.36 * t) +
      0.0078 * cos(235.7 + 890_534.22 * t) +
      0.0028 * cos(269.9 + 954_397.74 * t)
  );
  const [x, y, z] = [
    Math.cos(latitude) * Math.cos(longitude),
    Math.cos(latitude) * Math.sin(longitude),
    Math.sin(latitude)
  ];
  const rightAscension = Math.atan2(y * Math.cos(OBLIQUITY) - z * Math.sin(OBLIQUITY), x);
  const declination = Math.asin(y * Math.sin(OBLIQUITY) + z * Math.cos(OBLIQUITY));
  const { azimuth, elevation: geocentric } = overHorizon(
    siderealTime(days, longitudeDeg) - rightAscension,
    declination,
    radians(latitudeDeg)
  );
  const elevation = geocentric - parallax * Math.cos(geocentric);
  // the sun is so far that the angle at the moon is the supplement of that between the two in the sky, within 0.15
  // degrees
  const apart = Math.acos(
    Math.max(
      -1,
      Math.min(
        1,
        Math.sin(elevation) * Math.sin(sun.elevation) +
          Math.cos(elevation) * Math.cos(sun.elevation) * Math.cos(azimuth - sun.azimuth)
      )
    )
  );
  return { azimuth, elevation: elevation as Radians, phase: (Math.PI - apart) as Radians };
}

/** Illuminance outside the air on a plane that faces the moon, lx: 0.3 when it is full. */
export function moonIlluminance(phase: number): number {
  const a = Math.abs(degrees(phase as Radians));
  return ZERO_MAGNITUDE_LX * 10 ** (-0.4 * (-12.73 + 0.026 * a + 4e-9 * a ** 4));
}

/** Share of the disc that is lit. */
export const litShare = (phase: number): number => (1 + Math.cos(phase)) / 2;
