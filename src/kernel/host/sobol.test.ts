import { expect, it } from 'vitest';
import { kernelModule } from '../../../tests/support/scenes';
import { PACK } from '../assembly/layout';
import { createMemory, instantiate } from './kernel';

const memory = createMemory(PACK + (1 << 20));
const kernel = instantiate(kernelModule, memory, 0);
const points = (x: number, pair: number, n: number) => {
  kernel.probePoints(x, 3, pair, n, 1, PACK);
  return Float32Array.from(new Float32Array(memory.buffer, PACK, n * 2));
};

it('any aligned run of 2^k points falls one into each elementary interval (a (0,2)-sequence, Owen 1995)', () => {
  for (const [x, pair] of [
    [0, 0],
    [17, 4],
    [400, 9]
  ] as const) {
    const p = points(x, pair, 256);
    for (let bits = 0; bits <= 8; bits++) {
      const cells = new Set<number>();
      for (let i = 0; i < 256; i++)
        cells.add(Math.floor(p[i * 2]! * 2 ** bits) * 2 ** (8 - bits) + Math.floor(p[i * 2 + 1]! * 2 ** (8 - bits)));
      expect(cells.size).toBe(256);
    }
  }
});

it('the error on a smooth integrand falls faster than n^-0.7, as scrambled nets do (Owen 1997)', () => {
  const error = (n: number) => {
    let square = 0;
    for (let x = 0; x < 64; x++) {
      const p = points(x, 5, n);
      let sum = 0;
      for (let i = 0; i < n; i++) sum += Math.exp(-p[i * 2]!) * Math.sin(3 * p[i * 2 + 1]!);
      square += (sum / n - (1 - Math.exp(-1)) * ((1 - Math.cos(3)) / 3)) ** 2 / 64;
    }
    return Math.sqrt(square);
  };
  const slope = Math.log(error(1024) / error(16)) / Math.log(1024 / 16);
  expect(slope).toBeLessThan(-0.7);
});

it('four pairs drawn at once are the points of each', () => {
  for (const [x, first, seed] of [
    [0, 0, 1],
    [17, 4, 1],
    [400, 12, 7],
    [1919, 4093, 0xffffffff]
  ] as const) {
    for (const sample of [0, 2, 34, 65_534]) {
      kernel.probeFour(x, 3, first, sample, seed, PACK);
      const four = Float32Array.from(new Float32Array(memory.buffer, PACK, 8));
      for (let lane = 0; lane < 4; lane++) {
        kernel.probePoints(x, 3, first + lane, sample / 2 + 1, seed, PACK);
        expect([four[lane], four[4 + lane]]).toEqual([...new Float32Array(memory.buffer, PACK + sample * 4, 2)]);
      }
    }
  }
});
