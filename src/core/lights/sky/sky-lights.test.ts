import { Body, Equator, Horizon, Observer } from 'astronomy-engine';
import { describe, expect, it } from 'vitest';
import { dot, length } from '../../math/vec3';
import { type SkyPlace, skyLights } from './sky-lights';

const place: SkyPlace = {
  latitude_deg: 49,
  longitude_deg: 15,
  time: '2026-10-12T17:10:00+02:00',
  north_deg: 20,
  mirror_deg: null
};

describe('lights of a sky', () => {
  it('has axes of the stars that stand on one another, the pole as high as the latitude in the north', () => {
    const { axes } = skyLights({ ...place, north_deg: 0 });
    for (const a of axes) expect(length(a)).toBeCloseTo(1, 9);
    expect(dot(axes[0], axes[1])).toBeCloseTo(0, 9);
    expect(dot(axes[0], axes[2])).toBeCloseTo(0, 9);
    expect(Math.asin(axes[2][1])).toBeCloseTo((49 * Math.PI) / 180, 9);
    expect(axes[2][2]).toBeLessThan(0);
  });
  it('turns the stars once in 23 h 56 min 4 s', () => {
    const at = (ms: number) =>
      skyLights({ ...place, time: new Date(Date.parse(place.time) + ms).toISOString() }).axes[0];
    expect(dot(at(0), at(86_164_091))).toBeCloseTo(1, 6);
    expect(dot(at(0), at(43_082_045))).toBeLessThan(0.9);
  });
  it('shows the sun where astronomy-engine sees it through the air, also at the horizon', () => {
    let low = 0;
    for (let minute = 0; minute < 24 * 60; minute += 4) {
      const time = new Date(Date.UTC(2026, 3, 20) + minute * 60_000);
      const observer = new Observer(49, 15, 0);
      const { ra, dec } = Equator(Body.Sun, time, observer, true, true);
      const theirs = Horizon(time, observer, ra, dec, 'normal').altitude;
      const ours = (Math.asin(skyLights({ ...place, time: time.toISOString() }).sun.direction[1]) * 180) / Math.PI;
      if (theirs > -0.4) expect(Math.abs(ours - theirs)).toBeLessThan(0.03);
      if (Math.abs(theirs) < 1) low++;
    }
    expect(low).toBeGreaterThan(3);
  });
  it('mirrored about a way changes left for right and leaves what lies along it', () => {
    const seen = skyLights(place).sun.direction;
    const heading = 35;
    const along = [-Math.sin((heading * Math.PI) / 180), 0, -Math.cos((heading * Math.PI) / 180)] as const;
    const across = [along[2], 0, -along[0]] as const;
    const turned = skyLights({ ...place, mirror_deg: heading }).sun.direction;
    expect(dot(turned, along)).toBeCloseTo(dot(seen, along), 9);
    expect(dot(turned, across)).toBeCloseTo(-dot(seen, across), 9);
    expect(turned[1]).toBe(seen[1]);
  });
});
