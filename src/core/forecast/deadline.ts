/**
 * The question turned round: what can be had by a time. Steps of quality at shares of the size are forecast, those that
 * will be ready even if the forecast is low stay, the best first. Which is better is a rule of ours: halving both sides
 * gives up as much as two steps of quality.
 */
import { NBSP } from '../brief/amounts';
import { QUALITY_KEYS, type QualityKey, stepSettings } from '../catalogue/quality';
import type { Brief } from '../brief/brief';
import { resolveSize, scaleSize } from '../output/size';
import type { Forecast, ForecastOf } from './forecast';
import { forecastOf } from './forecast-of';

export interface Offer {
  step: QualityKey;
  /** Of the full size. */
  scale: number;
  /** Of the trimmed sheet. */
  width_px: number;
  height_px: number;
  forecast: Forecast;
}

const SCALES = [1, 0.75, 0.5, 0.35, 0.25];
const STEPS_A_HALVING = 2;
const MAX_OFFERS = 4;

/** The brief with what an offer changes of it. */
export function takeOffer(brief: Brief, { step, scale }: Pick<Offer, 'step' | 'scale'>): Brief {
  return { ...brief, quality: { ...brief.quality, step, ...stepSettings(step), scale, minutes: null } };
}

/** `of`: the forecast of a variation. Empty when nothing fits. */
export function offersWithin(seconds: number, brief: Brief, of: (what: ForecastOf) => Forecast | null): Offer[] {
  const found: Offer[] = [];
  for (const scale of SCALES) {
    // of one size the best that fits
    for (const step of [...QUALITY_KEYS].reverse()) {
      const forecast = of(forecastOf(takeOffer(brief, { step, scale })));
      if (!forecast || forecast.high > seconds) continue;
      found.push({ step, scale, ...scaleSize(resolveSize(brief.size), scale), forecast });
      break;
    }
  }
  const worth = (o: Offer) => QUALITY_KEYS.indexOf(o.step) + STEPS_A_HALVING * Math.log2(o.scale);
  const beaten = (o: Offer) =>
    found.some(
      (p) =>
        p !== o &&
        p.scale >= o.scale &&
        QUALITY_KEYS.indexOf(p.step) >= QUALITY_KEYS.indexOf(o.step) &&
        (p.scale > o.scale || QUALITY_KEYS.indexOf(p.step) > QUALITY_KEYS.indexOf(o.step))
    );
  return found
    .filter((o) => !beaten(o))
    .sort((a, b) => worth(b) - worth(a))
    .slice(0, MAX_OFFERS);
}

/** What an offer gives up against the best there is, in words. */
export function givesUp({ scale, step, forecast }: Offer, ppi: number | null): string {
  const size =
    scale === 1
      ? null
      : ppi === null
        ? `${Math.round(scale * 100)}${NBSP}% of each side`
        : `${Math.round(ppi * scale)} instead of ${Math.round(ppi)}${NBSP}ppi`;
  const grain = step === 'exhibit' ? null : `grain before denoising ${forecast.grain.toFixed(1)}`;
  return [size, grain].filter((v) => v !== null).join(', ') || 'gives up nothing';
}

/**
 * Seconds from now that are meant by "17:00", "10 min", "2 h" or "1:30 h"; an hour that has passed is tomorrow's. Null
 * when it is none of them.
 */
export function secondsUntil(text: string, now: Date): number | null {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/^(in|by|at)\s+/, '');
  const clock = /^(\d{1,2})[:.](\d{2})$/.exec(plain);
  if (clock) {
    const [hour, minute] = [Number(clock[1]), Number(clock[2])];
    if (hour > 23 || minute > 59) return null;
    const then = new Date(now);
    then.setHours(hour, minute, 0, 0);
    if (then <= now) then.setDate(then.getDate() + 1);
    return (then.getTime() - now.getTime()) / 1000;
  }
  const span = /^(?:(\d+)[:.](\d{2})|(\d+(?:\.\d+)?))\s*(s|sec|seconds?|m|min|minutes?|h|hours?)$/.exec(plain);
  if (!span) return null;
  const unit = span[4]!.startsWith('h') ? 3600 : span[4]!.startsWith('m') ? 60 : 1;
  // 1:30 h is an hour and a half
  const value = span[3] === undefined ? Number(span[1]) + Number(span[2]) / 60 : Number(span[3]);
  return value > 0 ? value * unit : null;
}
