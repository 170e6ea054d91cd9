/** The meadow before the hut: blades, flowers and the flagstones of the path. Metres. */
import { cross, normalize, type Vec3 } from '../../core/math/vec3';
import type { MeshBuilder } from '../../drawing/mesh-builder';
import { field } from '../../drawing/noise';
import { SOLIDS } from '../../drawing/textures/solids';
import type { DrawnMaterial } from '../../drawing/write-model';
import { ground } from './hill';

const BLADES = 165_000;
const FLOWERS = 1100;
const FLAGSTONES = 21;

const blade = (color: Vec3, through: Vec3): DrawnMaterial => ({
  color,
  roughness: 0.9,
  through: { weight: 0.3, color: through }
});
const petal = (color: Vec3): DrawnMaterial => ({ color, roughness: 0.8, through: { weight: 0.3, color } });

export const MEADOW_MATERIALS: Record<string, DrawnMaterial> = {
  'grass, green': blade([0.13, 0.165, 0.045], [0.26, 0.33, 0.07]),
  'grass, pale': blade([0.22, 0.225, 0.085], [0.36, 0.36, 0.12]),
  'grass, dark': blade([0.085, 0.125, 0.035], [0.18, 0.26, 0.05]),
  'grass, straw': blade([0.36, 0.3, 0.14], [0.5, 0.4, 0.18]),
  'petals, white': petal([0.7, 0.68, 0.6]),
  'petals, violet': petal([0.26, 0.16, 0.42]),
  flagstone: { solid: SOLIDS.poured, color: [0.72, 0.68, 0.62], roughness: 0.9 }
};

/** Middle of the flagstone `t`, and how wide it is. */
function flagstone(t: number): { x: number; z: number; half: number } {
  return { x: 1.36 - 0.19 * t + 0.42 * Math.sin(t * 0.55), z: 6.25 - 0.72 * t, half: 0.36 + 0.07 * Math.sin(t * 2.3) };
}

/** How near the path is: 1 on it, 0 a pace beside it. */
function nearPath(x: number, z: number): number {
  const t = (6.25 - z) / 0.72;
  if (t < -1 || t > FLAGSTONES + 1) return 0;
  const away = Math.abs(x - flagstone(t).x);
  return Math.min(1, Math.max(0, (0.95 - away) / 0.6));
}

const underHut = (x: number, z: number): boolean => x > -2.1 && x < 6.3 && z > 6.6 && z < 12.8;

export function grass(m: MeshBuilder): void {
  const { random } = m;
  const kinds = ['grass, green', 'grass, pale', 'grass, dark', 'grass, straw'] as const;
  for (let i = 0; i < BLADES; i++) {
    const z = -7.5 + random() ** 1.7 * 33;
    const x = (random() - 0.5) * (11 + (z + 8.5) * 1.5);
    if (underHut(x, z)) continue;
    const worn = nearPath(x, z);
    if (random() < worn * 0.9) continue;
    const y = ground(x, z);
    const tall = (0.12 + 0.24 * random()) * (0.5 + 0.95 * field(x * 0.4, z * 0.4, 8)) * (1 - 0.65 * worn);
    const a = random() * 2 * Math.PI;
    const w = (0.004 + 0.004 * random()) * (1 + Math.max(0, z) * 0.05);
    const side: Vec3 = [Math.cos(a) * w, 0, Math.sin(a) * w];
    const tip: Vec3 = [x + (random() - 0.3) * 0.16, y + tall, z + (random() - 0.5) * 0.16];
    const patch = field(x * 0.46, z * 0.46, 4) + 0.35 * random();
    const kind = kinds[patch > 0.86 ? 3 : random() < 0.3 ? 1 : random() < 0.5 ? 2 : 0]!;
    const part = m.part(kind);
    // lit as a meadow, not as blades of tin: normals lean up
    const n = normalize([-Math.sin(a) * 0.6, 0.9, Math.cos(a) * 0.6]);
    const first = m.vertex(part, [x - side[0], y - 0.02, z - side[2]], n, 0, 0);
    m.vertex(part, [x + side[0], y - 0.02, z + side[2]], n, 0, 0);
    m.vertex(part, tip, n, 0, 0);
    const flat = cross([2 * side[0], 0, 2 * side[2]], [tip[0] - x + side[0], tall + 0.02, tip[2] - z + side[2]]);
    if (flat[0] * n[0] + flat[1] * n[1] + flat[2] * n[2] > 0) part.indices.push(first, first + 1, first + 2);
    else part.indices.push(first, first + 2, first + 1);
  }
}

/** Umbels on thin stems, in drifts. */
export function flowers(m: MeshBuilder): void {
  const { random } = m;
  for (let i = 0; i < FLOWERS; i++) {
    const z = -5.6 + random() ** 1.4 * 20;
    const x = (random() - 0.5) * (9 + (z + 7) * 1.3);
    if (underHut(x, z) || nearPath(x, z) > 0.2 || field(x * 0.5, z * 0.5, 21) < 0.5) continue;
    const y = ground(x, z);
    const top: Vec3 = [x + 0.08 * (random() - 0.5), y + 0.22 + 0.2 * random(), z + 0.08 * (random() - 0.5)];
    m.rod('grass, dark', [x, y - 0.01, z], top, 0.0022, 0.0016, 5);
    const petals = field(x * 0.3, z * 0.3, 33) > 0.52 ? 'petals, white' : 'petals, violet';
    const heads = petals === 'petals, white' ? 9 : 5;
    for (let k = 0; k < heads; k++) {
      const a = k * 2.4;
      const r = 0.011 * Math.sqrt(k);
      const at: Vec3 = [top[0] + r * Math.cos(a), top[1] - 0.6 * r * random(), top[2] + r * Math.sin(a)];
      m.sphere(petals, at, 0.0085 + 0.003 * random(), 4, 6);
    }
  }
}

/** Stones of seven uneven corners, sunk into the ground, their edges worn. */
export function path(m: MeshBuilder): void {
  const { random } = m;
  for (let t = 0; t < FLAGSTONES; t++) {
    const { x, z, half } = flagstone(t);
    const corners = 22;
    const reach = Array.from({ length: 7 }, () => 0.8 + 0.32 * random());
    const turn = random() * 7;
    const rim = (i: number): number => {
      const s = ((i / corners) * 7 + turn) % 7;
      const k = Math.floor(s);
      return reach[k]! + (reach[(k + 1) % 7]! - reach[k]!) * (s - k);
    };
    const tilt = 0.02 * (random() - 0.5);
    const at = (i: number, inset: number, high: number): Vec3 => {
      const a = (2 * Math.PI * i) / corners;
      const r = rim(i % corners) - inset;
      const p: [number, number] = [x + half * r * Math.cos(a) * 1.12, z + half * r * Math.sin(a) * 0.82];
      return [p[0], ground(x, z) + high + tilt * (p[0] - x), p[1]];
    };
    const middle: Vec3 = [x, ground(x, z) + 0.05, z];
    for (let i = 0; i < corners; i++) {
      m.triangle('flagstone', middle, at(i + 1, 0.06, 0.05), at(i, 0.06, 0.05));
      m.quad('flagstone', at(i, 0.06, 0.05), at(i + 1, 0.06, 0.05), at(i + 1, 0, 0.022), at(i, 0, 0.022));
      m.quad('flagstone', at(i, 0, 0.022), at(i + 1, 0, 0.022), at(i + 1, 0, -0.12), at(i, 0, -0.12));
    }
  }
}
