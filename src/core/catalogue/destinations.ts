/**
 * Where a picture will be seen, and the size that place asks for. Sheets get 1.75 times the ppi the eye resolves at their distance
 * (people step closer), at least 72 and at most 300: common practice, no source.
 */
import type { SizeChoice } from './size-choice';

export interface Destination {
  key: string;
  name: string;
  /** As the sentence says it, after "on". */
  phrase: string;
  size: SizeChoice;
  /** Viewing distance in m, for sheets. */
  distance_m?: number;
}

export const DESTINATIONS: readonly Destination[] = [
  { key: 'phone', name: 'Phone message', phrase: 'a phone screen', size: { width_px: 1080, height_px: 1350 } },
  { key: 'slide', name: 'Slide 16:9', phrase: 'a 16:9 slide', size: { width_px: 1920, height_px: 1080 } },
  { key: 'uhd', name: '4K screen', phrase: 'a 4K screen', size: { width_px: 3840, height_px: 2160 } },
  { key: 'a3', name: 'A3 board at arm’s length', phrase: 'A3', size: { paper: 'A3', orientation: 'landscape', ppi: 200 }, distance_m: 0.6 },
  { key: 'a1', name: 'A1 panel at 1.5 m', phrase: 'A1', size: { paper: 'A1', orientation: 'landscape', ppi: 120 }, distance_m: 1.5 },
  { key: 'a0', name: 'A0 poster', phrase: 'A0', size: { paper: 'A0', orientation: 'landscape', ppi: 90 }, distance_m: 2 }
];
