/** Of a brief: its finish. Ranges stand here; what the fields mean in core/brief and docs/brief.md. */
import { IsBoolean, IsOptional, IsString, Matches, MaxLength, MinLength, ValidateIf } from 'class-validator';
import {
  BRIEF_DEFAULTS,
  type Finish,
  type GradedBackground,
  type PaperBackground,
  type PictureBackground
} from '../core/brief/brief';
import { CORNERS, type Corner } from '../core/catalogue/corners';
import { LEAST_KELVIN, MOST_KELVIN } from '../core/color/kelvin';
import { MOST_TINT, type WhiteBalance } from '../core/color/white-balance';
import { OneOf, Range, variant } from './ranges';
import type { Checked } from './validate';

const base = BRIEF_DEFAULTS;
const HEX = /^#[0-9a-f]{6}$/i;

class BackgroundContract {
  @OneOf(['own', 'clear', 'plain', 'graded', 'paper', 'picture']) kind: 'own' | 'clear' = 'own';
}
class PlainBackgroundContract {
  @OneOf(['plain']) kind = 'plain' as const;
  @Range(0, 100, 'L*') lightness = 90;
}
class GradedBackgroundContract implements GradedBackground {
  @OneOf(['graded']) kind = 'graded' as const;
  @Matches(HEX, { message: 'must be a colour like #7a8b9c' }) from = '#8a8f94';
  @Matches(HEX, { message: 'must be a colour like #7a8b9c' }) to = '#e8e6e2';
  @Range(-360, 360, 'degrees') angle_deg = 0;
  @Range(0, 2) spread = 1;
}
class PaperBackgroundContract implements PaperBackground {
  @OneOf(['paper']) kind = 'paper' as const;
  @Range(0, 100, 'L*') lightness = 92;
  @ValidateIf((o: PaperBackgroundContract) => o.corner !== null) @OneOf(CORNERS) corner: Corner | null = null;
  @Range(-60, 60, 'L*') fall = 0;
  @Range(0, 10, 'L*') grain = 1;
}
class PictureBackgroundContract implements PictureBackground {
  @OneOf(['picture']) kind = 'picture' as const;
  @IsString({ message: 'must name a picture' }) @MinLength(1, { message: 'must name a picture' }) @MaxLength(500) file =
    '';
  @Range(0, 1) across = 0.5;
  @Range(0, 1) down = 0.5;
  @Range(1, 8, 'times') enlarged = 1;
  @Range(-4, 4, 'EV') lighter_ev = 0;
}
const BACKGROUNDS: Record<string, new () => object> = {
  plain: PlainBackgroundContract,
  graded: GradedBackgroundContract,
  paper: PaperBackgroundContract,
  picture: PictureBackgroundContract
};
class WhiteContract implements WhiteBalance {
  @Range(LEAST_KELVIN, MOST_KELVIN, 'K') kelvin = 6500;
  @Range(-MOST_TINT, MOST_TINT) tint = 0;
}
class FinishContract {
  @Range(-10, 10, 'EV') exposure_ev = 0;
  @IsOptional() white: unknown = null;
  @Range(0, 1) denoise = 0;
  @IsBoolean() denoise_meanwhile = false;
  @IsOptional() background: unknown;
}

export function parseFinish(input: unknown): Checked<Finish> {
  const outer = variant<Finish>(input, 'brief.finish', base.finish, () => FinishContract);
  if (!outer.ok) return outer;
  const background = variant<Finish['background']>(
    outer.value.background,
    'brief.finish.background',
    base.finish.background,
    (v) => BACKGROUNDS[String((v as { kind?: unknown }).kind)] ?? BackgroundContract
  );
  if (!background.ok) return background;
  const { white } = outer.value;
  if (white === null) return { ok: true, value: { ...outer.value, background: background.value } };
  const balance = variant<WhiteBalance>(white, 'brief.finish.white', white, () => WhiteContract);
  return balance.ok
    ? { ok: true, value: { ...outer.value, white: balance.value, background: background.value } }
    : balance;
}
