/**
 * Paper formats in mm, portrait. Sources: ISO 216 (A and B); ANSI/ASME Y14.1 (ANSI and ARCH) and trade (Letter, Legal,
 * Tabloid), whole inches; photographic papers are whole or half inches too (common practice, no source).
 */
const inches = (width: number, height: number): readonly [number, number] => [
  Math.round(width * 254) / 10,
  Math.round(height * 254) / 10
];

export const PAPERS = {
  A0: [841, 1189],
  A1: [594, 841],
  A2: [420, 594],
  A3: [297, 420],
  A4: [210, 297],
  A5: [148, 210],
  A6: [105, 148],
  B0: [1000, 1414],
  B1: [707, 1000],
  B2: [500, 707],
  B3: [353, 500],
  B4: [250, 353],
  B5: [176, 250],
  Letter: inches(8.5, 11),
  Legal: inches(8.5, 14),
  Tabloid: inches(11, 17),
  'ANSI C': inches(17, 22),
  'ANSI D': inches(22, 34),
  'ANSI E': inches(34, 44),
  'ARCH A': inches(9, 12),
  'ARCH B': inches(12, 18),
  'ARCH C': inches(18, 24),
  'ARCH D': inches(24, 36),
  'ARCH E': inches(36, 48),
  'Photo 10 × 15': inches(4, 6),
  'Photo 13 × 18': inches(5, 7),
  'Photo 20 × 25': inches(8, 10),
  'Photo 20 × 30': inches(8, 12),
  'Photo 30 × 40': inches(12, 16)
} as const satisfies Record<string, readonly [number, number]>;

export type Paper = keyof typeof PAPERS;
export const PAPER_NAMES = Object.keys(PAPERS) as Paper[];

/** For lists. */
export const PAPER_FAMILIES: readonly { name: string; papers: readonly Paper[] }[] = [
  { name: 'ISO A', papers: PAPER_NAMES.filter((p) => /^A\d/.test(p)) },
  { name: 'ISO B', papers: PAPER_NAMES.filter((p) => /^B\d/.test(p)) },
  { name: 'US', papers: ['Letter', 'Legal', 'Tabloid', ...PAPER_NAMES.filter((p) => p.startsWith('ANSI'))] },
  { name: 'ARCH', papers: PAPER_NAMES.filter((p) => p.startsWith('ARCH')) },
  { name: 'Photo, cm', papers: PAPER_NAMES.filter((p) => p.startsWith('Photo')) }
];

export const ORIENTATIONS = ['landscape', 'portrait'] as const;
export type Orientation = (typeof ORIENTATIONS)[number];
