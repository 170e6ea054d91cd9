/** Exposure. Source: ISO 12232: EV100 = log2(N^2/t x 100/S); a saturated pixel is Lmax = 1.2 x 2^EV100 cd/m2. */
import { STUDIO_SETS } from '../lights/studio/sets';
import type { Brief, Exposure, StudioSurroundings } from './brief';

export const whiteLuminance = (ev100: number): number => 1.2 * 2 ** ev100;

export const evOfCamera = (fNumber: number, shutterSeconds: number, iso: number): number =>
  Math.log2(((fNumber * fNumber) / shutterSeconds) * (100 / iso));

/** EV100 that a brief states; null when it has it metered. */
export function statedEv(exposure: Exposure): number | null {
  if ('metered' in exposure) return null;
  return 'ev100' in exposure ? exposure.ev100 : evOfCamera(exposure.f_number, exposure.shutter_s, exposure.iso);
}

/** EV100 that a reflected-light meter sets for a mean luminance in cd/m2. Source: ISO 2720, K = 12.5. */
export const evOfLuminance = (luminance: number): number => Math.log2((luminance * 100) / 12.5);

/** What a meter sees of a frame. */
export interface MeterReading {
  /** By the log mean of its luminances: what makes a middle grey of it. */
  ev100: number;
  /** Luminance that three quarters of the frame stay below, cd/m2: the paper of a studio. */
  threeQuarters: number;
  /** And nine tenths: what is bright without being a lamp or a glint. */
  bright: number;
}

/** Reads a frame of luminances, cd/m2. */
export function readMeter(luminances: ArrayLike<number>): MeterReading {
  const sorted = Float64Array.from(luminances).sort();
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0;
  return { ev100: meter(sorted), threeQuarters: at(0.75), bright: at(0.9) };
}

/** EV100 of the log mean without its extremes, cd/m2. */
export function meter(luminances: ArrayLike<number>): number {
  const logs = Array.from(luminances, (l) => Math.log2(Math.max(l, 1e-6))).sort((a, b) => a - b);
  if (logs.length === 0 || logs[logs.length - 1]! < -15) return 0;
  // the darkest tenth and the brightest twentieth say nothing about the subject
  const from = Math.floor(logs.length * 0.1);
  const to = Math.max(from + 1, Math.ceil(logs.length * 0.95));
  let sum = 0;
  for (let i = from; i < to; i++) sum += logs[i]!;
  return Math.round(evOfLuminance(2 ** (sum / (to - from))) * 100) / 100;
}

// How a photographer opens what a meter reads (common practice, no source; the values by eye on the demo pictures). Shares
// of white; what the tone curve makes of them is said as L*.
/** What the log mean of a scene becomes at most, L* 62; the meter alone makes it 0.104, L* 50. */
const MEAN_SHARE = 0.17;
/** What nine tenths of a scene stay below, L* 87. */
const BRIGHT_SHARE = 0.6;
/** What paper that reflects everything becomes, L* 87; less shows by the root of what it reflects. */
const PAPER_SHARE = 0.6;
/** Paper that reflects less is a dark ground, and no measure of the light. */
const LIGHT_PAPER = 0.3;
const MOST_OPENED_EV = 3;

const paperOf = ({ set, paper, backdrop }: StudioSurroundings): number | null =>
  (backdrop ?? STUDIO_SETS[set].backdrop) === 'none' ? null : (paper ?? STUDIO_SETS[set].paper);

/** How a brief's exposure is found: stated, or by a meter. */
export interface ExposureRule {
  /** Null: by the meter. */
  ev100: number | null;
  /** Share of light that a studio's paper reflects; null where there is none. */
  paper: number | null;
  /** Most that one indirect contribution may weigh, in multiples of white; null for no limit. */
  firefly: number | null;
}

export const exposureRule = ({ exposure, surroundings, ground, quality }: Brief): ExposureRule => ({
  ev100: statedEv(exposure),
  paper: surroundings.kind === 'studio' && ground.kind === 'none' ? paperOf(surroundings) : null,
  firefly: quality.firefly
});

/**
 * EV100 of a reading. Light paper is to look like paper, as a photographer sets by an incident meter. Every other scene
 * is opened until its mean or its bright parts are where a picture has them, and never closed.
 */
export function openedEv(
  { paper }: Pick<ExposureRule, 'paper'>,
  { ev100, threeQuarters, bright }: MeterReading
): number {
  const white = whiteLuminance(ev100);
  const grey = 2 ** ev100 * 0.125;
  const stops =
    paper !== null && paper >= LIGHT_PAPER
      ? Math.log2((PAPER_SHARE * Math.sqrt(paper) * white) / Math.max(threeQuarters, 1e-9))
      : Math.min(Math.log2((MEAN_SHARE * white) / grey), Math.log2((BRIGHT_SHARE * white) / Math.max(bright, 1e-9)));
  return Math.round((ev100 - Math.min(MOST_OPENED_EV, Math.max(0, stops))) * 100) / 100;
}

/** EV100 by a rule; `reading` is asked only when the rule has it metered. */
export const exposureBy = async (rule: ExposureRule, reading: () => Promise<MeterReading>): Promise<number> =>
  rule.ev100 ?? openedEv(rule, await reading());

/** What an exposure means for a render: luminance of displayed white, and of the firefly limit, cd/m2; 0 for no limit. */
export function exposed({ firefly }: ExposureRule, ev100: number): { white: number; firefly: number } {
  const white = whiteLuminance(ev100);
  return { white, firefly: firefly === null ? 0 : firefly * white };
}
