/**
 * A meter for the finish: proposes exposure, white balance and tones from the film, as a photographer would begin. What it
 * aims at is common practice of printing (no source): a mid tone near L* 50 for what is neither light nor dark by itself,
 * detail in all but a hundredth of the lights, no more than a twentieth of the picture nearly black.
 */
import type { Finish } from '../brief/brief';
import { lightness } from '../color/lightness';
import { luminanceAt } from '../color/spaces';
import { toneOf } from '../color/tone';
import { balanceFor, type WhiteBalance } from '../color/white-balance';
import { BEHIND, BEHIND_SHARE, LIGHT } from '../film/light';

export interface Proposal {
  changes: Pick<Finish, 'exposure_ev' | 'white' | 'tone'>;
  /** Of the light that looks nearly white in the picture; null where it is white already or cannot be told. */
  light: WhiteBalance | null;
  rangeStops: number;
}

// Percentiles of luminance, and where they are to be shown, L*.
const MID_SHOWN = 50;
const MID_PART = 0.6;
const PAPER_SHOWN = 88;
const LIGHT_SHARE = 0.97;
const LIGHT_SHOWN = 93;
const DARK_SHARE = 0.05;
const DARK_SHOWN = 4;
const MOST_EV = 3;
// Exposure goes this much of the way: a night stays darker than noon.
const EXPOSURE_PART = 0.6;
// A white balance too: evening light stays warm.
const WHITE_PART = 0.5;
const LEAST_MIRED = 12;
// Of the mean of each channel by this power (Finlayson and Trezzi 2004, shades of grey): bright places count for more.
const POWER = 6;
const D65_MIRED = 1e6 / 6504;

/** `light`: of the whole picture, LIGHT floats a pixel, in units of displayed white. */
export function proposeFinish(light: Float32Array, finish: Finish): Proposal | null {
  // what stands in for the surroundings is not the film's
  const covered = finish.background.kind !== 'own';
  const luminances: number[] = [];
  const sums = [0, 0, 0];
  for (let p = 0; p < light.length; p += LIGHT) {
    const share = covered ? 1 - light[p + BEHIND_SHARE]! : 1;
    if (share < 0.5) continue;
    const rgb = [0, 1, 2].map((c) => Math.max(0, light[p + c]! - (covered ? light[p + BEHIND + c]! : 0)) / share);
    const y = luminanceAt(rgb, 0);
    luminances.push(y);
    // what is brighter than white says nothing of colour as it is shown
    if (y < 1) for (let c = 0; c < 3; c++) sums[c] = sums[c]! + rgb[c]! ** POWER;
  }
  if (luminances.length === 0) return null;
  luminances.sort((a, b) => a - b);
  const at = (share: number) => Math.max(1e-6, luminances[Math.floor(share * (luminances.length - 1))]!);
  if (at(0.99) <= 1e-6) return null;
  const rangeStops = Math.log2(at(0.99) / at(0.02));
  const character = rangeStops > 11 ? 'gentle' : rangeStops < 4.5 ? 'crisp' : 'photographic';
  const { curve } = toneOf(character);
  const shown = (y: number, ev: number) => lightness(curve(y * 2 ** ev));
  const byMid = levelFor((ev) => shown(at(0.5), ev), MID_SHOWN);
  const byLight = levelFor((ev) => shown(at(LIGHT_SHARE), ev), LIGHT_SHOWN);
  // of a bright thing on white or a dark one on black the middle is no mid grey, and the lights decide alone
  const stops = Math.log2(at(LIGHT_SHARE) / at(0.5));
  const midSays = MID_PART * ramp(stops, 0.8, 2.5) * (1 - ramp(stops, 5, 8));
  const both = byLight + midSays * (byMid - byLight);
  // most of the picture is one thing, which is paper behind a product: shown as paper
  const even = 1 - ramp(Math.log2(at(0.85) / at(0.15)), 0.8, 2);
  const aim = both + even * (levelFor((ev) => shown(at(0.5), ev), PAPER_SHOWN) - both);
  const part = EXPOSURE_PART + even * (1 - EXPOSURE_PART);
  const exposure_ev = rounded(clamp(aim * part, -MOST_EV, MOST_EV), 0.1);
  const brightest = shown(at(0.995), exposure_ev);
  const dark = shown(at(DARK_SHARE), exposure_ev);
  // a lamp before paper is white, and the paper is not to be grey for it
  const highlights = brightest > 97 && even < 0.5 ? rounded(-clamp((brightest - 97) / 6, 0.1, 0.5), 0.05) : 0;
  const shadows = dark < DARK_SHOWN ? rounded(clamp((DARK_SHOWN - dark) / 8, 0.1, 0.4), 0.05) : 0;
  const white = whiteFor(sums);
  return {
    changes: {
      exposure_ev,
      white: white?.proposed ?? null,
      tone: { ...finish.tone, curve: character, highlights, shadows }
    },
    light: white?.seen ?? null,
    rangeStops
  };
}

function whiteFor(sums: readonly number[]): { seen: WhiteBalance; proposed: WhiteBalance } | null {
  const seen = balanceFor([sums[0]! ** (1 / POWER), sums[1]! ** (1 / POWER), sums[2]! ** (1 / POWER)]);
  if (!seen) return null;
  const away = (1e6 / seen.kelvin - D65_MIRED) * WHITE_PART;
  if (Math.abs(away) < LEAST_MIRED) return null;
  return {
    seen,
    proposed: { kelvin: Math.round(1e6 / (D65_MIRED + away) / 50) * 50, tint: rounded(seen.tint * WHITE_PART, 0.1) }
  };
}

const ramp = (x: number, from: number, to: number) => clamp((x - from) / (to - from), 0, 1);
const clamp = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v));
const rounded = (v: number, step: number) => Math.round(Math.round(v / step) * step * 1000) / 1000;

/** The EV at which a lightness that grows with it is the wished one, by halving. */
function levelFor(shown: (ev: number) => number, wished: number): number {
  let [low, high] = [-12, 12];
  for (let i = 0; i < 40; i++) {
    const middle = (low + high) / 2;
    if (shown(middle) < wished) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
