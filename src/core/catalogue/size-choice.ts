import type { Orientation, Paper } from './papers';

/** How a picture's size may be stated: pixels; a paper and its density; or a free sheet and its density. */
export type SizeChoice =
  | { width_px: number; height_px: number }
  | { paper: Paper; orientation: Orientation; ppi: number }
  | { width_mm: number; height_mm: number; ppi: number };
