/** The brief's contract walked leaf by leaf: whatever is put wrong, wherever, is refused by the name of its place. */
import { describe, expect, it } from 'vitest';
import {
  BRIEF_DEFAULTS,
  CLAY_DEFAULTS,
  GROUND_DEFAULTS,
  CUMULUS_DEFAULTS,
  SURROUNDINGS_DEFAULTS
} from '../core/brief/brief';
import { lampsOfSet } from '../core/lights/studio/sets';
import { parseBrief } from './brief';

type Path = (string | number)[];
type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

const added = {
  name: 'Arch lamp',
  form: 'spot',
  position_m: [0, 2, 0],
  direction: [0, -1, 0],
  turn_deg: 10,
  width_m: 0.1,
  height_m: 0.1,
  beam_deg: 40,
  lumen: 600,
  kelvin: 3000,
  tint: 0,
  photometry: 'narrow.ies'
};
/** Every section in every shape, nothing null that can have a value. */
const SHAPES: Record<string, object>[] = [
  {
    viewpoint: { ...BRIEF_DEFAULTS.viewpoint, f_number: 2.8, focus_m: 3, height_m: 4 },
    exposure: { f_number: 2.8, shutter_s: 0.02, iso: 400 },
    size: { paper: 'A3', orientation: 'landscape', ppi: 200 }
  },
  {
    viewpoint: { camera: 'North' },
    exposure: { metered: true },
    size: { width_mm: 300, height_mm: 200, ppi: 150 },
    patch: { x: 0.1, y: 0.1, width: 0.2, height: 0.2 }
  },
  {
    surroundings: { ...SURROUNDINGS_DEFAULTS.sky, mirror_deg: 10, cumulus: CUMULUS_DEFAULTS },
    ground: GROUND_DEFAULTS,
    look: { ...CLAY_DEFAULTS, material: 'Oak' }
  },
  {
    surroundings: { ...SURROUNDINGS_DEFAULTS.studio, backdrop: 'none', paper: 0.1, lamps: lampsOfSet('three', 1) },
    seen: { file: 'png', distance_m: 2, destination: { name: 'Wall', size: { width_px: 300, height_px: 200 } } }
  },
  {
    surroundings: { ...SURROUNDINGS_DEFAULTS.captured, file: 'field.hdr', most_px: 4096 },
    quality: {
      ...BRIEF_DEFAULTS.quality,
      grain: 1,
      firefly: 10,
      diffuse_bounces: 4,
      specular_bounces: 4,
      transmission_bounces: 8,
      minutes: 3,
      aside: ['Spruce'],
      slim: ['Chair'],
      plain: ['Copper']
    }
  },
  {
    surroundings: SURROUNDINGS_DEFAULTS.uniform,
    lamps: {
      groups: [{ group: 'Shelf lamps', on: true, dim_ev: -1, kelvin: 3000, photometry: 'wide.ldt' }],
      only: 'Shelf lamps',
      added: [added],
      regrouped: [{ lamp: 'Lamp 3', group: 'Shelf lamps' }]
    }
  },
  {
    surroundings: SURROUNDINGS_DEFAULTS.room,
    finish: {
      ...BRIEF_DEFAULTS.finish,
      white: { kelvin: 3200, tint: 2 },
      background: { kind: 'graded', from: '#101010', to: '#e0e0e0', angle_deg: 20, spread: 1 }
    }
  },
  {
    finish: { background: { kind: 'plain', lightness: 90 } },
    openings: [{ middle_m: [0, 1, 0], normal: [0, 0, 1], width_m: 2, height_m: 1.5 }]
  },
  { finish: { background: { kind: 'paper', lightness: 92, corner: 'upper left', fall: 10, grain: 1 } } },
  { finish: { background: { kind: 'picture', file: 'hill.jpg', across: 0.5, down: 0.5, enlarged: 1, lighter_ev: 0 } } }
];
const parse = (brief: unknown) => parseBrief({ version: 2, ...(brief as object) });
const refusal = (brief: unknown) => {
  const result = parse(brief);
  return result.ok ? 'accepted' : result.message;
};

function* leaves(value: Json, path: Path = []): Generator<{ path: Path; value: null | boolean | number | string }> {
  if (value === null || typeof value !== 'object') yield { path, value };
  else
    for (const [key, inner] of Object.entries(value))
      yield* leaves(inner as Json, [...path, Array.isArray(value) ? Number(key) : key]);
}
function* objects(value: Json, path: Path = []): Generator<Path> {
  if (value === null || typeof value !== 'object') return;
  if (!Array.isArray(value)) yield path;
  for (const [key, inner] of Object.entries(value))
    yield* objects(inner as Json, [...path, Array.isArray(value) ? Number(key) : key]);
}
/** A copy with another value at a place. */
function put(of: Json, [first, ...rest]: Path, value: unknown): Json {
  const copy = structuredClone(of) as Record<string | number, Json>;
  copy[first!] = rest.length === 0 ? (value as Json) : put(copy[first!]!, rest, value);
  return copy;
}
const json = (shape: object) => JSON.parse(JSON.stringify(shape)) as Json;
const place = (path: Path) =>
  path.reduce<string>((text, key) => (typeof key === 'number' ? `${text}[${key}]` : `${text}.${key}`), 'brief');
/** How a message names a value's place: of a vector, and of a list of names, as a whole. */
const named = (path: Path) => place(path).replace(/\[\d+\]$/, '');

const WRONG: Record<string, unknown[]> = {
  number: ['much', {}, true, Number.NaN, 1e300, -1e300, []],
  boolean: [1, 'true', {}],
  string: [5, {}, true, 'x'.repeat(5000)]
};
// what chooses the shape itself: a wrong one is refused in the words of the shape that is then taken
const CHOOSES = new Set(['camera', 'metered']);

describe('the contract of the brief', () => {
  it.each(SHAPES.map((shape, i) => [i, shape]))('accepts shape %i, and gives back all that it says', (_, shape) => {
    const result = parse(shape);
    expect(result.ok ? 'accepted' : result.message).toBe('accepted');
    expect(result.ok && json(result.value)).toMatchObject(json(shape) as object);
  });

  it.each(SHAPES.map((shape, i) => [i, shape]))(
    'shape %i: every value of another type, and every number beyond all bounds, is refused by its place',
    (_, shape) => {
      let tried = 0;
      for (const { path, value } of leaves(json(shape))) {
        if (value === null || CHOOSES.has(String(path.at(-1)))) continue;
        for (const wrong of WRONG[typeof value]!) {
          expect(refusal(put(json(shape), path, wrong)), `${place(path)} = ${JSON.stringify(wrong)}`).toSatisfy(
            (message: string) => message.startsWith(`${named(path)} `)
          );
          tried++;
        }
      }
      expect(tried).toBeGreaterThan(10);
    }
  );

  it.each(SHAPES.map((shape, i) => [i, shape]))(
    'shape %i: a word that nobody knows is refused wherever it stands',
    (_, shape) => {
      for (const path of objects(json(shape)))
        expect(refusal(put(json(shape), [...path, 'gloom'], 1))).toContain(
          `${place([...path, 'gloom'])} is not a known field`
        );
    }
  );

  it.each(['viewpoint', 'surroundings', 'look', 'exposure', 'size', 'seen', 'quality', 'ground', 'lamps', 'finish'])(
    '%s that is no object is refused',
    (section) => {
      for (const wrong of [null, 3, 'x', []])
        expect(refusal({ [section]: wrong })).toMatch(new RegExp(`^brief\\.${section}.* must be`));
    }
  );
});
