/**
 * What a command is told of the file that it writes: --out picture.EXT [--bits 8|16] [--quality 94] [--long PX]
 * [--colors srgb|p3|press --profile press.icc].
 */
import { extname } from 'node:path';
import {
  DELIVERY_KINDS,
  type DeliveryKind,
  FILE_COLOURS,
  type FileColours,
  type FileOptions,
  holds16Bits,
  holdsColours,
  QUALITY_DEFAULT
} from '../core/catalogue/file-kinds';
import { BadInput } from './bad-input';

export const FILE_ARGUMENTS = ['out', 'bits', 'quality', 'long', 'colors', 'profile'] as const;

const KINDS: Record<string, DeliveryKind> = {
  ...Object.fromEntries(DELIVERY_KINDS.map((kind) => [`.${kind}`, kind])),
  '.jpeg': 'jpg',
  '.tiff': 'tif'
};

export interface AskedFile extends Omit<FileOptions, 'about'> {
  out: string;
}

export function readFileArguments(options: Partial<Record<(typeof FILE_ARGUMENTS)[number], string>>): AskedFile {
  const { out, bits = '8' } = options;
  if (!out) throw new BadInput('say where the picture goes: --out picture.png');
  const kind = KINDS[extname(out).toLowerCase()];
  if (!kind) throw new BadInput(`--out must end in one of ${Object.keys(KINDS).join(', ')}, got "${out}"`);
  if (bits !== '8' && bits !== '16') throw new BadInput(`--bits must be 8 or 16, got "${bits}"`);
  // of OpenEXR 16 bits are halves
  const half = kind === 'exr' && bits === '16';
  if (bits === '16' && !half && !holds16Bits(kind))
    throw new BadInput(`--bits 16 goes with .png, .tif and .exr, not with "${out}"`);
  const quality = Number(options.quality ?? QUALITY_DEFAULT);
  if (!Number.isInteger(quality) || quality < 1 || quality > 100)
    throw new BadInput(`--quality must be a whole number from 1 to 100, got "${options.quality}"`);
  const long_px = options.long === undefined ? null : Number(options.long);
  if (long_px !== null && (!Number.isInteger(long_px) || long_px < 16))
    throw new BadInput(`--long must be a whole number of pixels, got "${options.long}"`);
  const colors = (options.colors ?? 'srgb') as FileColours;
  if (!FILE_COLOURS.includes(colors))
    throw new BadInput(`--colors must be one of ${FILE_COLOURS.join(', ')}, got "${options.colors}"`);
  if (!holdsColours(kind, colors)) throw new BadInput(`--colors ${colors} does not go with "${out}"`);
  const press = options.profile ?? null;
  if (colors === 'press' && press === null)
    throw new BadInput(
      'say which press the inks are for: --profile press.icc, the ICC profile that your printer gives'
    );
  if (colors !== 'press' && press !== null) throw new BadInput('--profile goes with --colors press');
  if (colors === 'press' && bits === '16') throw new BadInput('--colors press goes with 8 bits');
  return {
    colors,
    press,
    out,
    kind,
    bits: bits === '16' && !half ? 16 : 8,
    quality,
    long_px,
    half,
    pictureOnly: false
  };
}
