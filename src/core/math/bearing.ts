/** Directions seen from above, as a plan shows them with -Z up: degrees counterclockwise from -Z. */
import { degrees } from '../units/units';
import type { Vec3 } from './vec3';

/** -180 to 180; what points straight up or down has 0. */
export const bearingOf = (direction: Vec3): number => degrees(Math.atan2(-direction[0], -direction[2]));

/** The same angle from -180 up to, not with, 180. */
export const wrapDegrees = (angle: number): number => ((((angle + 180) % 360) + 360) % 360) - 180;
