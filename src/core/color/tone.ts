/**
 * Tone curves: scene luminance relative to the exposure's white (Lmax of ISO 12232) to displayed luminance, both linear.
 *
 * All but the plain one are our own: y = x^n / (x^n + c), the response of a photoreceptor (Naka and Rushton 1966), a
 * straight line in a film's log-log plot with a shoulder and a toe. n is the slope at mid grey; c puts mid grey (a
 * metered surface, 12.5/120 of white) at L* = 50. Bright saturated colours lose some saturation, as film does, by a
 * small crosstalk before the curve. The curve is applied to the largest and the least channel; the one between keeps its
 * place between them, so that a colour keeps its hue while it grows brighter: blue does not become violet, nor a flame
 * yellow.
 */
import type { ToneCharacter } from '../catalogue/tone-characters';
import { luminanceOfLightness } from './lightness';

interface Shape {
  slope: number;
  crosstalk: number;
}
const SHAPES: Record<Exclude<ToneCharacter, 'plain'>, Shape> = {
  photographic: { slope: 1.36, crosstalk: 0.06 },
  gentle: { slope: 1.12, crosstalk: 0.1 },
  crisp: { slope: 1.68, crosstalk: 0.05 },
  faded: { slope: 1.2, crosstalk: 0.16 },
  neutral: { slope: 1, crosstalk: 0 }
};
/** What faded paper shows of black and white, L*. */
const FADED = { black: luminanceOfLightness(9), white: luminanceOfLightness(96) };

export const MID_GREY_IN = 0.125 / 1.2;
export const MID_GREY_OUT = luminanceOfLightness(50);

export interface Tone {
  curve(x: number): number;
  crosstalk: number;
}

/** `contrast`: times the slope at mid grey, which stays where it is. */
export function toneOf(character: ToneCharacter, contrast = 1): Tone {
  if (character === 'plain')
    return {
      curve: (x) => (x > 0 ? Math.min(1, contrast === 1 ? x : MID_GREY_IN * (x / MID_GREY_IN) ** contrast) : 0),
      crosstalk: 0
    };
  const { slope, crosstalk } = SHAPES[character];
  const n = slope * contrast;
  const half = MID_GREY_IN ** n * (1 / MID_GREY_OUT - 1);
  const full = (x: number) => {
    if (!(x > 0)) return 0;
    const p = x ** n;
    return p === Number.POSITIVE_INFINITY ? 1 : p / (p + half);
  };
  return {
    curve: character === 'faded' ? (x) => FADED.black + (FADED.white - FADED.black) * full(x) : full,
    crosstalk
  };
}

const DEFAULT = SHAPES.photographic;
/** The default character's. */
export const { curve: toneCurve, crosstalk: CROSSTALK } = toneOf('photographic');

/** What a curve is to be applied to of a linear colour, channel by channel. */
export function mixTone(out: Float32Array | number[], r: number, g: number, b: number, crosstalk = CROSSTALK): void {
  const shared = crosstalk * (0.2126 * r + 0.7152 * g + 0.0722 * b);
  const own = 1 - crosstalk;
  out[0] = own * r + shared;
  out[1] = own * g + shared;
  out[2] = own * b + shared;
}

/** Applies a curve in place to three values such that the one between the others keeps its place between them. */
export function holdHue(rgb: Float32Array | number[], curve: (x: number) => number): void {
  const [r, g, b] = [rgb[0]!, rgb[1]!, rgb[2]!];
  const top = r > g ? (r > b ? 0 : 2) : g > b ? 1 : 2;
  const low = r < g ? (r < b ? 0 : 2) : g < b ? 1 : 2;
  const [most, least] = [rgb[top]!, rgb[low]!];
  const high = curve(most);
  if (most === least) {
    rgb.fill(high, 0, 3);
    return;
  }
  const deep = curve(least);
  const mid = 3 - top - low;
  rgb[mid] = deep + ((high - deep) * (rgb[mid]! - least)) / (most - least);
  rgb[top] = high;
  rgb[low] = deep;
}

/** Applies the default curve to a linear colour in place of its three values. */
export function toneColor(out: Float32Array | number[], r: number, g: number, b: number): void {
  mixTone(out, r, g, b);
  holdHue(out, toneCurve);
}

/** The linear colour that toneColor made of it; what is white or near it has lost its own. */
export function sceneColor(shown: readonly [number, number, number]): [number, number, number] {
  const half = MID_GREY_IN ** DEFAULT.slope * (1 / MID_GREY_OUT - 1);
  const back = (y: number) =>
    y <= 0 ? 0 : ((Math.min(y, 0.999) * half) / (1 - Math.min(y, 0.999))) ** (1 / DEFAULT.slope);
  const seen: [number, number, number] = [...shown];
  holdHue(seen, back);
  // the crosstalk keeps luminance
  const shared = CROSSTALK * (0.2126 * seen[0] + 0.7152 * seen[1] + 0.0722 * seen[2]);
  const own = (c: number) => Math.max(0, (c - shared) / (1 - CROSSTALK));
  return [own(seen[0]), own(seen[1]), own(seen[2])];
}
