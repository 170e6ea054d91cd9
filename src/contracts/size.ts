/**
 * Of a brief: its size, the rectangle of it that is rendered, its bleed, and where it is seen. Ranges stand here; what
 * the fields mean in core/brief and docs/brief.md.
 */
import { IsOptional, IsString, MaxLength, MinLength, ValidateIf } from 'class-validator';
import { BRIEF_DEFAULTS, type Patch, type Seen } from '../core/brief/brief';
import { FILE_KINDS, type FileKind } from '../core/catalogue/file-kinds';
import { ORIENTATIONS, type Orientation, PAPER_NAMES, type Paper } from '../core/catalogue/papers';
import type { SizeChoice } from '../core/catalogue/size-choice';
import { MOST_BLEED_MM, MOST_SIDE_PX, PPI, SIDE_MM } from '../core/output/edit-size';
import { resolveSize, WHOLE_SHEET } from '../core/output/size';
import { OneOf, Range, variant, WholeRange } from './ranges';
import { type Checked, quoted, refuse } from './validate';

const base = BRIEF_DEFAULTS;

class PixelSizeContract {
  @WholeRange(1, MOST_SIDE_PX) width_px = 600;
  @WholeRange(1, MOST_SIDE_PX) height_px = 400;
}
class PaperSizeContract {
  @OneOf(PAPER_NAMES) paper: Paper = 'A3';
  @OneOf(ORIENTATIONS) orientation: Orientation = 'landscape';
  @Range(PPI.least, PPI.most, 'ppi') ppi = 200;
}
class SheetSizeContract {
  @Range(SIDE_MM.least, SIDE_MM.most, 'mm') width_mm = 420;
  @Range(SIDE_MM.least, SIDE_MM.most, 'mm') height_mm = 297;
  @Range(PPI.least, PPI.most, 'ppi') ppi = 200;
}

class PatchContract implements Patch {
  @Range(0, 0.9999) x = 0;
  @Range(0, 0.9999) y = 0;
  @Range(0.0001, 1) width = 1;
  @Range(0.0001, 1) height = 1;
}
class SeenContract {
  @IsOptional() destination: unknown = null;
  @ValidateIf((o: SeenContract) => o.distance_m !== null) @Range(0.1, 100, 'm') distance_m: number | null = null;
  @OneOf(FILE_KINDS) file: FileKind = base.seen.file;
}
class DestinationContract {
  @IsString({ message: 'must be a name' }) @MinLength(1, { message: 'must not be empty' }) @MaxLength(80) name = '';
  @IsOptional() size: unknown;
}

export function parseSize(input: unknown, place = 'brief.size'): Checked<SizeChoice> {
  const result = variant<SizeChoice>(input, place, base.size, (v) =>
    'paper' in v || 'orientation' in v
      ? PaperSizeContract
      : 'width_mm' in v || 'height_mm' in v
        ? SheetSizeContract
        : PixelSizeContract
  );
  if (!result.ok) return result;
  const size = result.value;
  const { width_px, height_px } = resolveSize(size);
  if (Math.max(width_px, height_px) > MOST_SIDE_PX)
    return refuse(
      `${place} is ${width_px} x ${height_px} px; a side has at most ${MOST_SIDE_PX} px, so lower the size or the ppi`
    );
  return result;
}

export function parsePatch(input: unknown): Checked<Patch | null> {
  if (input === undefined || input === null) return { ok: true, value: null };
  const result = variant<Patch>(input, 'brief.patch', WHOLE_SHEET, () => PatchContract);
  if (!result.ok) return result;
  const { x, y, width, height } = result.value;
  if (x + width > 1.000001 || y + height > 1.000001)
    return refuse('brief.patch reaches beyond the picture; x + width and y + height may be 1 at most');
  return result;
}

export function parseSeen(input: unknown): Checked<Seen> {
  const outer = variant<Seen>(input, 'brief.seen', base.seen, () => SeenContract);
  if (!outer.ok || outer.value.destination === null) return outer;
  const destination = variant<NonNullable<Seen['destination']>>(
    outer.value.destination,
    'brief.seen.destination',
    outer.value.destination,
    () => DestinationContract
  );
  if (!destination.ok) return destination;
  const size = parseSize(destination.value.size, 'brief.seen.destination.size');
  return size.ok
    ? { ok: true, value: { ...outer.value, destination: { name: destination.value.name, size: size.value } } }
    : size;
}

export function parseBleed(input: unknown = 0): Checked<number> {
  if (typeof input !== 'number' || !(input >= 0 && input <= MOST_BLEED_MM))
    return refuse(`brief.bleed_mm must be a number from 0 to ${MOST_BLEED_MM} mm, got ${quoted(input)}`);
  return { ok: true, value: input };
}
