/**
 * Draws an index with a given probability in constant time.
 * Source: Walker 1977; built as by Vose 1991, A Linear Algorithm for Generating Random Numbers with a Given
 * Distribution. Cost: O(n) to build, 8 bytes an entry. When all weights are zero, every index is equally likely.
 */
export interface AliasTable {
  /** Probability of each index; sums to 1. */
  probability: Float32Array;
  /** Of the unit interval of entry i, the part below this is i itself, the rest alias[i]. */
  threshold: Float32Array;
  alias: Uint32Array;
}

export function buildAliasTable(weights: ArrayLike<number>): AliasTable {
  const n = weights.length;
  let sum = 0;
  for (let i = 0; i < n; i++) sum += weights[i]!;
  const probability = new Float32Array(n);
  const threshold = new Float32Array(n).fill(1);
  const alias = new Uint32Array(n);
  const scaled = new Float64Array(n);
  const small: number[] = [];
  const large: number[] = [];
  for (let i = 0; i < n; i++) {
    const p = sum > 0 ? weights[i]! / sum : 1 / n;
    probability[i] = p;
    alias[i] = i;
    scaled[i] = p * n;
    (scaled[i]! < 1 ? small : large).push(i);
  }
  while (small.length > 0 && large.length > 0) {
    const s = small.pop()!;
    const l = large[large.length - 1]!;
    threshold[s] = scaled[s]!;
    alias[s] = l;
    scaled[l] = scaled[l]! + scaled[s]! - 1;
    if (scaled[l]! < 1) {
      large.pop();
      small.push(l);
    }
  }
  return { probability, threshold, alias };
}
