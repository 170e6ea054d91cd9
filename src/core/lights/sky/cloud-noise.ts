/** The noise that clouds are made of: octaves of gradient noise (Perlin 2002), periodic, in a table. */
import { createRandom } from '../../sampling/random';

/** Cells of the table on a side; a power of two. */
export const TABLE = 64;
export const WRAP = TABLE - 1;

/** A periodic noise in a table of TABLE cubed, mean 0.5, within 0 to 1. */
function makeTable(): Float32Array {
  const random = createRandom(77);
  const table = new Float32Array(TABLE ** 3);
  let gain = 1;
  let total = 0;
  for (const cells of [4, 8, 16, 32]) {
    const gradients = new Float32Array(cells ** 3 * 3);
    for (let i = 0; i < gradients.length; i += 3) {
      const z = 2 * random() - 1;
      const a = 2 * Math.PI * random();
      gradients[i] = Math.sqrt(1 - z * z) * Math.cos(a);
      gradients[i + 1] = Math.sqrt(1 - z * z) * Math.sin(a);
      gradients[i + 2] = z;
    }
    const corner = (x: number, y: number, z: number, fx: number, fy: number, fz: number) => {
      const g = (((z % cells) * cells + (y % cells)) * cells + (x % cells)) * 3;
      return gradients[g]! * fx + gradients[g + 1]! * fy + gradients[g + 2]! * fz;
    };
    const fade = (t: number) => t * t * t * (t * (t * 6 - 15) + 10);
    const mix = (a: number, b: number, t: number) => a + (b - a) * t;
    const per = cells / TABLE;
    for (let z = 0; z < TABLE; z++) {
      const cz = Math.floor(z * per);
      const fz = z * per - cz;
      const w = fade(fz);
      for (let y = 0; y < TABLE; y++) {
        const cy = Math.floor(y * per);
        const fy = y * per - cy;
        const v = fade(fy);
        for (let x = 0; x < TABLE; x++) {
          const cx = Math.floor(x * per);
          const fx = x * per - cx;
          const u = fade(fx);
          const low = mix(
            mix(corner(cx, cy, cz, fx, fy, fz), corner(cx + 1, cy, cz, fx - 1, fy, fz), u),
            mix(corner(cx, cy + 1, cz, fx, fy - 1, fz), corner(cx + 1, cy + 1, cz, fx - 1, fy - 1, fz), u),
            v
          );
          const high = mix(
            mix(corner(cx, cy, cz + 1, fx, fy, fz - 1), corner(cx + 1, cy, cz + 1, fx - 1, fy, fz - 1), u),
            mix(
              corner(cx, cy + 1, cz + 1, fx, fy - 1, fz - 1),
              corner(cx + 1, cy + 1, cz + 1, fx - 1, fy - 1, fz - 1),
              u
            ),
            v
          );
          const at = (z * TABLE + y) * TABLE + x;
          table[at] = table[at]! + gain * mix(low, high, w);
        }
      }
    }
    total += gain * 0.6;
    gain /= 2;
  }
  for (let i = 0; i < table.length; i++) table[i] = Math.min(1, Math.max(0, 0.5 + (0.5 * table[i]!) / total));
  return table;
}

let made: Float32Array | null = null;
export function noise(): Float32Array {
  made ??= makeTable();
  return made;
}

/** The table at a place in cells, periodic, trilinear. */
export function lookUp(table: Float32Array, x: number, y: number, z: number): number {
  const xf = Math.floor(x);
  const yf = Math.floor(y);
  const zf = Math.floor(z);
  const fx = x - xf;
  const fy = y - yf;
  const fz = z - zf;
  const x0 = xf & WRAP;
  const y0 = yf & WRAP;
  const z0 = zf & WRAP;
  const x1 = (x0 + 1) & WRAP;
  const y1 = (y0 + 1) & WRAP;
  const z1 = (z0 + 1) & WRAP;
  const a = (z0 * TABLE + y0) * TABLE;
  const b = (z0 * TABLE + y1) * TABLE;
  const c = (z1 * TABLE + y0) * TABLE;
  const d = (z1 * TABLE + y1) * TABLE;
  const low = table[a + x0]! * (1 - fx) + table[a + x1]! * fx;
  const low2 = table[b + x0]! * (1 - fx) + table[b + x1]! * fx;
  const high = table[c + x0]! * (1 - fx) + table[c + x1]! * fx;
  const high2 = table[d + x0]! * (1 - fx) + table[d + x1]! * fx;
  return (low * (1 - fy) + low2 * fy) * (1 - fz) + (high * (1 - fy) + high2 * fy) * fz;
}
