/** What a model is read as, and what makes metres with Y up of it. */
import type { Rescaling } from '../../core/brief/rescale';
import type { Repair } from '../../core/scene/health';
import type { ReadAs } from '../../core/units/read-as';
import { METRES_PER_UNIT } from '../../core/units/units';

export interface NormaliseOptions extends ReadAs {
  /** What the document was read as before, when it comes from a model that was normalised; null for a file. */
  from?: ReadAs | null;
  /** What is put right; where nothing is said, what nobody wants as it is. */
  repairs?: readonly Repair[];
}

/** What makes metres with Y up of a model that was read as another. */
export function rescalingOf({ unit, up, from = null }: NormaliseOptions): Rescaling {
  const turn = (axis: 'y' | 'z') => (axis === 'z' ? -90 : 0);
  return {
    factor: METRES_PER_UNIT[unit] / (from ? METRES_PER_UNIT[from.unit] : 1),
    turn_deg: (turn(up) - (from ? turn(from.up) : 0)) as Rescaling['turn_deg']
  };
}
