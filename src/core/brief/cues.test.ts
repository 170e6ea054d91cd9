import { describe, expect, it } from 'vitest';
import { sunPosition } from '../lights/sun/position';
import { degrees } from '../units/units';
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from './brief';
import { cueOf, followCue } from './cues';

const groups = ['Shelf lamps', 'Corridor'];
const sky: Brief = {
  ...BRIEF_DEFAULTS,
  surroundings: { ...SURROUNDINGS_DEFAULTS.sky, time: '2026-10-12T23:30:00+02:00' },
  lamps: {
    groups: [{ group: 'Corridor', on: false, dim_ev: -1, kelvin: 3000, photometry: null }],
    only: 'Corridor',
    added: [],
    regrouped: []
  }
};
const height = (brief: Pick<Brief, 'surroundings'>) => {
  const s = brief.surroundings as typeof SURROUNDINGS_DEFAULTS.sky;
  return degrees(sunPosition(Date.parse(s.time), s.latitude_deg, s.longitude_deg).elevation);
};

describe('cues', () => {
  it('move a sky to an hour of its own day: high sun, just after sunset, night', () => {
    expect(height(followCue(sky, 'day', groups))).toBeGreaterThan(8);
    const evening = height(followCue(sky, 'evening', groups));
    expect(evening).toBeLessThan(0);
    expect(evening).toBeGreaterThan(-6);
    expect(height(followCue(sky, 'night', groups))).toBeLessThan(-12);
    for (const cue of ['day', 'evening', 'night'] as const)
      expect((followCue(sky, cue, groups).surroundings as { time: string }).time).toMatch(
        /^2026-10-12T\d\d:\d\d:00\+02:00$/
      );
  });
  it('keep an hour that is day already', () => {
    const noon: Brief = { ...sky, surroundings: { ...SURROUNDINGS_DEFAULTS.sky, time: '2026-10-12T13:00:00+02:00' } };
    expect((followCue(noon, 'day', groups).surroundings as { time: string }).time).toBe('2026-10-12T13:00:00+02:00');
  });
  it('switch every group, keep its dimmer and colour, and end a look at one alone', () => {
    expect(followCue(sky, 'night', groups).lamps).toEqual({
      ...sky.lamps,
      only: null,
      groups: [
        { group: 'Shelf lamps', on: true, dim_ev: 0, kelvin: null, photometry: null },
        { group: 'Corridor', on: true, dim_ev: -1, kelvin: 3000, photometry: null }
      ]
    });
    expect(followCue(sky, 'day', groups).lamps.groups.every((g) => !g.on)).toBe(true);
  });
  it('dim what has no hours', () => {
    const studio: Brief = { ...BRIEF_DEFAULTS, surroundings: SURROUNDINGS_DEFAULTS.studio };
    expect((followCue(studio, 'evening', groups).surroundings as { brightness_ev: number }).brightness_ev).toBeLessThan(
      -2
    );
  });
  it('are known again from the brief that follows them', () => {
    for (const cue of ['day', 'evening', 'night'] as const)
      expect(cueOf({ ...sky, ...followCue(sky, cue, groups) }, groups)).toBe(cue);
    expect(cueOf(sky, groups)).toBeNull();
  });
});
