/** The spruces about the hut: three drawn 1 m tall, needle by needle's fan, and placed at many heights and turns. */
import { add, scale, type Vec3 } from '../../core/math/vec3';
import { MeshBuilder } from '../../drawing/mesh-builder';
import type { DrawnModel } from '../../drawing/write-model';
import { ground } from './hill';

const WHORLS = 24;
const ARMS = 9;
const TWIGS = 9;

export function spruces({ random }: MeshBuilder): NonNullable<DrawnModel['copies']> {
  const groves = [0, 1, 2].map((i) => ({
    name: `Spruce ${'ABC'[i]}`,
    mesh: spruce(41 + i),
    places: [] as { at: Vec3; turnDeg: number; scale: number }[]
  }));
  const plant = (x: number, z: number, tall: number) =>
    groves[Math.floor(random() * 3)]!.places.push({
      at: [x, ground(x, z) - 0.1, z],
      turnDeg: 360 * random(),
      scale: tall
    });
  for (let i = 0; i < 64; i++) plant(-36 + random() * 28, 22 + random() * 26, 3.4 + 4.4 * random());
  for (let i = 0; i < 26; i++) plant(10 + random() * 20, 20 + random() * 20, 3 + 3.6 * random());
  return groves;
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
