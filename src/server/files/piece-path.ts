/** Where a piece of the library lies once it is drawn; another code draws it anew. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { PieceKey } from '../../core/catalogue/pieces';
import { config } from '../config';

let code: string | null = null;

export function piecePath(key: PieceKey): string {
  code ??= createHash('sha256')
    .update(readFileSync(config.built('bundles.stamp')))
    .digest('hex');
  return join(config.dataDir, 'pieces', code.slice(0, 16), `${key}.glb`);
}
