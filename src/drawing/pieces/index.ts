/** Draws the pieces of the library (core/catalogue/pieces.ts). */
import type { PieceKey } from '../../core/catalogue/pieces';
import { type DrawnModel, writeModel } from '../write-model';
import { walking, standing } from './figures';
import { chair, stool } from './furniture';
import { broadleafTree, grassPatch, hedge, pottedPlant, tallPlant, youngTree } from './plants';
import { books, bowl, cup, rowOfBooks } from './things';

const DRAWN: Record<PieceKey, () => Pick<DrawnModel, 'mesh' | 'materials'>> = {
  chair,
  stool,
  books,
  'row-of-books': rowOfBooks,
  cup,
  bowl,
  'potted-plant': pottedPlant,
  'tall-plant': tallPlant,
  'broadleaf-tree': broadleafTree,
  'young-tree': youngTree,
  hedge,
  'grass-patch': grassPatch,
  'figure-standing': standing,
  'figure-walking': walking
};

/** As a GLB in metres, Y up. The same bytes each time. */
export const drawPiece = (key: PieceKey): Promise<Uint8Array> =>
  writeModel({ name: key, cameras: [], lamps: [], ...DRAWN[key]() });
