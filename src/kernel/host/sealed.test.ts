import { expect, it } from 'vitest';
import { kernelModule, makeScene, matte, type Piece, quad, sphere } from '../../../tests/support/scenes';
import type { Vec3 } from '../../core/math/vec3';
import { openScene } from './kernel';
import { compileScene } from './rig';

const BATCH = 1_000_000;
const BATCHES = 50;
/** Half the side of the cube that rays begin in. */
const START = 0.3;
const MIDDLE: Vec3 = [3.1, -7.3, 11.7];

/** A box of unequal sides, turned about two axes and away from the origin, so that no corner is a round number. */
function turnedBox(): Piece[] {
  const [ca, sa, cb, sb] = [Math.cos(0.7), Math.sin(0.7), Math.cos(0.31), Math.sin(0.31)];
  const corner = (i: number): Vec3 => {
    const [x, y, z] = [i & 1 ? 1.3 : -1.3, i & 2 ? 0.9 : -0.9, i & 4 ? 0.6 : -0.6] as const;
    const [u, w] = [ca * x + sa * z, ca * z - sa * x];
    return [MIDDLE[0] + cb * u - sb * y, MIDDLE[1] + sb * u + cb * y, MIDDLE[2] + w];
  };
  return (
    [
      [0, 4, 6, 2],
      [1, 3, 7, 5],
      [0, 1, 5, 4],
      [2, 6, 7, 3],
      [0, 2, 3, 1],
      [4, 5, 7, 6]
    ] as const
  ).map(([a, b, c, d]) => quad(corner(a), corner(b), corner(c), corner(d), matte(1)));
}

/** Xorshift (Marsaglia 2003): a hundred million rays want eight numbers each. */
let state = 88_172_645;
function random(): number {
  state ^= state << 13;
  state ^= state >>> 17;
  state ^= state << 5;
  return (state >>> 0) / 4294967296;
}

/** Rays from within that meet nothing, of BATCH times `batches`; every other one is aimed at a point of an edge. */
function escaped(pieces: Piece[], batches = BATCHES): number {
  const scene = makeScene(pieces);
  const { positions, indices } = scene.geometry;
  const { kernel, memory, at } = openScene(compileScene(scene, kernelModule), kernelModule, BATCH * 40);
  const rays = new Float32Array(memory.buffer, at, BATCH * 8);
  const hits = new Int32Array(memory.buffer, at + BATCH * 32, BATCH * 2);
  let out = 0;
  for (let batch = 0; batch < batches; batch++) {
    for (let i = 0; i < BATCH; i++) {
      const o = i * 8;
      for (let k = 0; k < 3; k++) rays[o + k] = MIDDLE[k]! + START * (2 * random() - 1);
      let [x, y, z] = [random() - 0.5, random() - 0.5, random() - 0.5];
      if (i & 1) {
        const edge = Math.floor(random() * indices.length);
        const [a, b] = [indices[edge]! * 3, indices[edge - (edge % 3) + ((edge + 1) % 3)]! * 3];
        const t = random();
        x = positions[a]! + t * (positions[b]! - positions[a]!) - rays[o]!;
        y = positions[a + 1]! + t * (positions[b + 1]! - positions[a + 1]!) - rays[o + 1]!;
        z = positions[a + 2]! + t * (positions[b + 2]! - positions[a + 2]!) - rays[o + 2]!;
      }
      const size = Math.sqrt(x * x + y * y + z * z);
      rays[o + 4] = x / size;
      rays[o + 5] = y / size;
      rays[o + 6] = z / size;
      rays[o + 7] = Number.POSITIVE_INFINITY;
    }
    kernel.intersectMany(at, BATCH, at + BATCH * 32);
    for (let i = 0; i < BATCH; i++) if (hits[i * 2 + 1]! < 0) out++;
  }
  return out;
}

// Woop, Benthin and Wald, Watertight Ray/Triangle Intersection, JCGT 2(1), 2013: what a closed mesh promises; a hundred
// million rays in all
it('no ray leaves a closed box', () => expect(escaped(turnedBox())).toBe(0), 300_000);
it(
  'no ray leaves a closed sphere of 4,416 triangles',
  () => expect(escaped([sphere(MIDDLE, 1.5, matte(1), true, 47, 48)])).toBe(0),
  300_000
);
it('an opening is found: without one of its sides rays leave the box', () =>
  expect(escaped(turnedBox().slice(1), 1)).toBeGreaterThan(BATCH / 20));
