/** Pictures of saved surroundings and strips of captured images: small, and made again when they are missing. */
import { join } from 'node:path';
import { config } from '../config';

/** What the names of small pictures of pictures begin with. */
export const THUMBNAIL = 'picture-';

export const previewPath = (name: string): string => join(config.dataDir, 'previews', `${name}.png`);

/** What the press of a profile makes of colours. */
export const pressPath = (sha256: string): string => join(config.dataDir, 'previews', `press-${sha256}.bin`);
