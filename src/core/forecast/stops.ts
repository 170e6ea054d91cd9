/**
 * What ends a render, as the words of one sentence: its grain, its samples, its time; and what more time would have
 * given.
 */
import { NBSP } from '../brief/amounts';
import type { BriefQuality } from '../brief/brief';
import { FIRST_DECISION } from '../film/film';
import type { Forecast } from './forecast';

export interface StopClause {
  by: Forecast['endsBy'];
  text: string;
}

/** In the order in which the sentence says them; samples always are one. */
export function stopClauses({
  grain,
  min_samples,
  samples,
  minutes
}: Pick<BriefQuality, 'grain' | 'min_samples' | 'samples' | 'minutes'>): StopClause[] {
  const out: StopClause[] = [];
  if (grain !== null)
    out.push({
      by: 'grain',
      text:
        `when grain before denoising is below ${grain}` +
        (min_samples > FIRST_DECISION ? ` after at least ${min_samples.toLocaleString('en')} samples` : '')
    });
  if (minutes !== null)
    out.push({
      by: 'time',
      text: `after ${minutes < 60 ? `${minutes}${NBSP}min` : `${Math.round(minutes / 6) / 10}${NBSP}h`}`
    });
  out.push({ by: 'samples', text: `at ${samples.toLocaleString('en')} samples per pixel` });
  return out;
}

/** Grain before denoising after `factor` times the samples: it falls with their root. */
export const grainAfter = (grain: number, factor: number): number => grain / Math.sqrt(factor);
