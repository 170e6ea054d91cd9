/** Which unit and which upright axis a file is read as. */
import type { LengthUnit } from './units';

export interface ReadAs {
  unit: LengthUnit;
  up: 'y' | 'z';
}

/** What a model is in once it is normalised, and what models brought in earlier were read as. */
export const METRES_Y_UP: ReadAs = { unit: 'm', up: 'y' };

/** How finely solids are meshed on the way in. */
export const FINENESSES = ['coarse', 'medium', 'fine'] as const;
export type Fineness = (typeof FINENESSES)[number];
