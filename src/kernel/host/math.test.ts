/** The kernel's own functions against the host's double precision: the errors that math.ts states. */
import { expect, it } from 'vitest';
import { kernelModule } from '../../../tests/support/scenes';
import { createRandom } from '../../core/sampling/random';
import { PACK } from '../assembly/layout';
import { createMemory, instantiate } from './kernel';

const memory = createMemory(PACK + (1 << 16));
const kernel = instantiate(kernelModule, memory, 0);
const random = createRandom(3);
function at(x: number, y: number) {
  kernel.probeMath(x, y, PACK);
  const [sine, cosine, angle, log2, exp] = new Float32Array(memory.buffer, PACK, 5);
  return { sine: sine!, cosine: cosine!, angle: angle!, log2: log2!, exp: exp! };
}
/**
 * Numbers between the ends and those at which a quarter, an octant or an octave begins, as single precision has them.
 */
const over = (from: number, to: number, special: number[]) =>
  [...special, ...Array.from({ length: 20_000 }, () => from + (to - from) * random())].map(Math.fround);

it('sine and cosine of turns to 3e-7, in every quarter and at its ends', () => {
  for (const x of over(
    -2,
    2,
    [-1, -0.75, -0.5, -0.25, -0.125, 0, 0.125, 0.25, 0.375, 0.5, 0.625, 0.75, 0.875, 1, 1.5]
  )) {
    const { sine, cosine } = at(x, 0);
    expect(Math.abs(sine - Math.sin(2 * Math.PI * x))).toBeLessThan(3e-7);
    expect(Math.abs(cosine - Math.cos(2 * Math.PI * x))).toBeLessThan(3e-7);
  }
});

it('the angle of a direction to 3e-7, in every octant, on the axes, and none of a point', () => {
  const around = over(
    0,
    2 * Math.PI,
    Array.from({ length: 16 }, (_, k) => (k * Math.PI) / 8)
  );
  const points = [
    ...around.map((a) => [Math.fround(Math.cos(a)), Math.fround(Math.sin(a))]),
    [1, 0],
    [0, 1],
    [-1, 0],
    [0, -1],
    [1, 1],
    [-1, 1],
    [1e-20, 1],
    [-1, 1e-20],
    [3e4, 2e-4]
  ];
  for (const [x, y] of points) {
    const off = Math.abs(at(x!, y!).angle - Math.atan2(y!, x!));
    expect(Math.min(off, 2 * Math.PI - off)).toBeLessThan(3e-7);
  }
  expect(at(0, 0).angle).toBe(0);
});

it('the logarithm to 1e-6 over all normal numbers, e^x to 3e-7 of its value and the rounding of x', () => {
  for (const e of over(-126, 127.9, [-126, -1, -0.5, 0, 0.5, 1, 10])) {
    const x = Math.fround(2 ** e);
    expect(Math.abs(at(x, 0).log2 - Math.log2(x))).toBeLessThan(1e-6 + Math.abs(e) * 2 ** -24);
  }
  for (const x of over(-87, 88, [-87, -1, 0, 1, 88]))
    expect(Math.abs(at(x, 0).exp / Math.exp(x) - 1)).toBeLessThan(3e-7 + Math.abs(x) * 2 ** -23);
});
