/** What a link to a file asks for: its query, checked. */
import {
  DELIVERY_KINDS,
  type DeliveryKind,
  FILE_COLOURS,
  type FileColours,
  QUALITY_DEFAULT
} from '../../core/catalogue/file-kinds';
import { type Result, ok, refused } from '../../core/result/result';
import type { Delivery } from './deliver-proof';

const MOST_LETTERS = 200;

export function askedDelivery(query: URLSearchParams): Result<Delivery> {
  const kind = query.get('kind') ?? 'png';
  if (!DELIVERY_KINDS.includes(kind as DeliveryKind))
    return refused(`kind must be one of ${DELIVERY_KINDS.join(', ')}`, 'bad_input');
  const bits = query.get('bits') ?? '8';
  if (bits !== '8' && bits !== '16') return refused('bits must be 8 or 16', 'bad_input');
  const quality = Number(query.get('quality') ?? QUALITY_DEFAULT);
  if (!Number.isInteger(quality) || quality < 1 || quality > 100)
    return refused('quality must be a whole number from 1 to 100', 'bad_input');
  const long = query.get('long');
  const long_px = long === null ? null : Number(long);
  if (long_px !== null && (!Number.isInteger(long_px) || long_px < 16 || long_px > 100_000))
    return refused('long must be a whole number of pixels from 16 to 100,000', 'bad_input');
  const colors = query.get('colors') ?? 'srgb';
  if (!FILE_COLOURS.includes(colors as FileColours))
    return refused(`colors must be one of ${FILE_COLOURS.join(', ')}`, 'bad_input');
  return ok({
    colors: colors as FileColours,
    press: query.get('profile'),
    long_px,
    half: query.has('half'),
    pictureOnly: query.has('picture'),
    kind: kind as DeliveryKind,
    bits: bits === '16' ? 16 : 8,
    quality,
    background: query.get('background') === 'clear' ? 'clear' : 'own',
    finish: query.get('finish') === 'picture' ? 'picture' : 'proof',
    asRendered: query.has('raw'),
    cropMarks: query.has('marks'),
    about: query.has('about')
      ? { author: (query.get('author') ?? '').slice(0, MOST_LETTERS), withBrief: query.has('brief') }
      : null,
    pattern: (query.get('name') ?? '').slice(0, MOST_LETTERS)
  });
}
