/**
 * What is put behind the model in the finish: an even grey, two colours that grade into each other, or paper. Displayed values, linear, by place in the
 * picture alone, so that it is the same in a tile, a small look and a large sheet.
 */
import type { Background } from '../brief/brief';
import type { Corner } from '../catalogue/corners';
import { luminanceOfLightness } from '../color/lightness';
import { decodeSrgb } from '../color/srgb';

/** Writes three linear values, 0 to 1, for a place of the picture whose corners are 0, 0 and 1, 1. */
export type Behind = (u: number, v: number, out: number[]) => void;

/** Of a six-digit colour, encoded, 0 to 1. */
export const rgbOf = (hex: string): [number, number, number] => [1, 3, 5].map((i) => Number.parseInt(hex.slice(i, i + 2), 16) / 255) as [number, number, number];

/** Null where the surroundings are seen, or nothing is. `aspect`: width over height of the picture. */
export function behindOf(background: Background, aspect: number): Behind | null {
  switch (background.kind) {
    case 'plain': {
      const value = luminanceOfLightness(background.lightness);
      return (_u, _v, out) => out.fill(value, 0, 3);
    }
    case 'graded':
      return graded(rgbOf(background.from), rgbOf(background.to), background.angle_deg, background.spread, aspect);
    case 'paper':
      return paper(background.lightness, background.corner, background.fall, background.grain, aspect);
    default:
      return null;
  }
}

/** From one colour to the other along a direction (0 downward, 90 to the right), over a share of the picture about its middle; even steps to the eye, as sRGB has them. */
function graded(from: readonly number[], to: readonly number[], angle_deg: number, spread: number, aspect: number): Behind {
  const angle = (angle_deg * Math.PI) / 180;
  const [x, y] = [Math.sin(angle), Math.cos(angle)];
  const reach = (Math.abs(x) * aspect + Math.abs(y)) * Math.max(spread, 1e-3);
  return (u, v, out) => {
    const t = smooth(0.5 + ((u - 0.5) * aspect * x + (v - 0.5) * y) / reach);
    // half a step of 8 bits each way, or bands would show
    const dither = (hash(u, v, 0x51f1) - 0.5) / 255;
    for (let c = 0; c < 3; c++) out[c] = decodeSrgb(Math.min(1, Math.max(0, from[c]! + (to[c]! - from[c]!) * t + dither)));
  };
}

// Cells of paper's grain to the picture's height, and what each weighs.
const CELLS = [
  { count: 220, weight: 0.5 },
  { count: 700, weight: 0.5 }
];

/** A sheet of a lightness, L*, that grows lighter (or darker) by `fall` towards a corner and has a fine grain of `grain` L*. */
function paper(lightness: number, corner: Corner | null, fall: number, grain: number, aspect: number): Behind {
  const [toRight, toBottom] = [corner?.endsWith('right') ?? false, corner?.startsWith('lower') ?? false];
  return (u, v, out) => {
    const near = corner === null ? 0 : 1 - Math.hypot((toRight ? 1 - u : u) * aspect, toBottom ? 1 - v : v) / Math.hypot(aspect, 1);
    let fine = 0;
    for (const [i, { count, weight }] of CELLS.entries()) fine += weight * (2 * valueNoise(u * aspect * count, v * count, 101 + i) - 1);
    const value = luminanceOfLightness(Math.min(100, Math.max(0, lightness + fall * smooth(near) + grain * fine)));
    out.fill(value, 0, 3);
  };
}

function smooth(t: number): number {
  const x = Math.min(1, Math.max(0, t));
  return x * x * (3 - 2 * x);
}

/** Values at whole places, mixed between them. */
function valueNoise(x: number, y: number, seed: number): number {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [a, b] = [smooth(x - i), smooth(y - j)];
  const at = (p: number, q: number) => scramble(p, q, seed);
  return (at(i, j) * (1 - a) + at(i + 1, j) * a) * (1 - b) + (at(i, j + 1) * (1 - a) + at(i + 1, j + 1) * a) * b;
}

const hash = (u: number, v: number, seed: number) => scramble(Math.round(u * 65_521), Math.round(v * 65_521), seed);

/** 0 to 1 of two whole numbers. */
function scramble(x: number, y: number, seed: number): number {
  let h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77) ^ Math.imul(seed, 0xc2b2ae3d);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return ((h ^ (h >>> 15)) >>> 0) / 0x1_0000_0000;
}
