import { Body, Equator, Horizon, Illumination, Observer } from 'astronomy-engine';
import { describe, expect, it } from 'vitest';
import { createRandom } from '../../sampling/random';
import { degrees } from '../../units/units';
import { skyDirection, sunPosition } from '../sun/position';
import { litShare, moonIlluminance, moonPosition } from './position';

describe('the moon', () => {
  it('stays within 0.5 degrees of astronomy-engine, and its phase within 1, over 500 seeded dates and places', () => {
    const random = createRandom(11);
    let worst = 0;
    let phaseOff = 0;
    for (let i = 0; i < 500; i++) {
      const date = new Date(Date.UTC(1990 + Math.floor(random() * 60), 0, 1) + random() * 365 * 86_400_000);
      const observer = new Observer(random() * 150 - 75, random() * 360 - 180, 0);
      const { ra, dec } = Equator(Body.Moon, date, observer, true, true);
      const theirs = Horizon(date, observer, ra, dec);
      const sun = sunPosition(date.getTime(), observer.latitude, observer.longitude);
      const ours = moonPosition(date.getTime(), observer.latitude, observer.longitude, sun);
      const a = skyDirection(ours.azimuth, ours.elevation, 0);
      const b = skyDirection((theirs.azimuth * Math.PI) / 180, (theirs.altitude * Math.PI) / 180, 0);
      worst = Math.max(
        worst,
        degrees(2 * Math.asin(Math.min(1, Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) / 2)))
      );
      phaseOff = Math.max(phaseOff, Math.abs(degrees(ours.phase) - Illumination(Body.Moon, date).phase_angle));
    }
    expect(worst).toBeLessThan(0.5);
    // theirs is seen from the Earth's middle
    expect(phaseOff).toBeLessThan(1.6);
  });
  it('gives 0.3 lx when full and about a tenth of that at the quarter (both from memory of the literature)', () => {
    expect(moonIlluminance(0)).toBeGreaterThan(0.25);
    expect(moonIlluminance(0)).toBeLessThan(0.35);
    expect(moonIlluminance(Math.PI / 2) / moonIlluminance(0)).toBeGreaterThan(0.07);
    expect(moonIlluminance(Math.PI / 2) / moonIlluminance(0)).toBeLessThan(0.12);
    expect(litShare(Math.PI / 2)).toBeCloseTo(0.5, 12);
  });
});
