import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { parseField } from '../../../contracts/from-fields';
import { BRIEF_DEFAULTS, type Brief, briefChanges, canonicalJson, filmBrief } from '../brief';
import { briefPage } from '../brief-page';
import { limitsOf } from '../limits';
import { BRIEF } from './brief-fields';
import { documentFields } from './document';
import { choice, defaultOf, number, object, type ObjectField } from './field';
import { changesBetween, completed, numberField, partOf } from './walk';

const weather = choice(['dry', 'rain', 'snow'], {
  label: 'Weather',
  doc: 'What falls.',
  default: 'dry',
  word: 'surroundings'
});
const vignette = number({ label: 'Vignette', doc: 'Darker corners.', default: 0, min: 0, max: 1 });
/** The brief with two more fields, as it is when they are added to the definitions. */
const LONGER = object(
  {
    ...BRIEF.fields,
    weather,
    finish: object(
      { ...BRIEF.fields.finish.fields, vignette },
      { label: 'Finish', doc: 'x', decides: 'finish', word: 'finish' }
    )
  },
  { label: 'Brief', doc: 'x', decides: 'film' }
);
type Longer = Brief & { weather: string; finish: { vignette: number } };
const film = (brief: object) => canonicalJson(partOf(LONGER, brief, ({ decides }) => decides === 'film') ?? {});
const finish = (brief: object) => canonicalJson(partOf(LONGER, brief, ({ decides }) => decides === 'finish') ?? {});

describe('a field that is added to the definitions', () => {
  const before = defaultOf(LONGER) as Longer;
  const snow: Longer = { ...before, weather: 'snow' };
  const dark: Longer = { ...before, finish: { ...before.finish, vignette: 0.4 } };

  it('has its default, and briefs that were kept before it are completed with it', () => {
    expect(before.weather).toBe('dry');
    expect(completed(LONGER, BRIEF_DEFAULTS)).toEqual(before);
  });
  it('is checked: its values by name, its range with its place', () => {
    expect(parseField(LONGER, { weather: 'snow' }, 'brief')).toMatchObject({ ok: true, value: { weather: 'snow' } });
    expect(parseField(LONGER, { weather: 'hail' }, 'brief')).toMatchObject({
      ok: false,
      message: 'brief.weather must be one of dry, rain, snow, got "hail"'
    });
    expect(parseField(LONGER, { finish: { vignette: 2 } }, 'brief')).toMatchObject({
      message: 'brief.finish.vignette must be a number from 0 to 1, got 2'
    });
  });
  it('changes the hash that it decides, and none while it is at its default', () => {
    expect(film(before)).toBe(canonicalJson(filmBrief(BRIEF_DEFAULTS)));
    expect(film(snow)).not.toBe(film(before));
    expect(finish(snow)).toBe(finish(before));
    expect(finish(dark)).not.toBe(finish(before));
    expect(film(dark)).toBe(film(before));
  });
  it('is counted as a change, under the word that names it', () => {
    expect(changesBetween(LONGER, before, snow)).toEqual([{ path: 'weather', label: 'Weather', word: 'surroundings' }]);
    expect(changesBetween(LONGER, before, dark)).toEqual([
      { path: 'finish.vignette', label: 'Vignette', word: 'finish' }
    ]);
  });
  it('is documented, and controls show its range', () => {
    expect(documentFields(LONGER)).toContain('| `weather` | dry, rain, snow | `"dry"` | film | What falls. |');
    expect(documentFields(LONGER)).toContain('| `finish.vignette` | 0 to 1 | `0` | finish | Darker corners. |');
    expect(numberField(LONGER, 'finish.vignette')).toMatchObject({ min: 0, max: 1 });
  });
});

describe('the fields of the brief', () => {
  it('have a documented page that is up to date: npm run docs writes it', () => {
    expect(readFileSync('docs/brief.md', 'utf8')).toBe(briefPage());
  });
  it('give a default that is a valid brief', () => {
    expect(parseField(BRIEF, BRIEF_DEFAULTS, 'brief')).toEqual({ ok: true, value: BRIEF_DEFAULTS });
  });
  it('give ranges to controls by their path', () => {
    expect(limitsOf('quality.samples')).toEqual({ min: 1, max: 65_536 });
    expect(limitsOf('surroundings.sky.moon_ev')).toEqual({ min: -10, max: 20 });
    expect(limitsOf('lamps.added.beam_deg')).toEqual({ min: 2, max: 178 });
    expect(() => limitsOf('quality.sampels')).toThrow('quality.sampels');
  });
  it('every one of them is counted when it changes, by a word of the sentence', () => {
    const changed: [Partial<Brief>, string, string][] = [
      [{ exposure: { ev100: 9 } }, 'exposure.ev100', 'exposure'],
      [{ exposure: { metered: true } }, 'exposure', 'exposure'],
      [{ openings: [{ middle_m: [0, 0, 0], normal: [0, 0, 1], width_m: 1, height_m: 1 }] }, 'openings', 'surroundings'],
      [{ finish: { ...BRIEF_DEFAULTS.finish, exposure_ev: 1 } }, 'finish.exposure_ev', 'finish'],
      [{ finish: { ...BRIEF_DEFAULTS.finish, denoise: 1 } }, 'finish.denoise', 'quality'],
      [{ finish: { ...BRIEF_DEFAULTS.finish, background: { kind: 'clear' } } }, 'finish.background', 'background'],
      [{ bleed_mm: 3 }, 'bleed_mm', 'size'],
      [{ seen: { ...BRIEF_DEFAULTS.seen, file: 'exr' } }, 'seen.file', 'size']
    ];
    for (const [part, path, word] of changed)
      expect(briefChanges({ ...BRIEF_DEFAULTS, ...part }, BRIEF_DEFAULTS)).toMatchObject([{ path, word }]);
  });
  it('each have a label and a sentence', () => {
    const walk = (field: ObjectField, path: string) => {
      for (const [key, child] of Object.entries(field.fields)) {
        expect([path, key, child.label.length > 1, /[.…]$/.test(child.doc)]).toEqual([path, key, true, true]);
        if (child.type === 'object') walk(child, `${path}.${key}`);
        if (child.type === 'union')
          for (const [name, variant] of Object.entries(child.variants)) walk(variant, `${path}.${key}.${name}`);
      }
    };
    walk(BRIEF, 'brief');
  });
});
