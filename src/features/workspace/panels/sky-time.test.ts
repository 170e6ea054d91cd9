import { describe, expect, it } from 'vitest';
import { sunPosition } from '../../../core/lights/sun/position';
import { dayOfYear, isoInZone, offsetInZone } from './sky-time';
import { zoneAt } from './use-zone';

const at = (year: number, month: number, day: number, hour: number) => ({
  year,
  day: dayOfYear({ year, month, day }),
  minutes: hour * 60
});

describe('the clock of a place', () => {
  // offsets in force: common practice, IANA time zone database
  it.each([
    ['New York in summer', 40.71, -74.01, at(2026, 6, 21, 15), '-04:00'],
    ['New York in winter', 40.71, -74.01, at(2026, 12, 21, 15), '-05:00'],
    ['Sydney in its summer', -33.87, 151.21, at(2026, 12, 21, 15), '+11:00'],
    ['Kathmandu', 27.72, 85.32, at(2026, 6, 21, 15), '+05:45'],
    ['Quito', -0.18, -78.47, at(2026, 6, 21, 15), '-05:00'],
    ['London on the morning after the change', 51.51, -0.13, at(2026, 3, 29, 3), '+01:00'],
    ['London on the night before it', 51.51, -0.13, at(2026, 3, 29, 0), '+00:00']
  ])('%s', async (_, latitude, longitude, moment, offset) => {
    expect(offsetInZone(moment, await zoneAt(latitude, longitude))).toBe(offset);
  });

  it('has the afternoon sun in the west, on both coasts and both halves of the earth', async () => {
    for (const [latitude, longitude] of [
      [40.71, -74.01],
      [34.05, -118.24],
      [-33.87, 151.21],
      [35.68, 139.69]
    ] as const) {
      const time = isoInZone(at(2026, 3, 21, 17), await zoneAt(latitude, longitude));
      const { azimuth, elevation } = sunPosition(Date.parse(time), latitude, longitude);
      const degrees = ((azimuth * 180) / Math.PI + 360) % 360;
      expect(degrees).toBeGreaterThan(225);
      expect(degrees).toBeLessThan(315);
      expect(elevation).toBeGreaterThan(0);
    }
  });
});
