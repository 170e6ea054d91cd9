/**
 * White balance: what a light of some kelvin and tint makes white is shown as the screen's white. Bradford's adaptation
 * to cone responses (Lam 1985; matrix of ICC.1:2022, annex E), as one matrix for linear Rec. 709.
 */
import type { Vec3 } from '../math/vec3';
import { kelvinToXy, MIN_KELVIN, locusPoint, MAX_KELVIN } from './kelvin';
import { rec709ToXyz, xyzToRec709 } from './spaces';
import { decodeSrgb } from './srgb';
import { sceneColor } from './tone';

export interface WhiteBalance {
  /** Of the light that is to look white. */
  kelvin: number;
  /** As in `kelvinToXy`: positive where that light is greener than a black body. */
  tint: number;
}

export const MAX_TINT = 5;

/** Rows; a light of this white keeps its luminance and becomes neutral. */
export type BalanceMatrix = readonly [Vec3, Vec3, Vec3];

const BRADFORD: BalanceMatrix = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296]
];
const BRADFORD_BACK: BalanceMatrix = [
  [0.9869929, -0.1470543, 0.1599627],
  [0.4323053, 0.5183603, 0.0492912],
  [-0.0085287, 0.0400428, 0.9684867]
];

const times = (m: BalanceMatrix, [x, y, z]: Vec3): Vec3 => [
  m[0][0] * x + m[0][1] * y + m[0][2] * z,
  m[1][0] * x + m[1][1] * y + m[1][2] * z,
  m[2][0] * x + m[2][1] * y + m[2][2] * z
];

const D65 = rec709ToXyz([1, 1, 1]);

const whiteXyz = ({ kelvin, tint }: WhiteBalance): Vec3 => {
  const [x, y] = kelvinToXy(kelvin, tint);
  return [x / y, 1, (1 - x - y) / y];
};

/** Throws outside 1,000 to 15,000 K. */
export const balanceMatrix = (white: WhiteBalance): BalanceMatrix => adaptation(whiteXyz(white), D65);

function adaptation(fromXyz: Vec3, toXyz: Vec3): BalanceMatrix {
  const from = times(BRADFORD, fromXyz);
  const to = times(BRADFORD, toXyz);
  const adapt = (rgb: Vec3): Vec3 => {
    const cone = times(BRADFORD, rec709ToXyz(rgb));
    return xyzToRec709(
      times(BRADFORD_BACK, [(cone[0] * to[0]) / from[0], (cone[1] * to[1]) / from[1], (cone[2] * to[2]) / from[2]])
    );
  };
  const [r, g, b] = [adapt([1, 0, 0]), adapt([0, 1, 0]), adapt([0, 0, 1])];
  return [
    [r[0], g[0], b[0]],
    [r[1], g[1], b[1]],
    [r[2], g[2], b[2]]
  ];
}

/**
 * The balance that makes neutral what is displayed in this sRGB colour (0 to 1) while `now` is in force. Null where
 * nothing can be told: black, blown out, or too coloured for a white.
 */
export function balanceOfSeen(srgb: Vec3, now: WhiteBalance | null): WhiteBalance | null {
  if (Math.max(...srgb) > BLOWN_OUT) return null;
  const linear = sceneColor([decodeSrgb(srgb[0]), decodeSrgb(srgb[1]), decodeSrgb(srgb[2])]);
  return balanceFor(now ? times(adaptation(D65, whiteXyz(now)), linear) : linear);
}

// Displayed above this, a channel has lost how much there was.
const BLOWN_OUT = 0.985;

/**
 * The balance that shows a linear Rec. 709 colour as neutral: the nearest black body and how far off it lies. Null for
 * black, and for what no white light is like.
 */
export function balanceFor(rgb: Vec3): WhiteBalance | null {
  const [x, y, z] = rec709ToXyz(rgb);
  const k = x + 15 * y + 3 * z;
  if (!(y > 0) || !(k > 0)) return null;
  const u = (4 * x) / k;
  const v = (6 * y) / k;
  const away = (mired: number) => {
    const [a, b] = locusPoint(1e6 / mired);
    return Math.hypot(u - a, v - b);
  };
  // nearest in mired, in which the locus is walked evenly; distance has one least
  let low = 1e6 / MAX_KELVIN;
  let high = 1e6 / MIN_KELVIN;
  for (let i = 0; i < 60; i++) {
    const third = (high - low) / 3;
    if (away(low + third) < away(high - third)) high -= third;
    else low += third;
  }
  const kelvin = 1e6 / ((low + high) / 2);
  const [, on] = locusPoint(kelvin);
  const tint = Math.sign(v - on) * 100 * away(1e6 / kelvin);
  if (Math.abs(tint) > MAX_TINT) return null;
  return { kelvin, tint };
}
