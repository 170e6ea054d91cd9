/**
 * Patterns that fill space and never repeat, in a part's own coordinates in metres; the kernel evaluates them
 * (assembly/solid.ts). They travel in a glTF material's `extras` as `solid_texture`, so that other programs pass them
 * on untouched.
 */
import type { Vec3 } from '../math/vec3';

export const SOLID_KINDS = [
  'noise',
  'wood',
  'stone',
  'concrete',
  'brick',
  'terrazzo',
  'cloth',
  'boards',
  'herringbone',
  'ribs'
] as const;
export type SolidKind = (typeof SOLID_KINDS)[number];

export interface SolidTexture {
  kind: SolidKind;
  /**
   * m; of wood a year's ring, of stone the way between veins, of concrete a blotch, of brick its length, of terrazzo a
   * chip, of cloth the way between threads, of noise its coarsest swell, of boards and herringbone the width of a
   * board, of ribs the way between two.
   */
  size_m: number;
  /**
   * Linear reflectances that the base colour is multiplied by. Of wood late and early wood and pores; of stone and
   * concrete dark, light, veins or holes; of brick two burns and the mortar; of terrazzo the ground and two marbles; of
   * cloth weft, warp and the gaps; of boards and herringbone late and early wood, and pores and joints; of ribs their
   * valleys and their backs.
   */
  colors: [Vec3, Vec3, Vec3];
  /** m; how deep it is. */
  relief_m: number;
  /** How much it changes the roughness, at most. */
  roughness_change: number;
  /** Along which axis of the part grain or courses run. */
  axis: 'x' | 'y' | 'z';
  seed: number;
  /** How much parts differ in tone, 0 to 1: at 1 by up to a third. Not there: 0. */
  variation?: number;
}

/** What a file says, checked; null when it is none. Throws with the field's name when a value cannot be. */
export function parseSolidTexture(value: unknown): SolidTexture | null {
  if (typeof value !== 'object' || value === null) return null;
  const v = value as Record<string, unknown>;
  if (!SOLID_KINDS.includes(v.kind as SolidKind))
    throw new RangeError(`solid_texture.kind "${String(v.kind)}" is not known; it is one of ${SOLID_KINDS.join(', ')}`);
  const number = (name: string, fallback: number, least: number, most: number) => {
    const n = v[name] ?? fallback;
    if (typeof n !== 'number' || !(n >= least && n <= most))
      throw new RangeError(`solid_texture.${name} is ${String(n)}; expected a number from ${least} to ${most}`);
    return n;
  };
  const colors = v.colors as number[][];
  if (
    !Array.isArray(colors) ||
    colors.length !== 3 ||
    !colors.every(
      (c) => Array.isArray(c) && c.length === 3 && c.every((x) => typeof x === 'number' && x >= 0 && x <= 1)
    )
  )
    throw new RangeError('solid_texture.colors are three times three numbers from 0 to 1');
  return {
    kind: v.kind as SolidKind,
    size_m: number('size_m', 0.1, 1e-5, 100),
    colors: colors as unknown as [Vec3, Vec3, Vec3],
    relief_m: number('relief_m', 0, 0, 1),
    roughness_change: number('roughness_change', 0, 0, 1),
    axis: v.axis === 'y' || v.axis === 'z' ? v.axis : 'x',
    seed: number('seed', 1, 0, 4294967295),
    ...(v.variation === undefined ? {} : { variation: number('variation', 0, 0, 1) })
  };
}

// Shares of the three colours, measured over a large block of each (solid.test.ts holds them to 0.01).
const SHARES: Record<SolidKind, Vec3> = {
  noise: [0.5, 0.5, 0],
  wood: [0.4, 0.563, 0.037],
  stone: [0.4336, 0.5303, 0.0361],
  concrete: [0.497, 0.497, 0.006],
  brick: [0.412, 0.412, 0.176],
  terrazzo: [0.4337, 0.2843, 0.282],
  cloth: [0.428, 0.423, 0.149],
  boards: [0.393, 0.553, 0.054],
  herringbone: [0.393, 0.553, 0.054],
  ribs: [0.333, 0.667, 0]
};

/** What a solid texture looks like where it cannot be drawn: its mean, linear. */
export function meanColor({ kind, colors }: SolidTexture): Vec3 {
  const [a, b, c] = SHARES[kind];
  return [0, 1, 2].map((k) => a * colors[0][k]! + b * colors[1][k]! + c * colors[2][k]!) as unknown as Vec3;
}
