/** CIE 1976 L*a*b* against the white D65. Source: CIE 15:2004, 8.2.1. */
import { rec709ToXyz } from './spaces';
import { decodeSrgb } from './srgb';

const WHITE = rec709ToXyz([1, 1, 1]);
const DELTA = 6 / 29;
const f = (t: number): number => (t > DELTA ** 3 ? Math.cbrt(t) : t / (3 * DELTA * DELTA) + 4 / 29);

/** Of an encoded sRGB colour, each channel 0 to 1. */
export function labOfSrgb(r: number, g: number, b: number): [number, number, number] {
  const [x, y, z] = rec709ToXyz([decodeSrgb(r), decodeSrgb(g), decodeSrgb(b)]).map((v, i) => f(v / WHITE[i]!)) as [
    number,
    number,
    number
  ];
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}
