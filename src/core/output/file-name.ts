/**
 * Name of a delivered file: project, picture, number of the proof, quality, its own size in pixels, and what sets it
 * apart. Letters of any script, digits and dashes only, so it is safe anywhere.
 */
export interface NamedFile {
  project: string;
  picture: string;
  proof: number;
  quality: string;
  width_px: number;
  height_px: number;
  /** "transparent", "before denoising"; empty for the picture as it is. */
  variant: string;
  extension: string;
}

const LONGEST = 60;

const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .toLowerCase()
    .slice(0, LONGEST);

/** What a pattern may name, in braces: "{picture}-{width}x{height}". */
export const NAME_WORDS = ['project', 'picture', 'proof', 'quality', 'width', 'height', 'variant'] as const;

/** By a pattern where one is given; what it does not know stays away. */
export function fileName(of: NamedFile, pattern = ''): string {
  if (pattern.trim() !== '') return byPattern(of, pattern);
  const parts = [
    plain(of.project) || 'project',
    plain(of.picture) || 'picture',
    `proof-${of.proof}`,
    plain(of.quality),
    `${of.width_px}x${of.height_px}px`,
    plain(of.variant)
  ];
  return `${parts.filter(Boolean).join('_')}.${of.extension}`;
}

function byPattern(of: NamedFile, pattern: string): string {
  const values: Record<(typeof NAME_WORDS)[number], string> = {
    project: of.project,
    picture: of.picture,
    proof: String(of.proof),
    quality: of.quality,
    width: String(of.width_px),
    height: String(of.height_px),
    variant: of.variant
  };
  const filled = pattern.replace(/\{(\w+)\}/g, (_, word: string) =>
    Object.hasOwn(values, word) ? plain(values[word as keyof typeof values]) : ''
  );
  // underscores part what dashes join
  const safe = filled.split('_').map(plain).filter(Boolean).join('_');
  return `${safe || `proof-${of.proof}`}.${of.extension}`;
}

/** A name that is not taken yet: numbered before its extension where it is. */
export function unusedName(name: string, taken: ReadonlySet<string>): string {
  const dot = name.lastIndexOf('.');
  let own = name;
  for (let n = 2; taken.has(own); n++) own = `${name.slice(0, dot)}_${n}${name.slice(dot)}`;
  return own;
}
