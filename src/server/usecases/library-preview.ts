/** The picture of one of the library's surroundings; null when there is none of that name. */
import { SURROUNDINGS_LIBRARY } from '../../core/brief/surroundings-library';
import { config } from '../config';

export const libraryPreview = (key: string): string | null =>
  SURROUNDINGS_LIBRARY.some((entry) => entry.key === key) ? config.libraryPreview(key) : null;
