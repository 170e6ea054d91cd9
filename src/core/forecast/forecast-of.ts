/** What of a brief a forecast asks for: its pixels, with bleed or of its patch alone, and when it stops. */
import type { Brief } from '../brief/brief';
import { proofPixels } from '../output/size';
import type { ForecastOf } from './forecast';

export function forecastOf(brief: Brief): ForecastOf {
  const { width, height } = proofPixels(brief);
  const { samples, grain, min_samples, minutes } = brief.quality;
  return {
    width_px: width,
    height_px: height,
    samples,
    grain,
    min_samples,
    minutes,
    denoised: brief.finish.denoise > 0
  };
}
