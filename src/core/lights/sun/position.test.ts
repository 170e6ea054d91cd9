import { Body, Equator, Horizon, Observer } from 'astronomy-engine';
import { describe, expect, it } from 'vitest';
import { createRandom } from '../../sampling/random';
import { degrees } from '../../units/units';
import { refraction, skyDirection, sunPosition, sunTimes } from './position';

describe('sun position', () => {
  it('gives the worked example of Reda and Andreas, NREL/TP-560-34302: zenith 50.11162, azimuth 194.34024 degrees', () => {
    const p = sunPosition(Date.parse('2003-10-17T12:30:30-07:00'), 39.742476, -105.1786);
    const lifted = degrees(p.elevation) + degrees(refraction(p.elevation, 820, 11));
    expect(Math.abs(90 - lifted - 50.11162)).toBeLessThan(0.01);
    expect(Math.abs(degrees(p.azimuth) - 194.34024)).toBeLessThan(0.02);
  });

  it('stays within 0.02 degrees of astronomy-engine over 1,000 seeded dates and places, both without refraction', () => {
    const random = createRandom(2026);
    let worst = 0;
    for (let i = 0; i < 1000; i++) {
      const date = new Date(Date.UTC(1960 + Math.floor(random() * 90), 0, 1) + random() * 365 * 86_400_000);
      const observer = new Observer(random() * 170 - 85, random() * 360 - 180, 0);
      const { ra, dec } = Equator(Body.Sun, date, observer, true, true);
      const theirs = Horizon(date, observer, ra, dec);
      const ours = sunPosition(date.getTime(), observer.latitude, observer.longitude);
      const a = skyDirection(ours.azimuth, ours.elevation, 0);
      const b = skyDirection((theirs.azimuth * Math.PI) / 180, (theirs.altitude * Math.PI) / 180, 0);
      const apart = 2 * Math.asin(Math.min(1, Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) / 2));
      worst = Math.max(worst, degrees(apart));
    }
    expect(worst).toBeLessThan(0.02);
  });

  it('turns with the north of the model: north 90 degrees left of up lies along -X', () => {
    const [x, y, z] = skyDirection(0, 0, 90);
    expect(x).toBeCloseTo(-1);
    expect(y).toBeCloseTo(0);
    expect(z).toBeCloseTo(0);
  });

  it('has day and night of equal length at the equator in March, and none in the polar summer', () => {
    const times = sunTimes(Date.parse('2026-03-20T12:00:00Z'), 0, 0, 0)!;
    expect((times.down - times.up) / 3_600_000).toBeCloseTo(12.1, 1);
    expect(sunTimes(Date.parse('2026-06-21T12:00:00Z'), 80, 0, 0)).toBeNull();
  });
});
