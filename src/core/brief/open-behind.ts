import type { Brief } from './brief';
import { STUDIO_SETS } from '../lights/studio/sets';

/** Whether something can be clear behind the model: paper all round it covers every pixel. */
export const isOpenBehind = ({ surroundings, ground }: Pick<Brief, 'surroundings' | 'ground'>): boolean =>
  surroundings.kind !== 'studio' ||
  ground.kind === 'shadow' ||
  (surroundings.backdrop ?? STUDIO_SETS[surroundings.set].backdrop) === 'none';
