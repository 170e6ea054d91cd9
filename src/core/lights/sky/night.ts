/**
 * What a night sky has without sun and moon: airglow and the light of all stars, brighter towards the horizon by the
 * longer way through the layer that glows (van Rhijn 1921). Zenith: 22 magnitudes a square arcsecond, 1.7e-4 cd/m2
 * (dark sites, from memory of site surveys).
 */
import type { Vec3 } from '../../math/vec3';

export const DARK_ZENITH = 1.7e-4;
const EARTH_KM = 6371;
const GLOW_KM = 100;

/** Luminance against the zenith's. */
export const vanRhijn = (elevation: number): number =>
  1 / Math.sqrt(1 - ((EARTH_KM * Math.cos(elevation)) / (EARTH_KM + GLOW_KM)) ** 2);

// A little warmer than daylight: airglow is green and red (from memory).
export const NIGHT_COLOR: Vec3 = [1.05, 1.0, 0.86];

/**
 * How much of the stars is seen against the sky of a sun at this elevation, radians: none before civil twilight's end,
 * all from 12 degrees down.
 */
export const starShare = (sunElevation: number): number => {
  const t = Math.min(1, Math.max(0, ((-sunElevation * 180) / Math.PI - 5) / 7));
  return t * t * (3 - 2 * t);
};
