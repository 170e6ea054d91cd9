import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from './brief';
import { partOf, readPart, standsAt, takePart } from './kept-part';

const spot: Brief['lamps']['added'][number] = {
  name: 'Own spot',
  form: 'spot',
  position_m: [0, 2, 0],
  direction: [0, -1, 0],
  turn_deg: 0,
  width_m: 1,
  height_m: 1,
  beam_deg: 30,
  lumen: 500,
  kelvin: 3000,
  tint: 0,
  photometry: null
};
const evening: Brief = {
  ...BRIEF_DEFAULTS,
  surroundings: { ...SURROUNDINGS_DEFAULTS.sky, time: '2026-10-12T18:40:00+02:00' },
  lamps: { ...BRIEF_DEFAULTS.lamps, groups: [{ group: 'Hall', on: true, dim_ev: -1, kelvin: null, photometry: null }] },
  exposure: { ev100: 4 }
};

describe('what is kept of a brief', () => {
  it('as a cue is the whole of its light, but not which lamps there are', () => {
    const cue = partOf(evening, 'cue');
    const now: Brief = {
      ...BRIEF_DEFAULTS,
      lamps: { ...BRIEF_DEFAULTS.lamps, added: [spot], regrouped: [{ lamp: 'Hall 2', group: 'Stairs' }], only: 'Hall' }
    };
    const taken = { ...now, ...takePart(cue, now) };
    expect(taken).toMatchObject({
      surroundings: evening.surroundings,
      exposure: { ev100: 4 },
      lamps: { groups: evening.lamps.groups, only: null, added: [spot], regrouped: now.lamps.regrouped }
    });
    expect(standsAt(cue, taken, 'cue')).toBe(true);
    expect(standsAt(cue, { ...taken, exposure: { ev100: 5 } }, 'cue')).toBe(false);
  });
  it('as surroundings is nothing but them', () => {
    const part = partOf(evening, 'surroundings');
    expect(part).toEqual({ surroundings: evening.surroundings });
    expect(takePart(part, BRIEF_DEFAULTS)).toEqual({ surroundings: evening.surroundings });
    expect(standsAt(part, evening, 'surroundings')).toBe(true);
  });
  it('as a destination is its size and where it is seen, and as a step its quality', () => {
    const seen: Brief['seen'] = {
      destination: { name: 'Jury wall', size: { width_mm: 900, height_mm: 600, ppi: 150 } },
      distance_m: 1.2,
      file: 'jpg'
    };
    const wall: Brief = { ...BRIEF_DEFAULTS, size: { width_mm: 900, height_mm: 600, ppi: 150 }, seen };
    expect(takePart(partOf(wall, 'destination'), BRIEF_DEFAULTS)).toEqual({ size: wall.size, seen });
    expect(
      standsAt(partOf(wall, 'destination'), { ...wall, quality: { ...wall.quality, samples: 7 } }, 'destination')
    ).toBe(true);
    expect(readPart(JSON.stringify({ quality: { step: 'glance', samples: 9 } }))).toEqual({
      quality: { ...BRIEF_DEFAULTS.quality, step: 'glance', samples: 9 }
    });
  });
  it('is read with what has come since at rest', () => {
    const old = {
      surroundings: {
        kind: 'sky',
        latitude_deg: 50,
        longitude_deg: 10,
        time: '2026-06-21T12:00:00Z',
        north_deg: 0,
        visibility_km: 40,
        cloud: 0,
        brightness_ev: 0
      },
      lamps: { groups: [{ group: 'Hall', on: false, dim_ev: 0, kelvin: null }], only: null }
    };
    expect(readPart(JSON.stringify(old))).toEqual({
      surroundings: { ...SURROUNDINGS_DEFAULTS.sky, latitude_deg: 50, longitude_deg: 10, time: '2026-06-21T12:00:00Z' },
      lamps: { groups: [{ group: 'Hall', on: false, dim_ev: 0, kelvin: null, photometry: null }], only: null }
    });
  });
});
