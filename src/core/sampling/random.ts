/**
 * A small seeded generator for tests, generators of demo data and the reference integrator: PCG32 (O'Neill 2014).
 * Not used by the kernel, whose numbers are a function of pixel, sample and dimension.
 */
export type Random = () => number;

export function createRandom(seed: number): Random {
  let state = BigInt(seed) * 2n + 1n;
  const step = () => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & 0xffffffffffffffffn;
    const shifted = Number(((state >> 18n) ^ state) >> 27n) >>> 0;
    const turn = Number(state >> 59n);
    return ((shifted >>> turn) | (shifted << (-turn & 31))) >>> 0;
  };
  step();
  return () => step() / 4294967296;
}
