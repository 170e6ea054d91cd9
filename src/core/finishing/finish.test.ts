/** What a finish does, held to closed forms, to laws of optics and to another implementation of colour (culori). */
import { converter } from 'culori';
import { describe, expect, it } from 'vitest';
import { BRIEF_DEFAULTS, type Finish } from '../brief/brief';
import { TONE_CHARACTERS } from '../catalogue/tone-characters';
import { warmthGain } from '../color/kelvin';
import { lightness, luminanceOfLightness } from '../color/lightness';
import { luminance, toDisplayP3 } from '../color/spaces';
import { MID_GREY_IN, toneCurve, toneOf } from '../color/tone';
import { tileFloats, tilesOf } from '../film/film';
import { FinishedLight } from '../film/finished-light';
import { lightOfTile } from '../film/light';
import { openStageFilm, packStageFilm, takeStageFilm } from '../film/stage-film';
import { MemoryFilm } from '../film/store';
import { quickLog2 } from '../math/curve-table';
import { createRandom } from '../sampling/random';
import { AroundMaps } from './around';
import { blurred, type Plane } from './blur';
import { createDeveloper } from './develop';
import { encodeSrgb8 } from './encode-rows';
import { createGrade, filterGain } from './grade';
import { StageDeveloper } from './stage-developer';
import { surfaceAdjustments } from './surface';

const asRendered = BRIEF_DEFAULTS.finish;
const WHITE = 120;
type Part = 'tone' | 'color' | 'lens' | 'surface';
const withPart = <P extends Part>(part: P, changes: Partial<Finish[P]>): Finish => ({
  ...asRendered,
  [part]: { ...asRendered[part], ...changes }
});

/** Displayed light of a radiance in the middle of a picture. */
function shown(finish: Finish, radiance: readonly number[], at: readonly [number, number] = [0.5, 0.5]): number[] {
  const rgb = Float64Array.from(radiance);
  createGrade(finish, WHITE, 1.5)(rgb, at[0], at[1], at[0], at[1]);
  return [...rgb];
}
const grey = (value: number) => [value, value, value];
const toOklch = converter('oklch');
const oklch = ([r, g, b]: readonly number[]) => toOklch({ mode: 'lrgb', r: r!, g: g!, b: b! });
const hueOf = (rgb: readonly number[]) => oklch(rgb).h!;
const chromaOf = (rgb: readonly number[]) => oklch(rgb).c;
/** Of two hues, degrees. */
const apart = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);

const COLOURS = [
  [30, 8, 4],
  [4, 20, 8],
  [5, 8, 40],
  [50, 40, 8],
  [20, 25, 60]
];

describe('a file for wide screens', () => {
  const wide = (finish: Finish, radiance: readonly number[]): number[] => {
    const rgb = Float64Array.from(radiance);
    createGrade(finish, WHITE, 1.5, undefined, null, 'p3')(rgb, 0.5, 0.5, 0.5, 0.5);
    return [...rgb];
  };
  it('shows the same colours where none is made more saturated', () => {
    for (const colour of COLOURS) expect(wide(asRendered, colour)).toEqual(shown(asRendered, colour));
  });
  it('lets saturation go further than sRGB does, within Display P3, at the same luminance', () => {
    const vivid = withPart('color', { saturation: 1 });
    let beyond = 0;
    for (const colour of [...COLOURS, [60, 4, 2], [3, 60, 5]]) {
      const [narrow, far] = [shown(vivid, colour), wide(vivid, colour)];
      expect(luminance(far)).toBeCloseTo(luminance(narrow), 9);
      expect(Math.min(...narrow)).toBeGreaterThanOrEqual(-1e-9);
      if (Math.min(...far) < -1e-4 || Math.max(...far) > 1 + 1e-4) beyond++;
      const p3 = Float64Array.from(far);
      toDisplayP3(p3);
      expect(Math.min(...p3)).toBeGreaterThanOrEqual(-1e-6);
      expect(Math.max(...p3)).toBeLessThanOrEqual(1 + 1e-6);
    }
    expect(beyond).toBeGreaterThanOrEqual(3);
  });
});

describe('tones', () => {
  it('are those of the default curve where nothing is adjusted', () => {
    for (const value of [0.1, 5, 40, 300])
      expect(shown(asRendered, grey(value))[0]).toBeCloseTo(toneCurve(value / WHITE), 5);
  });
  it.each(TONE_CHARACTERS)('%s never falls while light grows, and stays between black and white', (character) => {
    const { curve } = toneOf(character);
    let before = 0;
    for (let x = 1e-5; x < 1e4; x *= 1.02) {
      const y = curve(x);
      expect(y).toBeGreaterThanOrEqual(before);
      expect(y).toBeLessThanOrEqual(1);
      before = y;
    }
  });
  it.each(TONE_CHARACTERS.filter((c) => c !== 'plain' && c !== 'faded'))('%s shows mid grey at L* 50', (character) => {
    expect(lightness(toneOf(character).curve(MID_GREY_IN))).toBeCloseTo(50, 6);
    expect(lightness(toneOf(character, 1.7).curve(MID_GREY_IN))).toBeCloseTo(50, 6);
  });
  it('plain is light as it is', () => {
    const plain = withPart('tone', { curve: 'plain' });
    for (const share of [0.01, 0.2, 0.9]) expect(shown(plain, grey(share * WHITE))[0]).toBeCloseTo(share, 5);
    expect(shown(plain, grey(3 * WHITE))[0]).toBe(1);
  });
  it('a colour keeps its linear hue through the curve: the middle channel keeps its place', () => {
    for (const radiance of COLOURS)
      for (const times of [0.2, 1, 8]) {
        // against the colour with the crosstalk that comes before the curve
        const y = luminance(radiance);
        const mixed = radiance.map((c) => (0.94 * c + 0.06 * y) * times);
        const out = shown(
          asRendered,
          radiance.map((c) => c * times)
        );
        const place = (rgb: readonly number[]) => {
          const [a, b, c] = [...rgb].sort((p, q) => p - q) as [number, number, number];
          return (b - a) / (c - a);
        };
        expect(place(out)).toBeCloseTo(place(mixed), 5);
      }
  });
  it('black and white points say what is shown black and white; a negative black lifts it, even where there is none', () => {
    const level = WHITE * 2 ** 3;
    const at = (tone: Partial<Finish['tone']>, value: number) => shown(withPart('tone', tone), grey(value))[0]!;
    const y = toneCurve(0.05);
    const b = luminanceOfLightness(10);
    expect(at({ black: 10 }, 0.05 * WHITE)).toBeCloseTo((y - b) / (1 - b), 5);
    expect(at({ black: 20 }, 0.001 * WHITE)).toBe(0);
    expect(at({ white: 90 }, level)).toBe(1);
    const low = luminanceOfLightness(15);
    expect(at({ black: -15 }, 0)).toBeCloseTo(low / (1 + low), 5);
  });
  it('contrast steepens about mid grey', () => {
    const more = withPart('tone', { contrast: 0.5 });
    expect(shown(more, grey(MID_GREY_IN * WHITE))[0]).toBeCloseTo(toneCurve(MID_GREY_IN), 5);
    expect(shown(more, grey(2))[0]!).toBeLessThan(shown(asRendered, grey(2))[0]!);
    expect(shown(more, grey(60))[0]!).toBeGreaterThan(shown(asRendered, grey(60))[0]!);
  });
});

describe('colours', () => {
  it('without saturation are grey of the same luminance', () => {
    for (const radiance of COLOURS) {
      const full = shown(asRendered, radiance);
      const none = shown(withPart('color', { saturation: -1 }), radiance);
      expect(Math.max(...none) - Math.min(...none)).toBeLessThan(1e-6);
      expect(none[0]).toBeCloseTo(luminance(full), 5);
    }
  });
  it('with saturation or vibrance keep their luminance, and their hue to six degrees, in blue twelve, by culori', () => {
    for (const radiance of COLOURS)
      for (const change of [{ saturation: 0.3 }, { saturation: -0.5 }, { vibrance: 0.6 }]) {
        const before = shown(asRendered, radiance);
        const after = shown(withPart('color', change), radiance);
        expect(luminance(after)).toBeCloseTo(luminance(before), 5);
        const grows = !('saturation' in change) || change.saturation! > 0;
        expect(chromaOf(after) > chromaOf(before)).toBe(grows);
        // along a line to the white point; blue bends in any such space
        expect(apart(hueOf(after), hueOf(before))).toBeLessThan(radiance[2]! > radiance[0]! * 3 ? 12 : 6);
        for (const c of after) {
          expect(c).toBeGreaterThanOrEqual(-1e-9);
          expect(c).toBeLessThanOrEqual(1 + 1e-9);
        }
      }
  });
  it('vibrance does more to quiet colours', () => {
    const gain = (radiance: readonly number[]) =>
      chromaOf(shown(withPart('color', { vibrance: 0.5 }), radiance)) / chromaOf(shown(asRendered, radiance));
    expect(gain([22, 20, 18])).toBeGreaterThan(gain([40, 12, 6]) + 0.1);
  });
  it('a filter keeps the luminance of white, and is that of the lamp filters for a warm colour', () => {
    for (const hex of ['#ffb46e', '#4060ff']) expect(luminance(filterGain(hex, 0.7))).toBeCloseTo(1, 6);
    const warm = filterGain('#ffb46e', 0.5);
    expect(warm[0]).toBeGreaterThan(1);
    expect(warm[2]).toBeLessThan(0.7);
  });
  it('bleach bypass takes colour, adds contrast and keeps black, mid grey and white', () => {
    const silver = withPart('color', { bleach: 1 });
    expect(shown(silver, grey(MID_GREY_IN * WHITE))[0]).toBeCloseTo(toneCurve(MID_GREY_IN), 3);
    expect(shown(silver, grey(1))[0]!).toBeLessThan(shown(asRendered, grey(1))[0]!);
    expect(shown(silver, grey(100))[0]!).toBeGreaterThan(shown(asRendered, grey(100))[0]!);
    for (const radiance of COLOURS)
      expect(chromaOf(shown(silver, radiance))).toBeLessThan(chromaOf(shown(asRendered, radiance)));
  });
});

describe('the lens', () => {
  it('darkens by the cosine’s fourth power, by so many stops in the corners and not at all in the middle', () => {
    const plain = { ...withPart('lens', { vignette_ev: 1.5 }), tone: { ...asRendered.tone, curve: 'plain' as const } };
    expect(shown(plain, grey(60), [0.5, 0.5])[0]).toBeCloseTo(0.5, 5);
    expect(shown(plain, grey(60), [1, 1])[0]).toBeCloseTo(0.5 * 2 ** -1.5, 5);
    // half way to the corner: tan is half, so cos^4 = 1 / (1 + t^2 / 4)^2
    const t2 = 2 ** 0.75 - 1;
    expect(shown(plain, grey(60), [0.75, 0.75])[0]).toBeCloseTo(0.5 / (1 + t2 / 4) ** 2, 5);
  });

  /** One bright pixel in the dark. */
  const spot = (width: number, height: number, value: number): Plane => {
    const data = new Float32Array(width * height * 3);
    data.fill(
      value,
      (Math.floor(height / 2) * width + Math.floor(width / 2)) * 3,
      (Math.floor(height / 2) * width + Math.floor(width / 2)) * 3 + 3
    );
    return { data, width, height };
  };
  const total = (plane: Plane) => plane.data.reduce((sum, v) => sum + v, 0);

  it('blurs by a Gaussian of the right width and loses no light, at the edge neither', () => {
    for (const sigma of [1.5, 6]) {
      const out = blurred(spot(101, 81, 3000), sigma);
      expect(total(out) / 9000).toBeCloseTo(1, 4);
      let squared = 0;
      for (let y = 0; y < 81; y++)
        for (let x = 0; x < 101; x++) squared += out.data[(y * 101 + x) * 3]! * (x - 50) ** 2;
      expect(Math.sqrt(squared / 3000) / sigma).toBeGreaterThan(0.8);
      expect(Math.sqrt(squared / 3000) / sigma).toBeLessThan(1.2);
    }
    const even = blurred({ data: new Float32Array(40 * 30 * 3).fill(7), width: 40, height: 30 }, 9);
    expect(Math.max(...even.data.map((v) => Math.abs(v - 7)))).toBeLessThan(1e-4);
  });
  it('scatters light around what is bright, falling with the distance squared, and keeps all of it', () => {
    const [width, height] = [360, 240];
    const copy = spot(width, height, 1e6);
    const { scatter } = new AroundMaps(copy, WHITE).of(withPart('lens', { glow: 0.1 }));
    const at = (px: number) => {
      const rgb = new Float64Array(3);
      scatter!((width / 2 + 0.5 + px) / width, 0.5 + 0.5 / height, rgb);
      return rgb[1]!;
    };
    // veiling luminance over angle squared (Holladay 1926): the slope of the logarithms is -2
    const slope = Math.log(at(48) / at(6)) / Math.log(48 / 6);
    expect(slope).toBeGreaterThan(-2.5);
    expect(slope).toBeLessThan(-1.5);
    let sum = 0;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const rgb = new Float64Array(3);
        scatter!((x + 0.5) / width, (y + 0.5) / height, rgb);
        sum += rgb[0]!;
      }
    expect(sum / (0.1 * 1e6)).toBeGreaterThan(0.97);
    expect(sum / (0.1 * 1e6)).toBeLessThan(1.03);
  });
  it('leaves an even picture as it is, however much it scatters', () => {
    const { scatter } = new AroundMaps(
      { data: new Float32Array(60 * 40 * 3).fill(5), width: 60, height: 40 },
      WHITE
    ).of(withPart('lens', { glow: 0.5 }));
    const rgb = Float64Array.of(5, 5, 5);
    scatter!(0.1, 0.9, rgb);
    for (const v of rgb) expect(v).toBeCloseTo(5, 3);
  });
  it('streaks and ghosts come from what is brighter than white alone', () => {
    const flare = withPart('lens', { streaks: 1, ghosts: 1 });
    const dim = new AroundMaps(spot(120, 80, WHITE), WHITE).of(flare);
    const lit = new AroundMaps(spot(120, 80, 1e5), WHITE).of(flare);
    const rays = (scatter: typeof dim.scatter) => {
      const seen: number[] = [];
      for (let i = 0; i < 120; i++) {
        const rgb = new Float64Array(3);
        const angle = (2 * Math.PI * i) / 120;
        scatter!(0.5 + (20 * Math.cos(angle) + 0.5) / 120, 0.5 + (20 * Math.sin(angle) + 0.5) / 80, rgb);
        seen.push(rgb[0]!);
      }
      return seen;
    };
    expect(Math.max(...rays(dim.scatter))).toBe(0);
    const around = rays(lit.scatter);
    const mean = around.reduce((a, b) => a + b) / 120;
    // six rays
    expect(
      around.filter((v, i) => v > 2 * mean && v >= around[(i + 1) % 120]! && v > around[(i + 119) % 120]!).length
    ).toBe(6);
  });
});

describe('shadows and highlights', () => {
  /** Half dark, half bright, with some structure in both. */
  const room: Plane = { data: new Float32Array(160 * 100 * 3), width: 160, height: 100 };
  for (let y = 0; y < 100; y++)
    for (let x = 0; x < 160; x++)
      room.data.fill((x < 80 ? 0.6 : 90) * ((x + y) % 2 ? 1.1 : 0.9), (y * 160 + x) * 3, (y * 160 + x) * 3 + 3);
  const lifted = withPart('tone', { shadows: 0.5 });
  const { surround } = new AroundMaps(room, WHITE).of(lifted);

  it('are told by the neighbourhood, which does not look across the edge between them', () => {
    expect(2 ** surround!(0.47, 0.5, Math.log2(0.6))).toBeCloseTo(0.6, 1);
    expect(2 ** surround!(0.53, 0.5, Math.log2(90))).toBeGreaterThan(80);
  });
  it('lift the dark by what they say and leave the bright; fine structure keeps its contrast', () => {
    const rgb = (radiance: number, u: number) => {
      const out = Float64Array.from(grey(radiance));
      const plain = { ...lifted, tone: { ...lifted.tone, curve: 'plain' as const } };
      createGrade(plain, WHITE, 1.6, { scatter: null, surround })(out, u, 0.5, u, 0.5);
      return out[0]!;
    };
    expect(rgb(0.6, 0.3) / (0.6 / WHITE)).toBeCloseTo(2, 1);
    expect(rgb(90, 0.8) / (90 / WHITE)).toBeCloseTo(1, 2);
    expect(rgb(0.66, 0.3) / rgb(0.54, 0.3)).toBeGreaterThan(0.97 * (0.66 / 0.54));
  });
  it('the quick logarithm is one to a millionth', () => {
    for (let x = 1e-6; x < 1e5; x *= 1.37) expect(Math.abs(quickLog2(x) - Math.log2(x))).toBeLessThan(2e-6);
  });
});

describe('the surface', () => {
  const width = 48;
  const rows = 32;
  const edge = new Float32Array(width * rows * 4);
  for (let i = 0; i < width * rows; i++) {
    const x = i % width;
    // an edge over three pixels
    const t = Math.min(1, Math.max(0, (x - 22) / 3));
    edge.fill(0.1 + 0.5 * t, i * 4, i * 4 + 3);
    edge[i * 4 + 3] = 1;
  }
  const run = (finish: Finish, source = edge) => {
    const [adjustment] = surfaceAdjustments(finish, rows, 1);
    const out = new Float32Array(source.length);
    adjustment!.apply(source, out, { width, first: 0, count: rows, y: 0 });
    return out;
  };

  it('is sharpened without halos: edges are steeper, and nothing is lighter or darker than what was there', () => {
    const out = run(withPart('surface', { sharpen: 1, sharpen_px: 1.5 }));
    const row = (of: Float32Array) => Array.from({ length: width }, (_, x) => of[(16 * width + x) * 4]!);
    const steepest = (of: number[]) => Math.max(...of.slice(1).map((v, i) => v - of[i]!));
    expect(steepest(row(out))).toBeGreaterThan(1.15 * steepest(row(edge)));
    expect(Math.max(...row(out))).toBeLessThanOrEqual(0.6 + 1e-4);
    expect(Math.min(...row(out))).toBeGreaterThanOrEqual(0.1 - 1e-4);
  });
  it('has a texture of the spread that is asked for, in film most in the mid tones', () => {
    const spread = (texture: 'film' | 'paper', level: number) => {
      const even = new Float32Array(edge.length).fill(luminanceOfLightness(level));
      const out = run(withPart('surface', { texture, texture_amount: 4 }), even);
      const values = Array.from({ length: width * rows }, (_, i) => lightness(out[i * 4]!));
      const mean = values.reduce((a, b) => a + b) / values.length;
      expect(Math.abs(mean - level)).toBeLessThan(1);
      return Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length);
    };
    expect(spread('paper', 90)).toBeGreaterThan(1.5);
    expect(spread('film', 50)).toBeGreaterThan(2);
    expect(spread('film', 50)).toBeLessThan(6);
    expect(spread('film', 95)).toBeLessThan(spread('film', 50) / 3);
  });
});

/** A film with a picture of colours, two light layers that add up to it, and grain. */
async function filmOf(width: number, height: number, grain: number) {
  const film = new MemoryFilm();
  const random = createRandom(7);
  const layers = { groups: ['surroundings', 'Shelf lamp'], aovs: null };
  for (const tile of tilesOf(width, height)) {
    const pixels = tile.width * tile.height;
    const data = new Float32Array(tileFloats(pixels, 2));
    for (let i = 0; i < pixels; i++) {
      const x = tile.x + (i % tile.width);
      const y = tile.y + Math.floor(i / tile.width);
      for (let c = 0; c < 3; c++) {
        const sky = (20 + 60 * (x / width)) * (1 + grain * (random() - 0.5));
        const lamp = (c === 2 ? 8 : 30) * Math.exp(-(((y / height - 0.5) * 4) ** 2)) * (1 + grain * (random() - 0.5));
        for (const half of [0, 3]) data[i * 16 + half + c] = (sky + lamp) * 2;
        data[pixels * 16 + i * 6 + c] = sky * 4;
        data[pixels * 16 + i * 6 + 3 + c] = lamp * 4;
      }
    }
    await film.write(tile.index, data, { samples: 4, done: true, squaredGrain: 0 });
  }
  return { film, layers, width, height, white: WHITE };
}

describe('dimmers', () => {
  const off = { ...asRendered, lamps: [{ group: 'shelf lamp', on: false, dim_ev: 0, warmth_mired: 0 }] };
  it('take a lamp’s layer away, add to it, and colour it, exactly', async () => {
    const view = await filmOf(70, 40, 0);
    const read = async (finish: Finish) =>
      (await new FinishedLight(view.film, view.layers, finish).read(tilesOf(70, 40)[0]!))!;
    const plain = await read(asRendered);
    const dark = await read(off);
    const warm = await read({ ...asRendered, lamps: [{ group: 'Shelf lamp', on: true, dim_ev: 1, warmth_mired: 60 }] });
    const gain = warmthGain(60);
    for (let i = 0; i < 60; i++)
      for (let c = 0; c < 3; c++) {
        const lamp = plain[i * 7 + c]! - dark[i * 7 + c]!;
        expect(dark[i * 7 + c]!).toBeLessThan(plain[i * 7 + c]!);
        expect(warm[i * 7 + c]!).toBeCloseTo(dark[i * 7 + c]! + 2 * gain[c]! * lamp, 3);
      }
  });
  it('keep the denoised total where nothing is dimmed, and share it among the layers where something is', async () => {
    const view = await filmOf(70, 40, 1);
    const tile = tilesOf(70, 40)[0]!;
    const clean = await filmOf(70, 40, 0);
    const means = (data: Float32Array) => {
      const light = lightOfTile(data, tile.width * tile.height, 4);
      return Float32Array.from(
        { length: tile.width * tile.height * 3 },
        (_, i) => light[Math.floor(i / 3) * 7 + (i % 3)]!
      );
    };
    const picture = { read: async () => means(await clean.film.read(tile.index)) };
    const finish = { ...asRendered, denoise: 1 };
    const read = async (of: Finish) =>
      (await new FinishedLight(view.film, view.layers, of, { picture, layers: null }).read(tile))!;
    const plain = await read(finish);
    const neutral = await read({ ...finish, lamps: [{ group: 'Shelf lamp', on: true, dim_ev: 0, warmth_mired: 0 }] });
    expect(neutral).toEqual(plain);
    const dark = await read({ ...finish, lamps: off.lamps });
    const lit = await read({ ...finish, lamps: [{ group: 'surroundings', on: false, dim_ev: 0, warmth_mired: 0 }] });
    for (let i = 0; i < tile.width * tile.height; i++) expect(dark[i * 7]! + lit[i * 7]!).toBeCloseTo(plain[i * 7]!, 2);
  });
});

describe('the stage', () => {
  const finish: Finish = {
    ...asRendered,
    exposure_ev: 0.4,
    white: { kelvin: 5200, tint: 0.5 },
    lamps: [{ group: 'Shelf lamp', on: true, dim_ev: -1, warmth_mired: 30 }],
    tone: { ...asRendered.tone, contrast: 0.2, shadows: 0.3, highlights: -0.4, black: 3 },
    color: { ...asRendered.color, saturation: 0.2, vibrance: 0.2 },
    lens: { ...asRendered.lens, glow: 0.08, vignette_ev: 0.7 },
    surface: { ...asRendered.surface, sharpen: 0.8, texture: 'paper' }
  };
  it('shows what an export has, to one code of 255, in shares of rows or whole', async () => {
    const view = await filmOf(200, 150, 0.3);
    const stage = openStageFilm(packStageFilm(await takeStageFilm(view, 0)).slice().buffer);
    const whole = new StageDeveloper(stage).develop(finish);
    const halves = [0, 1, 2].map((index) => new StageDeveloper(stage, { index, of: 3 }).develop(finish));
    expect(halves.flatMap(({ pixels }) => [...pixels])).toEqual([...whole.pixels]);
    // as it is exported: whole floats, tile by tile
    const light = new FinishedLight(view.film, view.layers, finish);
    const copy = { data: new Float32Array(200 * 150 * 3), width: 200, height: 150 };
    const tiles = tilesOf(200, 150);
    for (const tile of tiles) {
      const of = (await light.read(tile))!;
      for (let i = 0; i < tile.width * tile.height; i++)
        for (let c = 0; c < 3; c++)
          copy.data[((tile.y + Math.floor(i / tile.width)) * 200 + tile.x + (i % tile.width)) * 3 + c] = of[i * 7 + c]!;
    }
    const around = new AroundMaps(copy, WHITE).of(finish);
    const develop = createDeveloper({ width: 200, height: 150, white: WHITE, finish, around });
    let linear = new Float32Array(200 * 150 * 4);
    for (const tile of tiles) develop({ ...tile, light: (await light.read(tile))! }, linear);
    for (const { apply } of surfaceAdjustments(finish, 150, 1)) {
      const out = new Float32Array(linear.length);
      apply(linear, out, { width: 200, first: 0, count: 150, y: 0 });
      linear = out;
    }
    const exported = new Uint8Array(linear.length);
    encodeSrgb8(linear, 200, 0, exported);
    expect(Math.max(...exported.map((v, i) => Math.abs(v - whole.pixels[i]!)))).toBeLessThanOrEqual(1);
  });
  it('counts lightness and what is cut off', async () => {
    const view = await filmOf(90, 60, 0);
    const { counts, white, black } = new StageDeveloper(await takeStageFilm(view, 0)).develop({
      ...asRendered,
      exposure_ev: 10
    });
    const all = counts.reduce((a, b) => a + b, 0);
    expect(all).toBe(90 * 20);
    expect(white).toBeGreaterThan(0.98 * all);
    expect(white).toBeLessThanOrEqual(all);
    expect(black).toBe(0);
  });
});
