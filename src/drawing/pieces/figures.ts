/** Flat standing figures, as architects cut them from card: for scale, without a face. */
import { CatmullRomCurve3, ShapeUtils, Vector2, Vector3 } from 'three';
import type { Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../mesh-builder';
import type { DrawnModel } from '../write-model';

type Piece = Pick<DrawnModel, 'mesh' | 'materials'>;
type Outline = readonly (readonly [number, number])[];

const CARD_M = 0.003;
/** Points between two of an outline. */
const SMOOTH = 6;

// Counterclockwise from the left foot, in metres; a person of 1.72 m with the arms at the sides.
const STANDING: Outline = [
  [-0.13, 0],
  [-0.015, 0],
  [-0.02, 0.06],
  [-0.025, 0.4],
  [-0.012, 0.78],
  [0.012, 0.78],
  [0.03, 0.4],
  [0.03, 0.06],
  [0.025, 0],
  [0.145, 0],
  [0.14, 0.035],
  [0.085, 0.075],
  [0.11, 0.45],
  [0.145, 0.82],
  [0.165, 0.72],
  [0.2, 0.7],
  [0.205, 0.78],
  [0.2, 1.05],
  [0.205, 1.34],
  [0.17, 1.44],
  [0.06, 1.485],
  [0.05, 1.53],
  [0.088, 1.6],
  [0.075, 1.69],
  [0, 1.72],
  [-0.075, 1.69],
  [-0.088, 1.6],
  [-0.05, 1.53],
  [-0.06, 1.485],
  [-0.17, 1.44],
  [-0.21, 1.34],
  [-0.215, 1.05],
  [-0.225, 0.78],
  [-0.215, 0.7],
  [-0.18, 0.72],
  [-0.15, 0.82],
  [-0.115, 0.45],
  [-0.085, 0.075],
  [-0.125, 0.035]
];

// From the side, one leg forward, the arms swinging.
const WALKING: Outline = [
  [-0.42, 0.05],
  [-0.36, 0.02],
  [-0.3, 0.1],
  [-0.19, 0.44],
  [-0.02, 0.74],
  [0.1, 0.46],
  [0.2, 0.06],
  [0.22, 0],
  [0.39, 0],
  [0.4, 0.035],
  [0.28, 0.085],
  [0.215, 0.46],
  [0.14, 0.86],
  [0.15, 1.02],
  [0.27, 0.86],
  [0.31, 0.85],
  [0.31, 0.91],
  [0.19, 1.14],
  [0.16, 1.36],
  [0.1, 1.47],
  [0.06, 1.53],
  [0.12, 1.58],
  [0.115, 1.7],
  [0.05, 1.775],
  [-0.04, 1.77],
  [-0.085, 1.69],
  [-0.065, 1.59],
  [-0.045, 1.53],
  [-0.09, 1.46],
  [-0.15, 1.36],
  [-0.2, 1.14],
  [-0.31, 0.92],
  [-0.33, 0.85],
  [-0.28, 0.84],
  [-0.15, 1.02],
  [-0.13, 0.86],
  [-0.27, 0.46],
  [-0.37, 0.16],
  [-0.45, 0.13]
];

export const standing = (): Piece => figure(71, STANDING, [0.25, 0.25, 0.25]);
export const walking = (): Piece => figure(72, WALKING, [0.3, 0.3, 0.3]);

function figure(seed: number, outline: Outline, color: Vec3): Piece {
  const m = new MeshBuilder(seed);
  const curve = new CatmullRomCurve3(
    outline.map(([x, y]) => new Vector3(x, y, 0)),
    true,
    'centripetal'
  );
  const around = curve.getPoints(outline.length * SMOOTH).slice(0, -1);
  const flat = around.map((p) => new Vector2(p.x, Math.max(0, p.y)));
  const at = (i: number, side: number): Vec3 => [flat[i]!.x, flat[i]!.y, (side * CARD_M) / 2];
  for (const face of ShapeUtils.triangulateShape(flat, [])) {
    const [a, b, c] = face as [number, number, number];
    m.triangle('card', at(a, 1), at(b, 1), at(c, 1));
    m.triangle('card', at(a, -1), at(c, -1), at(b, -1));
  }
  flat.forEach((_, i) => {
    const next = (i + 1) % flat.length;
    m.quad('card', at(i, 1), at(i, -1), at(next, -1), at(next, 1));
  });
  return { mesh: m, materials: { card: { color, roughness: 0.9 } } };
}
