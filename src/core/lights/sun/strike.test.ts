import { describe, expect, it } from 'vitest';
import { dot, normalize, type Vec3 } from '../../math/vec3';
import { skyLights } from '../sky/sky-lights';
import { closestStrike, northsFor, strikeAngle, strikes } from './strike';

const HOUR = 3_600_000;
const place = { latitude_deg: 49.4, longitude_deg: 15.6, north_deg: 0, mirror_deg: null };
const now = Date.parse('2026-10-12T12:00:00+02:00');
const south: Vec3 = [0, 0, 1];
const north: Vec3 = [0, 0, -1];

describe('the sun on a face', () => {
  it('strikes a south wall at noon by its own height’s complement: equinox at latitude 49.4, 40.6 degrees high', () => {
    // the sun stands 40.6 high due south, so it meets an upright wall at 90 - 40.6
    const at = Date.parse('2026-03-20T12:05:00+01:00');
    expect(Math.abs(strikeAngle(place, south, at)! - 49.4)).toBeLessThan(0.7);
    expect(strikeAngle(place, north, at)).toBeLessThan(0);
    expect(strikeAngle(place, south, at + 12 * HOUR)).toBeNull();
  });
  it('offers moments at which it strikes as wanted, the nearest day first', () => {
    const found = strikes(place, south, 30, now, 2 * HOUR);
    expect(found.length).toBeGreaterThan(6);
    for (const { at } of found) expect(Math.abs(strikeAngle(place, south, at)! - 30)).toBeLessThan(0.2);
    expect(new Date(found[0]!.at + 2 * HOUR).toISOString().slice(0, 10)).toBe('2026-10-12');
  });
  it('says that a north wall here is never struck straight on, and how close it comes', () => {
    expect(strikes(place, north, 60, now, 2 * HOUR)).toEqual([]);
    const best = closestStrike(place, north, 60, now, 2 * HOUR)!;
    expect(best.angle_deg).toBeGreaterThan(5);
    expect(best.angle_deg).toBeLessThan(40);
    // only in summer, early or late
    expect([5, 6, 7]).toContain(new Date(best.at).getUTCMonth() + 1);
    expect(closestStrike(place, [0, -1, 0], 30, now, 2 * HOUR)).toBeNull();
  });
  it('turns north until the sun strikes so', () => {
    for (const mirror_deg of [null, 25]) {
      const sky = { ...place, north_deg: 12, mirror_deg, time: '2026-10-12T15:00:00+02:00' };
      const face = normalize([-0.3, 0.1, -1]);
      const norths = northsFor(sky, face, 35);
      expect(norths).toHaveLength(2);
      for (const north_deg of norths)
        expect((Math.asin(dot(face, skyLights({ ...sky, north_deg }).sun.direction)) * 180) / Math.PI).toBeCloseTo(
          35,
          0
        );
    }
    expect(northsFor({ ...place, time: '2026-10-12T15:00:00+02:00' }, [0, 1, 0], 35)).toEqual([]);
  });
});
