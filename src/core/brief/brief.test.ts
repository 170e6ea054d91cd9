import { describe, expect, it } from 'vitest';
import { DESTINATIONS, seenAt } from '../output/destinations';
import { parseBrief } from '../../contracts/brief';
import { lampsOfSet } from '../lights/studio/sets';
import {
  BRIEF_DEFAULTS,
  type Brief,
  type Finish,
  CLAY_DEFAULTS,
  CUMULUS_DEFAULTS,
  canonicalJson,
  filmBrief,
  GROUND_DEFAULTS,
  SURROUNDINGS_DEFAULTS
} from './brief';
import { statedEv } from './exposure';
import { readBrief } from './read-brief';
import { SURROUNDINGS_LIBRARY, takenFor } from './surroundings-library';
import {
  about,
  BRIEF_PANELS,
  composeSentence,
  countChanges,
  duration,
  finishPhrase,
  posePhrase,
  restingPanels
} from './sentence';

type Film = { quality: { min_samples?: number }; surroundings: object };
const parse = (brief: object) => parseBrief({ version: 1, ...brief });
const message = (brief: object) => {
  const result = parse(brief);
  return result.ok ? 'accepted' : result.message;
};

describe('the brief of version 1', () => {
  it('accepts the documented example and changes nothing in it', () => {
    const example = {
      version: 1,
      viewpoint: {
        position_m: [0, 1.6, 4],
        target_m: [0, 1, 0],
        up: [0, 1, 0],
        projection: 'perspective' as const,
        focal_length_mm: 35,
        sensor_height_mm: 24,
        f_number: null,
        focus_m: null
      },
      surroundings: { kind: 'even', radiance: 1, color: [1, 1, 1] },
      look: { kind: 'photographic' },
      exposure: { ev100: 12 },
      size: { width_px: 600, height_px: 400 },
      quality: { step: 'study', samples: 96, grain: null, bounces: 10, scale: 1 },
      ground: { kind: 'none' },
      finish: { exposure_ev: 0, denoise: 0, background: { kind: 'own' } }
    };
    const result = parseBrief(example);
    expect(result.ok && canonicalJson(result.value)).toBe(canonicalJson(BRIEF_DEFAULTS));
  });
  it('accepts the other shapes of each section', () => {
    for (const brief of [
      { viewpoint: { camera: 'North' } },
      { viewpoint: { projection: 'parallel', height_m: 4 } },
      { size: { paper: 'A3', orientation: 'landscape', ppi: 200 } },
      { size: { width_mm: 300, height_mm: 200, ppi: 150 } },
      {
        surroundings: { kind: 'sky', latitude_deg: 10, longitude_deg: 20, time: '2026-03-01T12:00:00Z', north_deg: 5 }
      },
      { surroundings: { kind: 'studio' } },
      {
        surroundings: {
          kind: 'studio',
          set: 'edges',
          backdrop: 'none',
          paper: 0.1,
          lamps: [{ name: 'Key', role: 'key', form: 'ring', kelvin: 3200 }]
        }
      },
      { ground: { kind: 'shadow', polish: 0.3 } },
      { surroundings: { kind: 'room', room: 'gallery', rotation_deg: 90 } },
      {
        surroundings: {
          kind: 'captured',
          file: 'a.hdr',
          rotation_deg: 40,
          brightness_ev: -1,
          sun: 'true',
          sun_turn_deg: 20,
          pitch_deg: 3
        }
      },
      { lamps: { groups: [{ group: 'Shelf lamps', dim_ev: -1 }], only: 'Shelf lamps' } },
      { exposure: { metered: true } },
      { exposure: { f_number: 2.8, shutter_s: 0.02, iso: 400 } },
      { finish: { background: { kind: 'clear' } } },
      { finish: { white: { kelvin: 3200 } } },
      { look: { kind: 'clay', grey: 0.2, glass: false, material: 'Oak' } },
      { quality: { step: 'exhibit' } }
    ])
      expect(message(brief)).toBe('accepted');
  });
  it.each([
    [{ lens: 3 }, /brief\.lens is not a known field/],
    [{ viewpoint: { focal_length: 35 } }, /brief\.viewpoint\.focal_length is not a known field/],
    [{ quality: { samples: 0 } }, /brief\.quality\.samples must be a whole number from 1 to 65536, got 0/],
    [{ quality: { samples: 10.5 } }, /whole number/],
    [
      { viewpoint: { focal_length_mm: 'wide' } },
      /brief\.viewpoint\.focal_length_mm must be a number from 4 to 2000 mm, got "wide"/
    ],
    [{ viewpoint: { position_m: [0, 1] } }, /brief\.viewpoint\.position_m must be three numbers/],
    [
      { surroundings: { kind: 'fog' } },
      /brief\.surroundings\.kind must be one of room, uniform, sky, studio, captured, got "fog"/
    ],
    [{ surroundings: { kind: 'sky', time: 'noon' } }, /brief\.surroundings\.time must be a time in ISO 8601/],
    [{ size: { paper: 'A9' } }, /brief\.size\.paper must be one of A0/],
    [{ size: { paper: 'A0', orientation: 'portrait', ppi: 1000 } }, /a side has at most 30000 px/],
    [{ bleed_mm: 80 }, /brief\.bleed_mm must be a number from 0 to 50 mm, got 80/],
    [{ patch: { x: 0.6, y: 0, width: 0.6, height: 0.5 } }, /brief\.patch reaches beyond the picture/],
    [{ seen: { file: 'gif' } }, /brief\.seen\.file must be one of png, jpg, exr/],
    [
      { seen: { destination: { name: 'Wall', size: { width_px: 0, height_px: 5 } } } },
      /brief\.seen\.destination\.size\.width_px must be a whole number/
    ],
    [
      { finish: { background: { kind: 'graded', from: 'red' } } },
      /brief\.finish\.background\.from must be a colour like/
    ],
    [{ size: { width_px: 0 } }, /brief\.size\.width_px must be a whole number from 1 to 30000, got 0/],
    [{ finish: { background: { kind: 'pink' } } }, /brief\.finish\.background\.kind must be one of own, clear/],
    [
      { surroundings: { kind: 'studio', lamps: [{ name: 'Key' }, { kelvin: 20 }] } },
      /brief\.surroundings\.lamps\[1\]\.kelvin must be a number from 1000 to 15000 K, got 20/
    ],
    [{ surroundings: { kind: 'studio', lamps: 3 } }, /brief\.surroundings\.lamps must be a list of lamps or null/],
    [{ ground: { kind: 'shadow', polish: 2 } }, /brief\.ground\.polish must be a number from 0 to 1, got 2/],
    [
      { lamps: { groups: [{ group: 'Shelf lamps', kelvin: 10 }] } },
      /brief\.lamps\.groups\[0\]\.kelvin must be a number from 1000 to 15000 K, got 10/
    ],
    [
      { surroundings: { kind: 'captured', file: 'a.hdr', sun: 'moon' } },
      /brief\.surroundings\.sun must be one of image, true, none/
    ],
    [{ ground: { kind: 'lawn' } }, /brief\.ground\.kind must be one of none, shadow, got "lawn"/],
    [
      { finish: { white: { kelvin: 90 } } },
      /brief\.finish\.white\.kelvin must be a number from 1000 to 15000 K, got 90/
    ],
    [{ look: { kind: 'clay', grey: 2 } }, /brief\.look\.grey must be a number from 0\.02 to 0\.95, got 2/],
    [{ look: { kind: 'drawn' } }, /brief\.look\.kind must be one of photographic, clay/]
  ])('refuses %j by name and range', (brief, expected) => expect(message(brief)).toMatch(expected));
  it('refuses another version and things that are no object', () => {
    expect(parseBrief({ version: 3 })).toMatchObject({ ok: false, message: 'brief.version must be 1 or 2, got 3' });
    expect(parseBrief([])).toMatchObject({ ok: false });
    expect(parseBrief(null)).toMatchObject({ ok: false });
  });
  it('of version 1, kept before sets, grounds and limits came, is read with new names and new fields at their defaults', () => {
    const { ground: _ground, ...old } = BRIEF_DEFAULTS;
    const { transparent_bounces: _transparent, min_samples, aovs, ...quality } = BRIEF_DEFAULTS.quality;
    const kept = {
      ...old,
      version: 1,
      quality: { ...quality, least: min_samples, aids: aovs, glow: false },
      surroundings: { kind: 'studio', rotation_deg: 25, brightness_ev: 0 }
    };
    expect(readBrief(JSON.stringify(kept))).toEqual({
      ...BRIEF_DEFAULTS,
      quality: { ...BRIEF_DEFAULTS.quality, emissive_lights: false },
      surroundings: { ...SURROUNDINGS_DEFAULTS.studio, rotation_deg: 25 }
    });
  });
  it('the finish is no part of what decides the film', () => {
    // nor do where it is seen, a bleed of a screen, and what is set aside when the picture is to be shown
    for (const same of [{ seen: { ...BRIEF_DEFAULTS.seen, distance_m: 3 } }, { bleed_mm: 3 }] as Partial<Brief>[])
      expect(canonicalJson(filmBrief({ ...BRIEF_DEFAULTS, ...same }))).toBe(canonicalJson(filmBrief(BRIEF_DEFAULTS)));
    const present = { ...BRIEF_DEFAULTS, quality: { ...BRIEF_DEFAULTS.quality, step: 'present' as const } };
    expect(canonicalJson(filmBrief({ ...present, quality: { ...present.quality, aside: ['Spruce'] } }))).toBe(
      canonicalJson(filmBrief(present))
    );
    expect(
      canonicalJson(filmBrief({ ...BRIEF_DEFAULTS, quality: { ...BRIEF_DEFAULTS.quality, aside: ['Spruce'] } }))
    ).not.toBe(canonicalJson(filmBrief(BRIEF_DEFAULTS)));
    const less = (more: Partial<Brief['quality']>) =>
      canonicalJson(filmBrief({ ...BRIEF_DEFAULTS, quality: { ...BRIEF_DEFAULTS.quality, ...more } }));
    expect(less({ slim: ['Spruce'] })).not.toBe(less({}));
    expect(less({ plain: ['Copper'] })).not.toBe(less({}));
    expect(less({ aside: ['Spruce'], slim: ['spruce'] })).toBe(less({ aside: ['Spruce'] }));
    // min samples count only where a grain may end a tile, and never less than the first decision
    const film = (more: Partial<Brief['quality']>) =>
      (filmBrief({ ...BRIEF_DEFAULTS, quality: { ...BRIEF_DEFAULTS.quality, grain: 5, ...more } }) as Film).quality
        .min_samples;
    const samples = [{}, { min_samples: 32 }, { min_samples: 64 }, { min_samples: 16 }, { min_samples: 1 }];
    expect(samples.map(film)).toEqual([undefined, undefined, 64, 16, 16]);
    const captured = (most_px: number | null) =>
      (filmBrief({ ...BRIEF_DEFAULTS, surroundings: { ...SURROUNDINGS_DEFAULTS.captured, most_px } }) as Film)
        .surroundings;
    expect(captured(null)).not.toHaveProperty('most_px');
    expect(captured(4096)).toHaveProperty('most_px', 4096);
    expect(canonicalJson(filmBrief({ ...BRIEF_DEFAULTS, finish: { ...BRIEF_DEFAULTS.finish, exposure_ev: 2 } }))).toBe(
      canonicalJson(filmBrief(BRIEF_DEFAULTS))
    );
  });
  it('takes surroundings from the library, each valid and of its own name, with north where the model has it', () => {
    expect(new Set(SURROUNDINGS_LIBRARY.map((e) => e.key)).size).toBe(SURROUNDINGS_LIBRARY.length);
    for (const { surroundings } of SURROUNDINGS_LIBRARY) expect(message({ surroundings })).toBe('accepted');
    expect(takenFor(SURROUNDINGS_LIBRARY[0]!, { ...SURROUNDINGS_DEFAULTS.sky, north_deg: 30 })).toEqual({
      ...SURROUNDINGS_LIBRARY[0]!.surroundings,
      north_deg: 30
    });
    expect(takenFor(SURROUNDINGS_LIBRARY[0]!, SURROUNDINGS_DEFAULTS.studio)).toEqual(
      SURROUNDINGS_LIBRARY[0]!.surroundings
    );
  });
  it('states an exposure by a meter’s value or a camera’s settings: f/16 at 1/125 s and ISO 100 is EV 15 (sunny 16, trade)', () => {
    expect(statedEv({ ev100: 9 })).toBe(9);
    expect(statedEv({ f_number: 16, shutter_s: 1 / 125, iso: 100 })).toBeCloseTo(15, 1);
    expect(statedEv({ f_number: 16, shutter_s: 1 / 125, iso: 400 })).toBeCloseTo(13, 1);
    expect(statedEv({ metered: true })).toBeNull();
  });
  it('the same document has the same bytes whatever the order of its keys', () =>
    expect(canonicalJson({ b: [1, { d: 2, c: null }], a: 'x' })).toBe('{"a":"x","b":[1,{"c":null,"d":2}]}'));
});

describe('the sentence', () => {
  const context = {
    name: 'East window',
    shown: null,
    nameOfCaptured: () => 'field',
    focalMm: 28,
    projection: 'perspective' as const,
    lampGroups: [] as string[]
  };
  const text = (brief = BRIEF_DEFAULTS) =>
    composeSentence(brief, context)
      .map((p) => ('text' in p ? p.text : p.word))
      .join('');
  it('says what the brief says', () => {
    expect(
      text({
        ...BRIEF_DEFAULTS,
        surroundings: { ...SURROUNDINGS_DEFAULTS.sky, time: '2026-10-12T17:10:00+02:00' },
        size: { paper: 'A3', orientation: 'landscape', ppi: 200 }
      })
    ).toBe(
      '“East window”, seen with a 28\u00a0mm lens, lit by Sky: 12\u00a0October, 17:10, photographic, on ' +
        'A3 landscape at 200\u00a0ppi, at Study quality'
    );
  });
  it('says where it will be seen, what that asks for when the size is another, and the bleed', () => {
    const board = DESTINATIONS.find((d) => d.name.startsWith('A3 board'))!;
    const slide = DESTINATIONS.find((d) => d.name.startsWith('Slide'))!;
    const said = (part: Partial<Brief>) =>
      text({ ...BRIEF_DEFAULTS, ...part })
        .replaceAll('\u00a0', ' ')
        .replace(/^.*photographic, |, at Study.*$/g, '');
    expect(said({ size: board.size, seen: seenAt(board) })).toBe('for an A3 board at arm’s length, 255 ppi');
    expect(said({ size: { paper: 'A3', orientation: 'landscape', ppi: 150 }, seen: seenAt(board) })).toBe(
      'on A3 landscape at 150 ppi (an A3 board at arm’s length asks for 255 ppi)'
    );
    expect(said({ size: { width_px: 800, height_px: 600 }, seen: seenAt(slide) })).toBe(
      'on a screen of 800 × 600 px (a slide 16:9 asks for 1920 × 1080 px)'
    );
    expect(said({ size: slide.size, seen: seenAt(slide) })).toBe('for a slide 16:9');
    expect(
      said({
        size: { width_mm: 300, height_mm: 200, ppi: 150 },
        bleed_mm: 3,
        seen: {
          destination: { name: 'Jury wall', size: { width_mm: 300, height_mm: 200, ppi: 150 } },
          distance_m: 1,
          file: 'png'
        }
      })
    ).toBe('for Jury wall, 150 ppi with 3 mm bleed');
  });
  it('says what stands behind the model, where it is seen', () => {
    const seen = (part: Partial<Brief>) =>
      text({
        ...BRIEF_DEFAULTS,
        finish: { ...BRIEF_DEFAULTS.finish, background: { kind: 'plain', lightness: 90 } },
        ...part
      });
    expect(seen({})).toContain('photographic, in front of plain grey, on a screen');
    expect(seen({ surroundings: SURROUNDINGS_DEFAULTS.studio })).not.toContain('before');
    expect(seen({ surroundings: SURROUNDINGS_DEFAULTS.studio, ground: GROUND_DEFAULTS })).toContain(
      'in front of plain grey'
    );
    expect(seen({ finish: BRIEF_DEFAULTS.finish })).not.toContain('before');
  });
  it('says what covers the sky, in the words of weather reports', () => {
    const said = (sky: Partial<typeof SURROUNDINGS_DEFAULTS.sky>) =>
      text({ ...BRIEF_DEFAULTS, surroundings: { ...SURROUNDINGS_DEFAULTS.sky, ...sky } });
    expect(said({ cloud: 0.5 })).toContain(':00, thin cloud, photographic');
    expect(said({ cloud: 1, cumulus: CUMULUS_DEFAULTS })).toContain(', overcast,');
    expect(said({ cumulus: { ...CUMULUS_DEFAULTS, cover: 0.4 } })).toContain(', scattered clouds,');
    expect(said({ cloud: 0.3, cumulus: { ...CUMULUS_DEFAULTS, cover: 0.7 } })).toContain(
      ', broken clouds under thin cloud,'
    );
  });
  it('says how a studio stands and what the model stands on', () => {
    const studio = SURROUNDINGS_DEFAULTS.studio;
    expect(
      text({ ...BRIEF_DEFAULTS, surroundings: { ...studio, set: 'ring' }, ground: { ...GROUND_DEFAULTS, polish: 0.2 } })
    ).toContain('lit by Studio: ring from the front on a reflecting ground, photographic');
    const [key] = lampsOfSet('three', 1);
    expect(text({ ...BRIEF_DEFAULTS, surroundings: { ...studio, lamps: [key!, { ...key!, on: false }] } })).toContain(
      'lit by Studio: one lamp, photographic'
    );
  });
  it('names the lamps that are on, how far they are dimmed, and which changed', () => {
    const lampGroups = ['Shelf lamp', 'Table lamp', 'Corridor'];
    const said = (lamps: Partial<typeof BRIEF_DEFAULTS.lamps>, groups = lampGroups) =>
      composeSentence(
        { ...BRIEF_DEFAULTS, lamps: { ...BRIEF_DEFAULTS.lamps, ...lamps } },
        { ...context, lampGroups: groups, shown: BRIEF_DEFAULTS }
      );
    const line = (parts: ReturnType<typeof said>) => parts.map((p) => ('text' in p ? p.text : p.word)).join('');
    expect(line(said({}))).toContain('lit by Uniform light, shelf lamp, table lamp and corridor, photographic');
    const dimmed = said({
      groups: [
        { group: 'Table lamp', on: true, dim_ev: -1, kelvin: null, photometry: null },
        { group: 'Corridor', on: false, dim_ev: 0, kelvin: null, photometry: null }
      ]
    });
    expect(line(dimmed)).toContain('shelf lamp and table lamp at 50\u00a0%,');
    expect(dimmed.filter((p) => 'word' in p && p.changed).map((p) => ('word' in p ? p.word : ''))).toEqual([
      'table lamp at 50\u00a0%'
    ]);
    expect(line(said({ only: 'Corridor' }))).toContain('Uniform light, Corridor alone,');
    expect(line(said({}, [...lampGroups, 'Dome']))).toContain('shelf lamp, table lamp and 2 more lamps,');
  });
  it('marks the words that changed since the proof on the stage', () => {
    const changed = composeSentence(
      { ...BRIEF_DEFAULTS, look: CLAY_DEFAULTS },
      { ...context, shown: BRIEF_DEFAULTS }
    ).filter((p) => 'word' in p && p.changed);
    expect(changed).toHaveLength(1);
    expect(countChanges({ ...BRIEF_DEFAULTS, look: CLAY_DEFAULTS }, BRIEF_DEFAULTS)).toBe(1);
  });
  it('names the exposure and the white balance only where they are set', () => {
    const exposed = (part: Partial<Brief>) => text({ ...BRIEF_DEFAULTS, ...part }).replaceAll('\u00a0', ' ');
    expect(exposed({ exposure: { metered: true } })).not.toContain('exposed');
    expect(exposed({ exposure: { ev100: 9.5 } })).toContain('photographic, exposed for 9.5 EV, on');
    expect(
      exposed({
        exposure: { f_number: 8, shutter_s: 1 / 60, iso: 200 },
        finish: { ...BRIEF_DEFAULTS.finish, white: { kelvin: 3200, tint: 0 } }
      })
    ).toContain('exposed at f/8, 1/60 s, ISO 200, white at 3,200 K');
  });
  it('gives the density of the file where the quality renders a share of the size', () => {
    const draft = { ...BRIEF_DEFAULTS.quality, scale: 0.25 };
    const sheet = { paper: 'A3', orientation: 'landscape', ppi: 200 } as const;
    expect(text({ ...BRIEF_DEFAULTS, quality: draft, size: sheet })).toContain(
      'on A3 landscape at 200\u00a0ppi, drafted at 50\u00a0ppi, at'
    );
    expect(text({ ...BRIEF_DEFAULTS, quality: draft })).toContain('drafted at 150\u00a0×\u00a0100\u00a0px');
  });
  it('counts what is posed and placed', () => {
    const part = { turn_deg: [0, 0, 0], move_m: [1, 0, 0], about_m: [0, 0, 0], seen: 'whole' } as const;
    const pose = [
      { ...part, part: '' },
      { ...part, part: 'Door' },
      { ...part, part: 'Tree', move_m: [0, 0, 0], seen: 'out' }
    ] as unknown as Brief['pose'];
    const chair = { name: 'Chair', model: 'chair', position_m: [0, 0, 0], turn_deg: 0, scale: 1, seen: 'whole' };
    const placed = [chair, chair] as Brief['placed'];
    expect(posePhrase({ pose, placed, curves_mm: null })).toBe(
      'the model turned, one\u00a0part moved, one\u00a0part left out and two\u00a0placed pieces'
    );
    expect(text({ ...BRIEF_DEFAULTS, placed })).toContain('mm lens, with two\u00a0placed pieces, lit by');
    expect(posePhrase(BRIEF_DEFAULTS)).toBe(null);
    // what has no effect does not make another film
    const idle = [{ ...part, part: 'Door', move_m: [0, 0, 0] }] as unknown as Brief['pose'];
    expect(filmBrief({ ...BRIEF_DEFAULTS, pose: idle })).toEqual(filmBrief(BRIEF_DEFAULTS));
    expect(filmBrief({ ...BRIEF_DEFAULTS, pose })).not.toEqual(filmBrief(BRIEF_DEFAULTS));
  });
  it('opens every panel, by a word of the sentence or as one at rest', () => {
    const metered: Brief = { ...BRIEF_DEFAULTS, exposure: { metered: true } };
    const shown: Brief = { ...metered, exposure: { ev100: 9 } };
    const sentence = composeSentence(metered, { ...context, shown });
    const resting = restingPanels(sentence, metered, shown);
    expect(resting).toEqual([
      { panel: 'lamps', changed: false },
      { panel: 'exposure', changed: true },
      { panel: 'background', changed: false },
      { panel: 'pose', changed: false },
      { panel: 'finish', changed: false }
    ]);
    const named = sentence.flatMap((p) => ('panel' in p ? [p.panel] : []));
    expect([...new Set([...named, ...resting.map((r) => r.panel)])].sort()).toEqual([...BRIEF_PANELS].sort());
  });
  it('says what the finish does, the first of it by name', () => {
    const { finish } = BRIEF_DEFAULTS;
    const lamps = [{ group: 'Shelf lamp', on: true, dim_ev: -1, warmth_mired: 0 }];
    expect(finishPhrase(finish)).toBe(null);
    expect(finishPhrase({ ...finish, lamps: [{ group: 'Sun', on: true, dim_ev: 1, warmth_mired: 0 }] })).toBe(
      'sun raised to 200\u00a0%'
    );
    expect(finishPhrase({ ...finish, exposure_ev: 0.4, lamps })).toBe(
      'brightened by 0.4\u00a0EV, shelf lamp dimmed to 50\u00a0%'
    );
    const more: Finish = {
      ...finish,
      exposure_ev: -1,
      tone: { ...finish.tone, curve: 'gentle', contrast: 0.2 },
      lamps
    };
    expect(finishPhrase(more)).toBe(
      'darkened by 1.0\u00a0EV, shelf lamp dimmed to 50\u00a0%, two\u00a0adjustments more'
    );
    expect(text({ ...BRIEF_DEFAULTS, finish: { ...finish, exposure_ev: 0.4 } })).toContain('brightened by 0.4\u00a0EV');
  });
  it('tells times as people do', () => {
    expect([duration(46), duration(648), duration(4800), about(43), about(660)]).toEqual([
      '46\u00a0s',
      '10\u00a0min 48\u00a0s',
      '1\u00a0h 20\u00a0min',
      '45\u00a0s',
      '11\u00a0min'
    ]);
  });
});
