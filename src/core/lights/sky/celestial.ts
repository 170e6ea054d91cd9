/**
 * From the sky's own coordinates to those over a horizon. Source: Meeus, Astronomical Algorithms (2nd ed., 1998),
 * chapters 12 and 13.
 */
import { type Radians, radians } from '../../units/units';

const J2000_MS = Date.UTC(2000, 0, 1, 12);
const DAY_MS = 86_400_000;

export const daysSinceJ2000 = (timeMs: number): number => (timeMs - J2000_MS) / DAY_MS;

/** Right ascension that stands in the south, not brought to one turn. */
export const siderealTime = (days: number, longitudeDeg: number): Radians =>
  radians(280.46061837 + 360.98564736629 * days + longitudeDeg);

export interface OverHorizon {
  /** Clockwise from north, 0 to 2 pi. */
  azimuth: Radians;
  elevation: Radians;
}

export function overHorizon(hourAngle: number, declination: number, latitude: number): OverHorizon {
  const elevation = Math.asin(
    Math.sin(latitude) * Math.sin(declination) + Math.cos(latitude) * Math.cos(declination) * Math.cos(hourAngle)
  );
  const azimuth = Math.atan2(
    -Math.sin(hourAngle),
    Math.tan(declination) * Math.cos(latitude) - Math.sin(latitude) * Math.cos(hourAngle)
  );
  return { azimuth: ((azimuth + 2 * Math.PI) % (2 * Math.PI)) as Radians, elevation: elevation as Radians };
}
