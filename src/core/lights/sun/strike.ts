/**
 * When the sun strikes a face at an angle: the moments of a year at which it does, and, when there are none or for
 * another hour, how north would have to be turned. Angles are those between sunlight and the face: 0 along it, 90
 * straight on. Degrees.
 */
import { bearingOf, wrapDegrees } from '../../math/bearing';
import { dot, type Vec3 } from '../../math/vec3';
import { degrees, radians } from '../../units/units';
import { type SkyPlace, skyLights } from '../sky/sky-lights';

export interface Strike {
  /** ms since 1970, UTC. */
  at: number;
  angle_deg: number;
}

// Lower, hills and houses are before it.
export const MIN_HEIGHT_DEG = 3;
const DAY_MS = 86_400_000;
const STEP_MS = 10 * 60_000;
const CLOSE_MS = 30_000;
const MONTHS = 12;

type Place = Omit<SkyPlace, 'time'>;

/** Angle at a moment; null when the sun is too low. Negative when it is behind the face. */
export function strikeAngle(place: Place, normal: Vec3, at: number): number | null {
  const { sun } = skyLights({ ...place, time: new Date(at).toISOString() });
  if (sun.direction[1] < Math.sin(radians(MIN_HEIGHT_DEG))) return null;
  return degrees(Math.asin(Math.max(-1, Math.min(1, dot(normal, sun.direction)))));
}

/** The moments of a day from `start` on, to half a minute. */
function strikesOfDay(place: Place, normal: Vec3, angleDeg: number, start: number): Strike[] {
  const out: Strike[] = [];
  const off = (at: number) => {
    const angle = strikeAngle(place, normal, at);
    return angle === null ? null : angle - angleDeg;
  };
  let before = off(start);
  for (let at = start; at < start + DAY_MS; at += STEP_MS) {
    const after = off(at + STEP_MS);
    if (before !== null && after !== null && before < 0 !== after < 0) {
      let [low, high] = [at, at + STEP_MS];
      while (high - low > CLOSE_MS) {
        const middle = (low + high) / 2;
        if ((off(middle) ?? 0) < 0 === before < 0) low = middle;
        else high = middle;
      }
      out.push({ at: low, angle_deg: angleDeg });
    }
    before = after;
  }
  return out;
}

/** Midnights of the local days of a year at which to look: the day of `now`, and the middle of each month. */
function daysToLookAt(now: number, offsetMs: number): number[] {
  const local = new Date(now + offsetMs);
  const year = local.getUTCFullYear();
  const today = Date.UTC(year, local.getUTCMonth(), local.getUTCDate()) - offsetMs;
  return [today, ...Array.from({ length: MONTHS }, (_, m) => Date.UTC(year, m, 15) - offsetMs)].sort(
    (a, b) => Math.abs(a - today) - Math.abs(b - today)
  );
}

/** Moments at which the sun strikes the face so, those of days nearest to `now` first. */
export const strikes = (place: Place, normal: Vec3, angleDeg: number, now: number, offsetMs: number): Strike[] =>
  daysToLookAt(now, offsetMs).flatMap((day) => strikesOfDay(place, normal, angleDeg, day));

/** Where in the year it comes closest, for a face that is never struck so; null for one that the sun never sees. */
export function closestStrike(
  place: Place,
  normal: Vec3,
  angleDeg: number,
  now: number,
  offsetMs: number
): Strike | null {
  let best: Strike | null = null;
  for (const day of daysToLookAt(now, offsetMs)) {
    for (let at = day; at < day + DAY_MS; at += STEP_MS) {
      const angle = strikeAngle(place, normal, at);
      if (angle === null || angle <= 0) continue;
      if (best === null || Math.abs(angle - angleDeg) < Math.abs(best.angle_deg - angleDeg))
        best = { at, angle_deg: angle };
    }
  }
  return best;
}

/**
 * The norths, degrees as `north_deg`, at which the sun of a moment strikes the face so; none when it stands too high or
 * low for that.
 */
export function northsFor(sky: SkyPlace, normal: Vec3, angleDeg: number): number[] {
  const { direction } = skyLights(sky).sun;
  const elevation = Math.asin(direction[1]);
  const level = Math.hypot(normal[0], normal[2]);
  if (elevation < radians(MIN_HEIGHT_DEG) || level < 1e-6) return [];
  const cosine = (Math.sin(radians(angleDeg)) - normal[1] * Math.sin(elevation)) / (level * Math.cos(elevation));
  if (Math.abs(cosine) > 1) return [];
  const away = degrees(Math.acos(cosine));
  const now = bearingOf(direction);
  const face = bearingOf(normal);
  // a mirrored sky turns against its north
  const sense = sky.mirror_deg === null ? 1 : -1;
  return [
    ...new Set(
      [face + away, face - away].map(
        (wanted) => Math.round(wrapDegrees(sky.north_deg + sense * (wanted - now)) * 10) / 10
      )
    )
  ];
}
