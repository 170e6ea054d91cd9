/** Things in use, for the room and the lamp: an open book, glasses, a pencil, cloth with folds. Metres. */
import { add, type Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import { printedPage } from '../../drawing/textures/surfaces';
import type { DrawnMaterial } from '../../drawing/write-model';

const PAGE_M = [0.15, 0.2] as const;
const PAGES_M = 0.011;

export const THING_MATERIALS: Record<string, DrawnMaterial> = {
  'page, left': { texture: printedPage(3, true), span: PAGE_M, roughness: 0.9 },
  'page, right': { texture: printedPage(8, false), span: PAGE_M, roughness: 0.9 },
  'page edges': { color: [0.7, 0.65, 0.54], roughness: 0.95 },
  'book cloth, indigo': {
    color: [0.05, 0.075, 0.16],
    roughness: 0.8,
    sheen: { color: [0.1, 0.14, 0.26], roughness: 0.5 }
  },
  'spectacle wire': { color: [0.58, 0.48, 0.34], metallic: 1, roughness: 0.2 },
  'spectacle glass': { transmission: 1, roughness: 0, ior: 1.5 },
  'pencil, lacquered': { color: [0.36, 0.07, 0.04], roughness: 0.6, coat: { weight: 1, roughness: 0.1 } },
  'pencil wood': { color: [0.55, 0.36, 0.2], roughness: 0.8 }
};

/** Lies open, its spine along z; the top of the left page is at +z. */
export function openBook(): MeshBuilder {
  const m = new MeshBuilder(1);
  const [wide, tall] = PAGE_M;
  const [x, z] = [wide + 0.004, tall / 2 + 0.004];
  m.box('book cloth, indigo', [-x, 0, -z], [x, 0.0032, z], 0.001);
  // leaves rise from the gutter, lie, and fall towards their edge
  const rise = (t: number) => 0.0035 + PAGES_M * (1 - (1 - Math.min(1, t / 0.32)) ** 3) * (1 - 0.35 * t ** 3);
  for (const side of [-1, 1]) {
    const page = side < 0 ? 'page, left' : 'page, right';
    const at = (t: number, v: number): Vec3 => [side * wide * t, rise(t), tall * (0.5 - v)];
    m.sheet(page, 24, 2, (u, v) => at(Math.min(1, Math.max(0, side < 0 ? 1 - u : u)), v), PAGE_M);
    const wall = (from: (t: number) => Vec3) =>
      m.sheet('page edges', 24, 1, (u, v) => {
        const p = from(Math.min(1, Math.max(0, u)));
        return [p[0], 0.0032 + (p[1] - 0.0032) * (side < 0 ? v : 1 - v), p[2]];
      });
    wall((u) => at(u, 1));
    wall((u) => at(1 - u, 0));
    wall((u) => at(1, 1 - u));
  }
  return m;
}

/** Lie with their temples folded out, front along x. */
export function glasses(): MeshBuilder {
  const m = new MeshBuilder(2);
  const up = 0.018;
  for (const side of [-1, 1]) {
    const middle: Vec3 = [side * 0.034, up, 0];
    m.ring('spectacle wire', middle, [0, 0.25, 1], 0.023, 0.0011, 64, 10);
    m.turnedAlong('spectacle glass', add(middle, [0, 0, -0.0008]), [0, 0.2425, 0.9701], DISC, 48);
    const hinge: Vec3 = [side * 0.058, up + 0.004, 0];
    m.rod('spectacle wire', hinge, [side * 0.061, 0.012, 0.09], 0.001, 0.001, 10);
    m.rod('spectacle wire', [side * 0.061, 0.012, 0.09], [side * 0.058, 0.001, 0.13], 0.0013, 0.0016, 10);
  }
  m.rod('spectacle wire', [-0.0115, up + 0.005, 0], [0.0115, up + 0.005, 0], 0.0011, 0.0011, 10);
  return m;
}
const DISC = [
  [0, 0],
  [0.0222, 0],
  [0.0222, 0],
  [0.0222, 0.0016],
  [0.0222, 0.0016],
  [0, 0.0016]
] as const;

/** Lies along x, its point at +x. */
export function pencil(): MeshBuilder {
  const m = new MeshBuilder(3);
  const y = 0.0036;
  m.rod('pencil, lacquered', [-0.08, y, 0], [0.07, y, 0], 0.0036, 0.0036, 6);
  m.rod('pencil wood', [0.07, y, 0], [0.086, y, 0], 0.0034, 0.0008, 16);
  m.rod('page edges', [0.086, y, 0], [0.09, y, 0], 0.0009, 0.0002, 8);
  return m;
}

/** A curtain hung from its top edge, gathered in `folds`; along z, `wide` m, from y 0 up to `tall` m. */
export function curtain(material: string, wide: number, tall: number, folds: number): MeshBuilder {
  const m = new MeshBuilder(4);
  m.sheet(
    material,
    folds * 16,
    24,
    (u, v) => {
      const deep = 0.03 + 0.022 * v;
      const wander = 0.55 * Math.sin(3.1 * v + 5 * u) * v;
      const a = 2 * Math.PI * folds * u + wander;
      return [
        deep * (Math.sin(a) + 0.25 * Math.sin(2.3 * a + 1.3)),
        tall * (1 - v),
        wide * (u + 0.012 * Math.sin(2 * a))
      ];
    },
    [2.2 * wide, tall]
  );
  return m;
}

/** A throw over the front edge of a seat: `wide` along x, `back` m of it lie, `down` m hang; the edge is at the origin. */
export function throwCloth(material: string, wide: number, back: number, down: number): MeshBuilder {
  const m = new MeshBuilder(5);
  const edge = 0.035;
  const arc = (edge * Math.PI) / 2;
  const whole = back + arc + down;
  m.sheet(
    material,
    96,
    64,
    (u, v) => {
      const s = v * whole;
      const x = wide * (u - 0.5);
      const k = x * 21;
      const wave = Math.sin(k + 0.8 * Math.sin(v * 4)) + 0.5 * Math.sin(2.2 * k + 2.4 * v + 1);
      const skew = 0.05 * x;
      if (s < back) {
        const lift = 0.004 + 0.009 * (0.5 + 0.5 * wave) * (0.35 + (0.65 * s) / back);
        return [x * (1 - 0.04 * v), lift, back - s + edge + skew];
      }
      const a = Math.min(1, (s - back) / arc) * (Math.PI / 2);
      const hang = Math.max(0, s - back - arc);
      const swell = 0.013 + (0.026 * hang) / down;
      const out = 0.006 + swell * (0.5 + 0.5 * wave);
      const y = edge * Math.cos(a) - edge - hang;
      return [x * (1 - 0.05 * v), y + out * Math.cos(a), edge - edge * Math.sin(a) - out * Math.sin(a) + skew];
    },
    [wide, whole]
  );
  return m;
}
