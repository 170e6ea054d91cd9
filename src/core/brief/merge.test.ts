import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Brief, SURROUNDINGS_DEFAULTS } from './brief';
import { mergeBriefs } from './merge';

const from: Brief = { ...BRIEF_DEFAULTS, surroundings: SURROUNDINGS_DEFAULTS.sky };
const withSky = (part: Partial<typeof SURROUNDINGS_DEFAULTS.sky>): Brief => ({
  ...from,
  surroundings: { ...SURROUNDINGS_DEFAULTS.sky, ...part }
});
const withQuality = (part: Partial<Brief['quality']>): Brief => ({ ...from, quality: { ...from.quality, ...part } });

describe('mergeBriefs', () => {
  it('keeps both changes of different words', () => {
    const { brief, overridden } = mergeBriefs(from, withQuality({ samples: 77 }), withSky({ north_deg: 77 }));
    expect(brief.quality.samples).toBe(77);
    expect(brief.surroundings).toMatchObject({ north_deg: 77 });
    expect(overridden).toEqual([]);
  });

  it('keeps both changes of different fields of one word', () => {
    const { brief, overridden } = mergeBriefs(from, withQuality({ samples: 77 }), withQuality({ bounces: 3 }));
    expect(brief.quality).toMatchObject({ samples: 77, bounces: 3 });
    expect(overridden).toEqual([]);
  });

  it('lets mine stand where both changed one field, and tells which of theirs it took back', () => {
    const theirs = { ...withQuality({ samples: 5, bounces: 3 }), size: { width_px: 10, height_px: 10 } };
    const { brief, overridden } = mergeBriefs(from, withQuality({ samples: 77 }), theirs);
    expect(brief.quality).toMatchObject({ samples: 77, bounces: 3 });
    expect(brief.size).toEqual({ width_px: 10, height_px: 10 });
    expect(overridden.map((change) => change.path)).toEqual(['quality.samples']);
  });

  it('takes another kind of surroundings as one choice', () => {
    const mine = { ...from, surroundings: SURROUNDINGS_DEFAULTS.studio };
    const { brief, overridden } = mergeBriefs(from, mine, withSky({ north_deg: 77 }));
    expect(brief.surroundings).toEqual(SURROUNDINGS_DEFAULTS.studio);
    expect(overridden.map((change) => change.path)).toEqual(['surroundings.north_deg']);
  });

  it('tells nothing when both made the same change, or mine made none', () => {
    expect(mergeBriefs(from, withQuality({ samples: 9 }), withQuality({ samples: 9 })).overridden).toEqual([]);
    expect(mergeBriefs(from, from, withQuality({ samples: 9 }))).toEqual({
      brief: withQuality({ samples: 9 }),
      overridden: []
    });
  });
});
