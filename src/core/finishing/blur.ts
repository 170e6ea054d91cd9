/** Blurring of small pictures of three floats a pixel. */
import { shrink } from '../film/light';

export interface Plane {
  /** rgb. */
  data: Float32Array;
  width: number;
  height: number;
}

/**
 * By a Gaussian of standard deviation `sigma` px, as three running means of each row and column (Wells 1986: within a few
 * per cent of it), in a time that does not depend on how wide it is. Beyond the edge the picture is mirrored, so that no
 * light is lost.
 */
export function blurred(plane: Plane, sigma: number): Plane {
  const radius = Math.max(1, Math.round((Math.sqrt(4 * sigma * sigma + 1) - 1) / 2));
  const { width, height } = plane;
  let data = plane.data;
  for (let pass = 0; pass < 3; pass++) {
    data = meanAlong(data, width, height, 3, width * 3, radius);
    data = meanAlong(data, height, width, width * 3, 3, radius);
  }
  return { data, width, height };
}

/** `count` values along lines `step` apart; `lines` of them, `next` apart. */
function meanAlong(
  from: Float32Array,
  count: number,
  lines: number,
  step: number,
  next: number,
  radius: number
): Float32Array {
  const out = new Float32Array(from.length);
  const reach = Math.min(radius, count - 1);
  const k = 1 / (2 * reach + 1);
  const at = (i: number) => (i < 0 ? -1 - i : i >= count ? 2 * count - 1 - i : i) * step;
  for (let line = 0; line < lines; line++)
    for (let c = 0; c < 3; c++) {
      const first = line * next + c;
      let sum = 0;
      for (let i = -reach; i <= reach; i++) sum += from[first + at(i)]!;
      for (let i = 0; i < count; i++) {
        out[first + i * step] = sum * k;
        sum += from[first + at(i + reach + 1)]! - from[first + at(i - reach)]!;
      }
    }
  return out;
}

/** Means of blocks; what is left over at the right and lower edge is a block of its own. */
export function shrunkPlane({ data, width, height }: Plane, factor: number): Plane {
  return shrink(data, width, height, 3, factor);
}
