/** Plants: leaf by leaf on stems and branches that fork, grown from a seed. */
import { add, cross, mix, normalize, scale, type Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../mesh-builder';
import type { DrawnMaterial, DrawnModel } from '../write-model';

type Piece = Pick<DrawnModel, 'mesh' | 'materials'>;

const leafMaterial = (color: Vec3, through: Vec3): DrawnMaterial => ({
  color,
  roughness: 0.45,
  through: { weight: 0.35, color: through }
});
const BARK: DrawnMaterial = { color: [0.16, 0.12, 0.085], roughness: 0.9 };
const POT: DrawnMaterial = { color: [0.44, 0.4, 0.35], roughness: 0.7 };
const SOIL: DrawnMaterial = { color: [0.045, 0.032, 0.024], roughness: 1 };

const UP: Vec3 = [0, 1, 0];

/** A leaf that is folded along its middle and bends down towards its tip. */
function leaf(
  m: MeshBuilder,
  material: string,
  foot: Vec3,
  along: Vec3,
  length: number,
  width: number,
  bend: number
): void {
  const way = normalize(along);
  const side = normalize(cross(Math.abs(way[1]) > 0.98 ? [1, 0, 0] : UP, way));
  const up = cross(way, side);
  const rows = [
    [0, 0],
    [0.3, 0.85],
    [0.62, 0.8],
    [1, 0]
  ] as const;
  const at = (t: number, across: number): Vec3 => {
    const fold = Math.abs(across) * width * 0.22;
    return add(
      foot,
      add(add(scale(way, t * length), scale(up, fold - bend * t * t * length)), scale(side, (across * width) / 2))
    );
  };
  for (const s of [-1, 1])
    for (let i = 0; i + 1 < rows.length; i++) {
      const [[t0, w0], [t1, w1]] = [rows[i]!, rows[i + 1]!];
      const [a, b, c, d] = [at(t0, 0), at(t1, 0), at(t1, s * w1), at(t0, s * w0)];
      if (i < rows.length - 2) m.triangle(material, a, s < 0 ? c : b, s < 0 ? b : c);
      if (i > 0) m.triangle(material, a, s < 0 ? d : c, s < 0 ? (i < rows.length - 2 ? c : b) : d);
    }
}

/** Two triangles that meet in the middle of the leaf. */
function farLeaf(m: MeshBuilder, material: string, foot: Vec3, along: Vec3, length: number, width: number): void {
  const way = normalize(along);
  const side = normalize(cross(UP, way));
  const tip = add(foot, add(scale(way, length), [0, -0.3 * length, 0]));
  const middle = mix(foot, tip, 0.45);
  const edge = (s: number): Vec3 => add(add(middle, scale(side, (s * width) / 2)), [0, 0.2 * width, 0]);
  m.triangle(material, foot, tip, edge(-1));
  m.triangle(material, foot, edge(1), tip);
}

function pot(m: MeshBuilder, radius: number, height: number): void {
  m.turned(
    'pot',
    [0, 0, 0],
    [
      [0, 0],
      [radius * 0.72, 0],
      [radius * 0.75, height * 0.02],
      [radius, height * 0.98],
      [radius, height],
      [radius * 0.93, height],
      [radius * 0.9, height * 0.86],
      [0, height * 0.86]
    ],
    64
  );
  m.turned(
    'soil',
    [0, 0, 0],
    [
      [radius * 0.905, height * 0.88],
      [radius * 0.5, height * 0.895],
      [0, height * 0.9]
    ],
    48
  );
}

export function pottedPlant(): Piece {
  const m = new MeshBuilder(81);
  pot(m, 0.11, 0.17);
  for (let i = 0; i < 26; i++) {
    const a = i * 2.4;
    const tall = 0.1 + 0.26 * m.random() * (1 - i / 60);
    const lean = 0.05 + 0.12 * m.random();
    const foot: Vec3 = [0.03 * Math.cos(a), 0.15, 0.03 * Math.sin(a)];
    const top: Vec3 = [(0.03 + lean) * Math.cos(a), 0.16 + tall, (0.03 + lean) * Math.sin(a)];
    m.rod('stem', foot, top, 0.0026, 0.0016, 8);
    leaf(
      m,
      'broad leaf',
      top,
      [Math.cos(a), 0.35 + 0.3 * m.random(), Math.sin(a)],
      0.13 + 0.05 * m.random(),
      0.085 + 0.03 * m.random(),
      0.5 + 0.3 * m.random()
    );
  }
  return {
    mesh: m,
    materials: {
      pot: POT,
      soil: SOIL,
      stem: { color: [0.1, 0.16, 0.05], roughness: 0.6 },
      'broad leaf': leafMaterial([0.05, 0.14, 0.035], [0.18, 0.4, 0.05])
    }
  };
}

export function tallPlant(): Piece {
  const m = new MeshBuilder(82);
  pot(m, 0.17, 0.32);
  for (const [x, z, tall] of [
    [-0.03, 0.01, 1.25],
    [0.04, -0.03, 0.95],
    [0.01, 0.05, 0.7]
  ] as const) {
    const lean: Vec3 = [x * 1.6, tall, z * 1.6];
    const foot: Vec3 = [x, 0.28, z];
    m.rod('cane', foot, add(foot, scale(lean, 0.75)), 0.011, 0.008, 14);
    for (let i = 0; i < 34; i++) {
      const t = 0.35 + (0.65 * i) / 34;
      const a = i * 2.39996;
      const out: Vec3 = [Math.cos(a), 0.35 + 0.9 * t * m.random(), Math.sin(a)];
      leaf(
        m,
        'long leaf',
        add(foot, scale(lean, 0.75 * t)),
        out,
        (0.34 + 0.16 * m.random()) * (1.1 - 0.4 * t),
        0.045 + 0.015 * m.random(),
        0.75 + 0.3 * m.random()
      );
    }
  }
  return {
    mesh: m,
    materials: {
      pot: POT,
      soil: SOIL,
      cane: { color: [0.2, 0.17, 0.11], roughness: 0.8 },
      'long leaf': leafMaterial([0.06, 0.15, 0.045], [0.2, 0.4, 0.06])
    }
  };
}

export interface Tree {
  seed: number;
  height: number;
  trunk: number;
  /** Of the crown: where it begins, and its half width, in heights of the tree. */
  clear: number;
  spread: number;
  leaf: number;
  boughs: number;
  /** Branches of a bough, twigs of a branch, leaves of a twig. */
  forks?: readonly [number, number, number];
  color: Vec3;
  /** What light keeps on its way through a leaf. */
  through?: Vec3;
  /** To be seen from some way off: leaves of two triangles, and no wood in the twigs. */
  far?: boolean;
}

const FORKS = [9, 6, 11] as const;

export const broadleafTree = (): Piece =>
  tree({
    seed: 83,
    height: 8,
    trunk: 0.17,
    clear: 0.24,
    spread: 0.36,
    leaf: 0.13,
    boughs: 27,
    color: [0.07, 0.14, 0.035]
  });
export const youngTree = (): Piece =>
  tree({
    seed: 84,
    height: 4,
    trunk: 0.05,
    clear: 0.38,
    spread: 0.26,
    leaf: 0.075,
    boughs: 19,
    color: [0.09, 0.17, 0.04]
  });

export function tree({ seed, height, trunk, clear, spread, leaf, boughs, color, ...more }: Tree): Piece {
  const { forks = FORKS, through = [0.24, 0.42, 0.06], far = false } = more;
  const m = new MeshBuilder(seed);
  const sway = (t: number): Vec3 => [
    0.025 * height * Math.sin(2.1 * t + seed),
    height * t,
    0.02 * height * Math.sin(2.9 * t)
  ];
  const steps = 8;
  for (let i = 0; i < steps; i++)
    m.rod(
      'bark',
      sway((0.93 * i) / steps),
      sway((0.93 * (i + 1)) / steps),
      trunk * (1 - (0.93 * i) / steps) + 0.006,
      trunk * (1 - (0.93 * (i + 1)) / steps) + 0.006,
      12
    );
  for (let i = 0; i < boughs; i++) {
    const t = clear + (0.93 - clear) * (i / (boughs - 1)) ** 0.9;
    const a = i * 2.39996 + 0.5 * m.random();
    // an egg: widest a third up
    const v = (t - clear) / (1 - clear);
    const reach =
      spread * height * Math.sin(Math.PI * (0.16 + 0.8 * v) ** 0.72) * (0.75 + 0.35 * m.random()) + 0.03 * height;
    const out = normalize([Math.cos(a), 0.32 + 0.75 * v, Math.sin(a)]);
    bough(m, sway(t), out, reach, trunk * (1 - t) * 0.55 + 0.004, { leaf, forks, far }, 0);
  }
  return { mesh: m, materials: { bark: BARK, foliage: leafMaterial(color, through) } };
}

type Growth = Required<Pick<Tree, 'leaf' | 'forks' | 'far'>>;

function bough(m: MeshBuilder, foot: Vec3, way: Vec3, reach: number, thick: number, like: Growth, depth: number): void {
  const side = normalize(cross(UP, way));
  const bent = normalize(add(way, add(scale(side, 0.35 * (m.random() - 0.5)), [0, 0.12, 0])));
  const middle = add(foot, scale(way, reach * 0.5));
  const tip = add(middle, scale(bent, reach * 0.5));
  if (depth < 2 || !like.far) {
    m.rod('bark', foot, middle, thick, thick * 0.7, depth === 0 ? 8 : 5);
    m.rod('bark', middle, tip, thick * 0.7, thick * 0.35, depth === 0 ? 8 : 5);
  }
  if (depth === 2) {
    twig(m, foot, tip, like);
    return;
  }
  const forks = like.forks[depth === 0 ? 0 : 1];
  for (let i = 0; i < forks; i++) {
    const t = (depth === 0 ? 0.22 : 0.15) + ((depth === 0 ? 0.78 : 0.85) * (i + 0.5)) / forks;
    const from = t < 0.5 ? mix(foot, middle, t * 2) : mix(middle, tip, t * 2 - 1);
    const a = (i % 2 ? 1 : -1) * (0.5 + 0.5 * m.random());
    const lift = 1.1 * (m.random() - 0.4);
    const out = normalize(add(add(scale(bent, 0.8), scale(side, a)), [0, lift, 0]));
    bough(m, from, out, reach * (0.66 - 0.32 * t) * (0.75 + 0.5 * m.random()), thick * 0.45, like, depth + 1);
  }
}

function twig(m: MeshBuilder, foot: Vec3, tip: Vec3, { leaf: size, forks: [, , leaves], far }: Growth): void {
  for (let i = 0; i < leaves; i++) {
    const at = mix(foot, tip, 0.25 + (0.75 * i) / (leaves - 1));
    const a = m.random() * 2 * Math.PI;
    const out: Vec3 = [Math.cos(a), 0.5 * (m.random() - 0.4), Math.sin(a)];
    const long = size * (0.8 + 0.6 * m.random());
    if (far) farLeaf(m, 'foliage', at, out, long, size * 0.8);
    else leaf(m, 'foliage', at, out, long, size * 0.72, 0.3 + 0.4 * m.random());
  }
}

const HEDGE: Vec3 = [1, 1.2, 0.3];

/** A clipped hedge, 2 m long: leaves close under its faces, and a dark core that nothing is seen through. */
export function hedge(): Piece {
  const m = new MeshBuilder(85);
  const [x, y, z] = HEDGE;
  m.box('inner twigs', [-x + 0.07, 0.05, -z + 0.07], [x - 0.07, y - 0.07, z - 0.07], 0.02);
  const within = (h: number) => h * (2 * m.random() - 1);
  const faces: readonly { count: number; at: () => Vec3; out: Vec3 }[] = [
    ...[-1, 1].map((s) => ({
      count: 2600,
      at: (): Vec3 => [within(x), 0.04 + (y - 0.04) * m.random(), s * z],
      out: [0, 0.3, s] as Vec3
    })),
    ...[-1, 1].map((s) => ({
      count: 800,
      at: (): Vec3 => [s * x, 0.04 + (y - 0.04) * m.random(), within(z)],
      out: [s, 0.3, 0] as Vec3
    })),
    { count: 1400, at: (): Vec3 => [within(x), y, within(z)], out: [0, 1, 0] }
  ];
  for (const { count, at, out } of faces)
    for (let i = 0; i < count; i++) {
      const deep = -0.09 * m.random() ** 2;
      const spread = (): number => 1.4 * (m.random() - 0.5);
      const along = normalize(add(out, [spread(), spread(), spread()]));
      leaf(m, 'hedge leaf', add(at(), scale(out, deep)), along, 0.035 + 0.015 * m.random(), 0.022, 0.3);
    }
  return {
    mesh: m,
    materials: {
      'inner twigs': { color: [0.03, 0.035, 0.018], roughness: 1 },
      'hedge leaf': leafMaterial([0.045, 0.1, 0.025], [0.16, 0.32, 0.05])
    }
  };
}

/** A round patch, 1.2 m across, thinner towards its rim so that patches join. */
export function grassPatch(): Piece {
  const m = new MeshBuilder(86);
  for (let i = 0; i < 5200; i++) {
    const r = 0.6 * Math.sqrt(m.random()) * (0.75 + 0.25 * m.random());
    const a = 2 * Math.PI * m.random();
    const b = 2 * Math.PI * m.random();
    const tall = 0.1 + 0.2 * m.random() ** 2;
    const foot: Vec3 = [r * Math.cos(a), 0, r * Math.sin(a)];
    const lean: Vec3 = [Math.cos(b) * tall * 0.5, 0, Math.sin(b) * tall * 0.5];
    const side: Vec3 = [-Math.sin(b) * 0.0022, 0, Math.cos(b) * 0.0022];
    const half = add(add(foot, scale(lean, 0.3)), [0, tall * 0.62, 0]);
    const tip = add(add(foot, lean), [0, tall, 0]);
    const material = m.random() < 0.22 ? 'dry grass' : 'grass';
    m.triangle(material, add(foot, side), add(half, scale(side, 0.7)), add(foot, scale(side, -1)));
    m.triangle(material, add(foot, scale(side, -1)), add(half, scale(side, 0.7)), add(half, scale(side, -0.7)));
    m.triangle(material, add(half, scale(side, 0.7)), tip, add(half, scale(side, -0.7)));
  }
  return {
    mesh: m,
    materials: {
      grass: leafMaterial([0.085, 0.16, 0.035], [0.25, 0.42, 0.07]),
      'dry grass': leafMaterial([0.26, 0.23, 0.1], [0.4, 0.36, 0.14])
    }
  };
}
