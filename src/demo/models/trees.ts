/** The trees and shrubs about the hut: a few of each drawn 1 m tall or in their size, placed at many heights and turns. */
import { add, scale, type Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import { tree } from '../../drawing/pieces/plants';
import type { DrawnMaterial } from '../../drawing/write-model';
import { ground } from './hill';
import { type Copy, type Place, planted } from './planted';

const WHORLS = 24;
const ARMS = 9;
const TWIGS = 9;

export interface Wood {
  copies: Copy[];
  materials: Record<string, DrawnMaterial>;
}

/** `x`, `z` of each and its height in units of what is drawn. */
const LIMES = [
  [-12.5, 17, 1.05],
  [-19.5, 24, 1.25],
  [16.5, 27, 1.2],
  [24, 22, 1],
  // beside the view, for their shadows
  [-27, -3.5, 1.1],
  [-33, 1.5, 1.25]
] as const;
const ROWANS = [
  [-5.2, 15.5, 1],
  [9.6, 16.5, 0.9],
  [-9.4, 12.2, 0.8]
] as const;
const SHRUBS = [
  [-3.3, 10.4, 1],
  [-3.9, 12.3, 1.25],
  [7.3, 12.4, 1.1],
  [8.4, 10.9, 0.8],
  [-8.2, 14.1, 1.3],
  [13.2, 15.8, 1.2],
  [-2.9, 8.9, 0.6]
] as const;

export function trees({ random }: MeshBuilder): Wood {
  const place = ([x, z, size]: readonly [number, number, number], sunk: number): Place => ({
    at: [x, ground(x, z) - sunk, z],
    turnDeg: 360 * random(),
    scale: size
  });
  const spruces = [0, 1, 2].map((i) => ({
    name: `Spruce ${'ABC'[i]}`,
    mesh: spruce(41 + i),
    places: [] as Place[]
  }));
  const plant = (x: number, z: number, tall: number) =>
    spruces[Math.floor(random() * 3)]!.places.push(place([x, z, tall], 0.1));
  for (let i = 0; i < 32; i++) plant(-47 + random() * 34, 28 + random() * 34, 5 + 6 * random());
  for (let i = 0; i < 14; i++) plant(16 + random() * 24, 28 + random() * 26, 4.5 + 5 * random());
  const lime = tree({
    seed: 91,
    height: 9,
    trunk: 0.19,
    clear: 0.2,
    spread: 0.36,
    leaf: 0.2,
    boughs: 24,
    forks: [9, 7, 15],
    far: true,
    color: [0.075, 0.125, 0.03],
    through: [0.24, 0.38, 0.06]
  });
  const rowan = tree({
    seed: 92,
    height: 4.2,
    trunk: 0.055,
    clear: 0.26,
    spread: 0.3,
    leaf: 0.1,
    boughs: 19,
    forks: [8, 6, 13],
    far: true,
    color: [0.26, 0.15, 0.03],
    through: [0.5, 0.3, 0.05]
  });
  const shrub = tree({
    seed: 93,
    height: 1.5,
    trunk: 0.022,
    clear: 0.03,
    spread: 0.62,
    leaf: 0.06,
    boughs: 19,
    forks: [7, 5, 13],
    far: true,
    color: [0.07, 0.12, 0.04],
    through: [0.22, 0.36, 0.07]
  });
  const broadleaf = [
    { name: 'Lime', piece: lime, places: LIMES, sunk: 0.1 },
    { name: 'Rowan', piece: rowan, places: ROWANS, sunk: 0.05 },
    { name: 'Shrub', piece: shrub, places: SHRUBS, sunk: 0.05 }
  ];
  const materials: Wood['materials'] = {
    spruce: { color: [0.042, 0.07, 0.03], roughness: 0.95 },
    bark: { color: [0.1, 0.065, 0.045], roughness: 0.95 }
  };
  const copies = broadleaf.map(({ name, piece, places, sunk }) => {
    const standing = places.map((at) => place(at, sunk));
    return planted(name, piece, standing, materials);
  });
  return { copies: [...spruces, ...copies], materials };
}

function spruce(seed: number): MeshBuilder {
  const m = new MeshBuilder(seed);
  const { random } = m;
  m.rod('bark', [0, 0, 0], [0, 0.97, 0], 0.02, 0.002, 10);
  for (let k = 0; k < WHORLS; k++) {
    const t = k / WHORLS;
    const low = 0.09 + 0.88 * t;
    const reach = 0.24 * (1 - t) ** 0.85 + 0.012;
    for (let b = 0; b < ARMS; b++) {
      const a = (2 * Math.PI * (b + 0.7 * random())) / ARMS + k * 2.4;
      const r = reach * (0.7 + 0.45 * random());
      branch(
        m,
        [Math.cos(a), 0, Math.sin(a)],
        [-Math.sin(a), 0, Math.cos(a)],
        low + 0.02 * random(),
        r,
        0.25 + 0.25 * random()
      );
    }
  }
  return m;
}

/** An arm that droops and lifts at its tip, with twigs to both sides, each a narrow fan of two triangles. */
function branch(m: MeshBuilder, out: Vec3, across: Vec3, low: number, r: number, droop: number): void {
  const at = (s: number): Vec3 => add(scale(out, r * s), [0, low - r * droop * (s - 0.45 * s * s * s), 0]);
  for (let i = 0; i < TWIGS; i++) {
    const s = (i + 0.6) / TWIGS;
    const root = at(s * 0.92);
    const length = r * 0.34 * (1.08 - s) + 0.006;
    for (const side of [-1, 1]) {
      const tip = add(
        add(root, scale(across, side * length)),
        add(scale(out, length * 0.75), [0, -length * (0.25 + 0.3 * m.random()), 0])
      );
      const edge = add(add(root, scale(out, r * 0.13)), [0, -0.006, 0]);
      m.triangle('spruce', root, tip, edge);
      m.triangle('spruce', root, add(tip, [0, -length * 0.22, 0]), tip);
    }
  }
  m.triangle('spruce', at(0.7), at(1.02), add(at(0.72), [0, -0.008, 0]));
}
