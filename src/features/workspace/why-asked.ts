/** Whether a render is asked about before it begins, and in which words. */
import { about } from '../../core/brief/sentence';
import type { Ahead } from '../../core/forecast/ahead';
import type { Forecast } from '../../core/forecast/forecast';
import { bytes } from '../shared/send';
import { when } from '../shared/when';
import { BRIEF_LINE_COPY } from './copy';

const LONG_SECONDS = 8 * 3600;

/** Null: it takes no night, and no half of what is free on the disk. */
export function whyAsked(
  forecast: Pick<Forecast, 'seconds' | 'diskBytes'>,
  { ahead, free_bytes }: { ahead: Ahead; free_bytes: number },
  now = Date.now()
): string | null {
  if (forecast.diskBytes > free_bytes / 2) return BRIEF_LINE_COPY.large(bytes(forecast.diskBytes), bytes(free_bytes));
  if (forecast.seconds <= LONG_SECONDS) return null;
  return BRIEF_LINE_COPY.long(about(forecast.seconds), when(now + (ahead.seconds + forecast.seconds) * 1000, now));
}
