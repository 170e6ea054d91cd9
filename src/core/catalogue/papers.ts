/** Paper formats in mm, portrait. Sources: ISO 216 (A); ANSI/ASME Y14.1 and trade (Letter, Legal, Tabloid: whole inches). */
export const PAPERS = {
  A0: [841, 1189],
  A1: [594, 841],
  A2: [420, 594],
  A3: [297, 420],
  A4: [210, 297],
  A5: [148, 210],
  A6: [105, 148],
  Letter: [215.9, 279.4],
  Legal: [215.9, 355.6],
  Tabloid: [279.4, 431.8]
} as const satisfies Record<string, readonly [number, number]>;

export type Paper = keyof typeof PAPERS;
export const PAPER_NAMES = Object.keys(PAPERS) as Paper[];
export const ORIENTATIONS = ['landscape', 'portrait'] as const;
export type Orientation = (typeof ORIENTATIONS)[number];
