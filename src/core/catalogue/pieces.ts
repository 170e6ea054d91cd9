/** The pieces that can be placed beside a model; drawing/pieces draws them. Metres are of the piece as it is drawn. */
export interface PieceEntry {
  key: string;
  name: string;
  kind: PieceKind;
  height_m: number;
}

export const PIECE_KINDS = { indoors: 'Furniture and things', plants: 'Plants', people: 'People' } as const;
export type PieceKind = keyof typeof PIECE_KINDS;

export const PIECES = [
  { key: 'chair', name: 'Chair', kind: 'indoors', height_m: 0.8 },
  { key: 'stool', name: 'Stool', kind: 'indoors', height_m: 0.46 },
  { key: 'books', name: 'Stack of books', kind: 'indoors', height_m: 0.11 },
  { key: 'row-of-books', name: 'Row of books', kind: 'indoors', height_m: 0.27 },
  { key: 'cup', name: 'Cup', kind: 'indoors', height_m: 0.08 },
  { key: 'bowl', name: 'Bowl', kind: 'indoors', height_m: 0.09 },
  { key: 'potted-plant', name: 'Potted plant', kind: 'plants', height_m: 0.55 },
  { key: 'tall-plant', name: 'Tall potted plant', kind: 'plants', height_m: 1.3 },
  { key: 'broadleaf-tree', name: 'Broadleaf tree', kind: 'plants', height_m: 8 },
  { key: 'young-tree', name: 'Young tree', kind: 'plants', height_m: 4 },
  { key: 'hedge', name: 'Hedge', kind: 'plants', height_m: 1.2 },
  { key: 'grass-patch', name: 'Grass patch', kind: 'plants', height_m: 0.3 },
  { key: 'figure-standing', name: 'Figure, standing', kind: 'people', height_m: 1.72 },
  { key: 'figure-walking', name: 'Figure, walking', kind: 'people', height_m: 1.78 }
] as const satisfies readonly PieceEntry[];

export type PieceKey = (typeof PIECES)[number]['key'];

export const isPieceKey = (key: string): key is PieceKey => PIECES.some((piece) => piece.key === key);
