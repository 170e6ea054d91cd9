/**
 * Which way sun, moon and stars stand in the model's world for a sky of some place and moment, turned to its north and,
 * if so, mirrored.
 */
import type { Vec3 } from '../../math/vec3';
import { type Radians, radians } from '../../units/units';
import { type MoonPosition, moonPosition } from '../moon/position';
import { seenThroughAir, skyDirection, sunPosition } from '../sun/position';
import { daysSinceJ2000, overHorizon, type OverHorizon, siderealTime } from './celestial';

export interface SkyPlace {
  latitude_deg: number;
  longitude_deg: number;
  /** ISO 8601. */
  time: string;
  /** How far north lies to the left of the model's up (-Z), seen from above. */
  north_deg: number;
  /**
   * Left and right changed about the upright plane that runs this way, degrees to the left of -Z; null for the true
   * sky.
   */
  mirror_deg: number | null;
}

/** `elevation` as without air, `direction` as seen through it. */
export interface SkyLights {
  sun: OverHorizon & { direction: Vec3 };
  moon: MoonPosition & { direction: Vec3 };
  /** As Stars has them. */
  axes: readonly [Vec3, Vec3, Vec3];
}

export function skyLights(sky: SkyPlace): SkyLights {
  const now = Date.parse(sky.time);
  const towards = ({ azimuth, elevation }: OverHorizon): Vec3 =>
    mirrored(skyDirection(azimuth, elevation, sky.north_deg), sky.mirror_deg);
  const sun = sunPosition(now, sky.latitude_deg, sky.longitude_deg);
  const moon = moonPosition(now, sky.latitude_deg, sky.longitude_deg, sun);
  const sidereal = siderealTime(daysSinceJ2000(now), sky.longitude_deg);
  const axis = (rightAscension: number, declination: number) =>
    towards(overHorizon(sidereal - rightAscension, declination, radians(sky.latitude_deg)));
  return {
    sun: { ...sun, direction: towards(seenThroughAir(sun)) },
    moon: { ...moon, direction: towards(seenThroughAir(moon)) },
    axes: [axis(0, 0), axis(Math.PI / 2, 0), axis(0, Math.PI / 2)]
  };
}

/** The way that a mirror's upright plane runs. */
export const mirrorWay = (mirrorDeg: number): Vec3 => [-Math.sin(radians(mirrorDeg)), 0, -Math.cos(radians(mirrorDeg))];

/** A direction changed left for right about the upright plane that runs this way. */
export function mirrored(d: Vec3, mirrorDeg: number | null): Vec3 {
  if (mirrorDeg === null) return d;
  // the plane's normal is level and stands across its way
  const way = radians(mirrorDeg) as Radians;
  const n: Vec3 = [Math.cos(way), 0, -Math.sin(way)];
  const k = 2 * (d[0] * n[0] + d[2] * n[2]);
  return [d[0] - k * n[0], d[1], d[2] - k * n[2]];
}
