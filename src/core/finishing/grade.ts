/**
 * What a finish does to the light of one place. In this order: the lens scatters and darkens (scene light), the colour
 * filter and the white balance (scene light), exposure, highlights and shadows by the neighbourhood, the tone curve with
 * contrast, black and white point, bleach bypass, saturation and vibrance (displayed light), a colour table last. Linear
 * throughout, but for the table.
 */
import type { Finish } from '../brief/brief';
import { luminanceOfLightness } from '../color/lightness';
import { luminance, toDisplayP3 } from '../color/spaces';
import { decodeSrgb, encodeSrgb, srgbOfHex } from '../color/srgb';
import { type ColourTable, lookUpColour } from '../color/table';
import { MID_GREY_OUT, toneOf } from '../color/tone';
import { type BalanceMatrix, balanceMatrix } from '../color/white-balance';
import { lookUp, quickLog2, tableOf } from '../math/curve-table';
import type { Vec3 } from '../math/vec3';
import { type Around, NOTHING_AROUND } from './around';

/**
 * Radiance, cd/m2, to displayed light, 0 to 1, in place; `u` and `v` are shares of the picture, `x` and `y` of its sheet,
 * from the upper left corner.
 */
export type Grade = (rgb: Float64Array, u: number, v: number, x: number, y: number) => void;

/**
 * How far colours may go: within those of sRGB, or within Display P3, whose colours beyond sRGB have numbers below 0 or
 * above 1 here. A colour that is not made more saturated is the same in both.
 */
export type Gamut = 'srgb' | 'p3';

/** `white`: luminance of displayed white, cd/m2. `aspect`: width over height of the sheet. */
export function createGrade(
  finish: Finish,
  white: number,
  aspect: number,
  around: Around = NOTHING_AROUND,
  colourTable: ColourTable | null = null,
  gamut: Gamut = 'srgb'
): Grade {
  const { scatter, surround } = around;
  const gain = 2 ** finish.exposure_ev / white;
  const light = lightMatrix(finish);
  const m = light && Float64Array.from(light.flat());
  const darken = vignette(finish.lens.vignette_ev, aspect);
  const zones = surround && zoneGains(finish.tone.highlights, finish.tone.shadows);
  const { table, crosstalk } = toneTable(finish);
  const own = 1 - crosstalk;
  // a colour table knows none beyond sRGB
  const colours = colourOf(finish, colourTable ? 'srgb' : gamut);
  const tabled = colourTable && finish.table ? tableGrade(colourTable, finish.table.amount) : null;
  // called for every pixel: plain numbers and tables, no arrays but the one that it is given
  return (rgb, u, v, x, y) => {
    if (scatter) scatter(u, v, rgb);
    let r = rgb[0]!;
    let g = rgb[1]!;
    let b = rgb[2]!;
    if (m) {
      const [r0, g0, b0] = [r, g, b];
      r = m[0]! * r0 + m[1]! * g0 + m[2]! * b0;
      g = m[3]! * r0 + m[4]! * g0 + m[5]! * b0;
      b = m[6]! * r0 + m[7]! * g0 + m[8]! * b0;
    }
    let k = darken ? gain * darken(x, y) : gain;
    const bright = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    if (zones) k *= zoneGain(zones, surround(u, v, quickLog2(bright)) + quickLog2(k));
    const shared = crosstalk * bright * k;
    const part = own * k;
    r = r * part + shared;
    g = g * part + shared;
    b = b * part + shared;
    // the curve for the most and the least; the channel between keeps its place between them
    const most = Math.max(r, g, b);
    const least = Math.min(r, g, b);
    const high = lookUp(table, Math.max(most, FLOOR));
    if (most - least <= most * 1e-9) rgb.fill(high);
    else {
      const low = lookUp(table, Math.max(least, FLOOR));
      const slope = (high - low) / (most - least);
      rgb[0] = low + (r - least) * slope;
      rgb[1] = low + (g - least) * slope;
      rgb[2] = low + (b - least) * slope;
    }
    if (colours) colours(rgb);
    if (tabled) tabled(rgb);
  };
}

const ENCODED = tableOf(encodeSrgb);
const DECODED = tableOf(decodeSrgb);

/** A colour table is of encoded colours. */
function tableGrade(table: ColourTable, amount: number): (rgb: Float64Array) => void {
  const own = new Float64Array(3);
  return (rgb) => {
    for (let c = 0; c < 3; c++) own[c] = lookUp(ENCODED, Math.min(1, rgb[c]!));
    lookUpColour(table, own);
    for (let c = 0; c < 3; c++) {
      const shown = lookUp(DECODED, Math.min(1, Math.max(0, own[c]!)));
      rgb[c] = rgb[c]! + (shown - rgb[c]!) * amount;
    }
  };
}

// The least that a curve's table knows; a lifted black is reached there.
const FLOOR = 2 ** -24;

/** What of a finish changes the colour of light in the scene; null when nothing does. */
function lightMatrix({ white, color }: Finish): BalanceMatrix | null {
  const balance = white && balanceMatrix(white);
  if (!color.filter || color.filter_strength === 0) return balance;
  const filter = filterGain(color.filter, color.filter_strength);
  const rows =
    balance ??
    ([
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1]
    ] as const);
  // the filter is before the lens: light meets it first
  return rows.map((row) => row.map((m, c) => m * filter[c]!)) as unknown as BalanceMatrix;
}

// Of a channel that a filter of full strength lets through, at least.
const DENSEST = 0.02;

/** Gain by channel of a filter of a colour in sRGB; the luminance of white stays. */
export function filterGain(hex: string, strength: number): Vec3 {
  const through = srgbOfHex(hex).map((c) => Math.max(DENSEST, decodeSrgb(c)) ** strength);
  const k = 1 / luminance(through);
  return [through[0]! * k, through[1]! * k, through[2]! * k];
}

/**
 * How much darker a place of the sheet is, by the cosine's fourth power of the angle at which light meets the film (the
 * law of natural vignetting, common knowledge of optics); `ev` in the corners, negative lighter. Null for none.
 */
function vignette(ev: number, aspect: number): ((x: number, y: number) => number) | null {
  if (ev === 0) return null;
  // (1 + t2)^2 is 2^ev in the corner
  const t2 = 2 ** (Math.abs(ev) / 2) - 1;
  const corner = aspect * aspect + 1;
  return (x, y) => {
    const r2 = ((2 * x - 1) ** 2 * aspect * aspect + (2 * y - 1) ** 2) / corner;
    const fall = (1 + t2 * r2) ** 2;
    return ev > 0 ? 1 / fall : fall;
  };
}

// Of zones, in stops against displayed white: shadows end and highlights begin about mid grey, three and a quarter below.
const SHADOWS = { whole: -7, none: -2.5 };
const HIGHLIGHTS = { none: -3.8, whole: 0.5 };
const ZONE_EV = 2;

const ramp = (x: number, from: number, to: number) => {
  const t = Math.min(1, Math.max(0, (x - from) / (to - from)));
  return t * t * (3 - 2 * t);
};

// Gains by stops, from this many below white, so many steps a stop.
const ZONE_FROM = -24;
const ZONE_STEPS = 16;

/** What a place is lifted by, whose neighbourhood lies so many stops against displayed white, by steps of stops. */
const zoneGains = (highlights: number, shadows: number): Float64Array =>
  Float64Array.from({ length: 40 * ZONE_STEPS }, (_, i) => {
    const stops = ZONE_FROM + i / ZONE_STEPS;
    const dark = ramp(-stops, -SHADOWS.none, -SHADOWS.whole);
    return 2 ** (ZONE_EV * (shadows * dark + highlights * ramp(stops, HIGHLIGHTS.none, HIGHLIGHTS.whole)));
  });

function zoneGain(gains: Float64Array, stops: number): number {
  const at = Math.min(gains.length - 1.001, Math.max(0, (stops - ZONE_FROM) * ZONE_STEPS));
  const i = Math.floor(at);
  return gains[i]! + (gains[i + 1]! - gains[i]!) * (at - i);
}

/** The last table, which most pictures share. */
let last: { key: string; table: Float64Array; crosstalk: number } | null = null;

function toneTable({ tone }: Finish): { table: Float64Array; crosstalk: number } {
  const { curve: character, contrast, black, white } = tone;
  const key = `${character} ${contrast} ${black} ${white}`;
  if (last?.key === key) return last;
  const { curve, crosstalk } = toneOf(character, 2 ** contrast);
  const low = black < 0 ? -luminanceOfLightness(-black) : luminanceOfLightness(black);
  const high = luminanceOfLightness(white);
  const k = 1 / (high - low);
  const ends = low === 0 && white === 100 ? curve : (x: number) => Math.min(1, Math.max(0, (curve(x) - low) * k));
  last = { key, table: tableOf(ends), crosstalk };
  return last;
}

/** What a finish does to displayed colours; null when nothing. */
function colourOf(
  { color: { saturation, vibrance, bleach } }: Finish,
  gamut: Gamut
): ((rgb: Float64Array) => void) | null {
  if (saturation === 0 && vibrance === 0 && bleach === 0) return null;
  const even = 1 + saturation;
  const wide = new Float64Array(3);
  return (rgb) => {
    if (bleach > 0) keepSilver(rgb, bleach);
    const r = rgb[0]!;
    const g = rgb[1]!;
    const b = rgb[2]!;
    const y = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    const most = Math.max(r, g, b);
    const least = Math.min(r, g, b);
    if (most <= least) return;
    let s = even * (1 + (vibrance * least) / most);
    // no further than the gamut goes, so that neither hue nor luminance is lost
    if (s > 1 && gamut === 'srgb') s = Math.min(s, roomFor(y, most, least));
    else if (s > 1) {
      wide.set(rgb);
      toDisplayP3(wide);
      s = Math.min(s, roomFor(y, Math.max(wide[0]!, wide[1]!, wide[2]!), Math.min(wide[0]!, wide[1]!, wide[2]!)));
    }
    rgb[0] = y + (r - y) * s;
    rgb[1] = y + (g - y) * s;
    rgb[2] = y + (b - y) * s;
  };
}

/** By how much a colour can part from the grey of its luminance `y` until a channel is at an end. */
const roomFor = (y: number, most: number, least: number): number =>
  Math.max(1, Math.min((1 - y) / (most - y), y / (y - least)));

// Contrast of the silver image, as a power of the odds of light, so that black, mid grey and white stay.
const SILVER_SLOPE = 1.6;
const MID_ODDS = MID_GREY_OUT / (1 - MID_GREY_OUT);

/** The silver of the negative stays in the print: its image, grey and steep, lies over the dyes. */
function keepSilver(rgb: Float64Array, amount: number): void {
  const y = Math.min(1 - 1e-6, luminance(rgb));
  if (y <= 0) return;
  const odds = MID_ODDS * (y / (1 - y) / MID_ODDS) ** SILVER_SLOPE;
  const silver = odds / (1 + odds);
  for (let c = 0; c < 3; c++) {
    const both = 0.5 * ((rgb[c]! * silver) / y) + 0.5 * silver;
    rgb[c] = Math.min(1, rgb[c]! + (both - rgb[c]!) * amount);
  }
}
