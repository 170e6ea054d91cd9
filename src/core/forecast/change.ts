/**
 * How much two renders of the same patches differ, their grain taken out. Each pixel has two halves with independent
 * random numbers: the product of what the halves differ by has the squared difference as its mean, whatever grain is in
 * them, while a plain difference would count grain as change. Limit: lightness of half as many samples is a little too
 * low where there is grain; alike in both, so it cancels.
 */
import { CHANNELS, EVEN, halves, ODD, type TileRect } from '../film/film';
import { displayedLightness } from '../quality/grain';

/** L* of both halves of all pixels, patch after patch. */
export interface Lightnesses {
  even: Float64Array;
  odd: Float64Array;
}

/** `films`: of each patch, sums over the samples. */
export function lightnessesOf(
  films: readonly Float32Array[],
  patches: readonly TileRect[],
  samples: number,
  white: number
): Lightnesses {
  const pixels = patches.reduce((sum, p) => sum + p.width * p.height, 0);
  const out: Lightnesses = { even: new Float64Array(pixels), odd: new Float64Array(pixels) };
  const [ke, ko] = halves(samples).map((n) => 1 / (n * white)) as [number, number];
  let at = 0;
  for (const [i, patch] of patches.entries()) {
    const own = patch.width * patch.height;
    const data = films[i]!;
    for (let p = 0; p < own * CHANNELS; p += CHANNELS, at++) {
      out.even[at] = displayedLightness(data[p + EVEN]! * ke, data[p + EVEN + 1]! * ke, data[p + EVEN + 2]! * ke);
      out.odd[at] = displayedLightness(data[p + ODD]! * ko, data[p + ODD + 1]! * ko, data[p + ODD + 2]! * ko);
    }
  }
  return out;
}

export interface Change {
  /** Root mean square over the pixels, L*. */
  changes: number;
  /** The middle of the patch where it is greatest, in shares of the picture. */
  at: { x: number; y: number };
}

export function changeBetween(
  a: Lightnesses,
  b: Lightnesses,
  patches: readonly TileRect[],
  { width, height }: { width: number; height: number }
): Change {
  let [sum, greatest, i] = [0, Number.NEGATIVE_INFINITY, 0];
  let at = { x: 0.5, y: 0.5 };
  for (const patch of patches) {
    let own = 0;
    const pixels = patch.width * patch.height;
    for (const end = i + pixels; i < end; i++) own += (a.even[i]! - b.even[i]!) * (a.odd[i]! - b.odd[i]!);
    sum += own;
    if (own / pixels <= greatest) continue;
    greatest = own / pixels;
    at = { x: (patch.x + patch.width / 2) / width, y: (patch.y + patch.height / 2) / height };
  }
  return { changes: Math.sqrt(Math.max(0, sum / Math.max(1, i))), at };
}
