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

export function fileName(of: NamedFile): string {
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
