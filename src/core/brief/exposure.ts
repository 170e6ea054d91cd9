/** Exposure. Source: ISO 12232: EV100 = log2(N^2/t x 100/S); a saturated pixel is Lmax = 1.2 x 2^EV100 cd/m2. */
import type { Brief, Exposure } from './brief';

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

/** The log mean without its extremes: what a meter makes of a frame of luminances (cd/m2). */
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

// A meter makes grey of a studio's paper; opened by this it looks like paper (common practice, no source).
const PAPER_EV = 0.9;

/** How a brief's exposure is found: stated, or by a meter whose reading is shifted. */
export interface ExposureRule {
  /** Null: what the meter reads, and `meterShift_ev`. */
  ev100: number | null;
  meterShift_ev: number;
  /** Most that one indirect contribution may weigh, in multiples of white; null for no limit. */
  firefly: number | null;
}

export const exposureRule = ({ exposure, surroundings, quality }: Brief): ExposureRule => ({
  ev100: statedEv(exposure),
  meterShift_ev: surroundings.kind === 'studio' ? -PAPER_EV : 0,
  firefly: quality.firefly
});

/** EV100 by a rule; `reading` is asked only when the rule has it metered. */
export const exposureBy = async (
  { ev100, meterShift_ev }: ExposureRule,
  reading: () => Promise<number>
): Promise<number> => ev100 ?? (await reading()) + meterShift_ev;

/** What an exposure means for a render: luminance of displayed white, and of the firefly limit, cd/m2; 0 for no limit. */
export function exposed({ firefly }: ExposureRule, ev100: number): { white: number; firefly: number } {
  const white = whiteLuminance(ev100);
  return { white, firefly: firefly === null ? 0 : firefly * white };
}
